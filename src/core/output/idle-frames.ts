/** The output waveform over a range of idle currents, solved once, so that a slider shows any of them at once. */

import type { Circuit } from "../circuit/circuit";
import { idleAtAim } from "./idle";
import { playAtWatts, toneAmp } from "./tone";
import type { OutputStage } from "./output-stage";
import type { WaveFigures } from "./wave-figures";

export interface IdleFrame {
  /** Plate amperes of a tube on average. */
  amps: number;
  ofRating: number;
  watts: number;
  wave: number[];
  figures: WaveFigures;
}

export interface Frames {
  frames: IdleFrame[];
  load: number;
  /** Volts peak at the input for the power, at the first and the last frame. */
  drive: [number, number];
}

/**
 * Frames from `low` to `high` amperes of idle, each at the same power into the load. An idle that no bias gives is left out.
 * @param progress told 0 to 1; answers false to stop.
 */
export function idleFrames(
  circuit: Circuit,
  stage: OutputStage,
  { low, high, count, watts, mains }: { low: number; high: number; count: number; watts: number; mains?: number },
  progress?: (part: number) => boolean | void,
): Frames {
  const frames: IdleFrame[] = [];
  const drives: number[] = [];
  for (let i = 0; i < count; i++) {
    if (progress?.(i / count) === false) break;
    const amps = low * (high / low) ** (i / Math.max(1, count - 1));
    const at = idleAtAim(circuit, stage, { amps }, mains);
    if (!at) continue;
    const played = playAtWatts(toneAmp(at.circuit, stage, mains), watts, drives.at(-1));
    drives.push(played.peak);
    const of = at.idle.tubes.filter((t) => stage.tubes.some((s) => s.name === t.name));
    frames.push({
      amps,
      ofRating: Math.max(...of.map((t) => t.ofRating ?? 0)),
      watts: played.watts,
      wave: played.wave,
      figures: played.figures,
    });
  }
  return { frames, load: stage.load?.ohms ?? 0, drive: [drives[0] ?? 0, drives.at(-1) ?? 0] };
}

/** The wave at an idle between two frames: each sample by straight lines in the logarithm of the current. */
export function frameAt(frames: readonly IdleFrame[], amps: number): IdleFrame | undefined {
  if (frames.length === 0) return undefined;
  const above = frames.findIndex((f) => f.amps >= amps);
  if (above <= 0) return frames[above === 0 ? 0 : frames.length - 1];
  const [a, b] = [frames[above - 1]!, frames[above]!];
  const part = Math.log(amps / a.amps) / Math.log(b.amps / a.amps);
  const mix = (x: number, y: number) => x + (y - x) * part;
  const [f, g] = [a.figures, b.figures];
  return {
    amps,
    ofRating: mix(a.ofRating, b.ofRating),
    watts: mix(a.watts, b.watts),
    wave: a.wave.map((v, i) => mix(v, b.wave[i]!)),
    figures: {
      harmonics: f.harmonics.map((h, i) => mix(h, g.harmonics[i]!)),
      distortion: mix(f.distortion, g.distortion),
      notch: mix(f.notch, g.notch),
      top: mix(f.top, g.top),
      bottom: mix(f.bottom, g.bottom),
      asymmetry: mix(f.asymmetry, g.asymmetry),
      rms: mix(f.rms, g.rms),
      phase: mix(f.phase, g.phase),
    },
  };
}

/** The least idle at which the notch is no deeper than `bound`; undefined where it is deeper at every frame. */
export function crossoverGone(frames: readonly IdleFrame[], bound: number): number | undefined {
  const last = frames.findLastIndex((f) => f.figures.notch > bound);
  if (last === -1) return frames[0]?.amps;
  const [a, b] = [frames[last], frames[last + 1]];
  if (!a || !b) return undefined;
  const part = (a.figures.notch - bound) / (a.figures.notch - b.figures.notch);
  return a.amps * (b.amps / a.amps) ** part;
}
