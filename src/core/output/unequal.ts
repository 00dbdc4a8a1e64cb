/** What it costs to bias one weak tube apart: headroom and distortion with one bias for all, and with each tube at the same current. */

import type { Circuit } from "../circuit/circuit";
import { withGridShift, solveIdle } from "./idle";
import type { OutputStage } from "./output-stage";
import { playAtClip, playAtWatts, toneAmp } from "./tone";

export interface Unequal {
  /** Volts that each tube's grid stands apart from the common bias. */
  offsets: { tube: string; volts: number }[];
  /** Parts at 1 W, watts at clip: as they are with one bias, and each at the mean current. */
  together: { distortion: number; watts: number };
  apart: { distortion: number; watts: number };
}

/** @param circuit the amp with its tubes as strong as they were read. */
export function unequalTubes(circuit: Circuit, stage: OutputStage, mains?: number, progress?: (part: number) => void): Unequal {
  const { idle } = solveIdle(circuit, mains);
  const of = (i: typeof idle, name: string) => i.tubes.find((t) => t.name === name)!;
  const wanted = stage.tubes.reduce((sum, t) => sum + of(idle, t.name).plate, 0) / stage.tubes.length;
  // One tube's grid is moved at a time, all of them round and round, until each has the mean.
  const volts = new Map(stage.tubes.map((t) => [t.name, 0]));
  const made = () => [...volts].reduce((c, [name, v]) => withGridShift(c, only(stage, c, name), v), circuit);
  for (let round = 0; round < 12; round++) {
    const now = solveIdle(made(), mains).idle;
    if (stage.tubes.every((t) => Math.abs(of(now, t.name).plate / wanted - 1) < 0.005)) break;
    for (const t of stage.tubes) {
      const here = of(now, t.name).plate;
      // About 3/2 power in the volts above cut-off: a fifth of the bias for the whole of the difference.
      volts.set(t.name, volts.get(t.name)! + 0.35 * Math.abs(of(now, t.name).gridVolts) * Math.log(wanted / here) * 0.6);
    }
  }
  const figures = (c: Circuit, from: number) => {
    const amp = toneAmp(c, stage, mains);
    const quiet = playAtWatts(amp, 1).figures;
    const clip = playAtClip(amp, { progress: (p) => progress?.(from + p / 2) });
    return { distortion: quiet.distortion, watts: clip.watts };
  };
  return {
    offsets: [...volts].map(([tube, v]) => ({ tube, volts: v })),
    together: figures(circuit, 0),
    apart: figures(made(), 0.5),
  };
}

/** The stage of one tube alone, with its grid as it is called in this circuit. */
function only(stage: OutputStage, circuit: Circuit, name: string): OutputStage {
  const e = circuit.elements.find((x) => x.name === name)!;
  return { ...stage, tubes: stage.tubes.filter((t) => t.name === name).map((t) => ({ ...t, grid: e.nodes[e.nodes.length - 2]! })) };
}
