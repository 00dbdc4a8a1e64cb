/** A potentiometer measured from end to end: its law, its dead zones and jumps, its ends. */

import { wiperShare } from "../circuit/taper";
import * as texts from "../texts/cold";

/** Ohms from the start to the wiper at a part of the turn, 0 to 1. */
export interface Turned {
  turn: number;
  ohms: number;
}

export type Law = "linear" | "audio" | "reverse";

export interface PotSweep {
  points: Turned[];
  /** End to end, ohms. */
  total: number;
  /** The law that comes nearest, and how far off it lies: rms, part of the total. Undefined when none comes near. */
  law?: Law;
  error: number;
  /** Parts of the turn in which nothing changes. */
  dead: [number, number][];
  /** Steps far larger than the law makes between neighbours. */
  jumps: { from: number; to: number; ohms: number }[];
  /** Ohms that stay at the start, and at the end. */
  startOhms: number;
  endOhms: number;
  verdict: "in" | "watch" | "out";
  says: string[];
}

const LAWS: Law[] = ["linear", "audio", "reverse"];
/** A track within this of a law is that law: makers' curves differ by as much. */
const NEAR = 0.12;
/** Part of the total under which two readings are the same, and of the turn from which a stretch without change is dead. */
const STILL = 0.004;
const DEAD_TURN = 0.08;
/** A jump is this part of the total beyond what the law asks for. */
const JUMP = 0.15;
const LARGE_END = 0.02;
/** A track may be this far off its marking. */
const TOTAL_TOLERANCE = 0.25;

/**
 * @param marked ohms on the case, when known. @param wanted the law that the circuit has there.
 * @throws RangeError for fewer than three points, or a turn outside 0 to 1.
 */
export function judgeSweep(points: readonly Turned[], total: number, marked?: number, wanted?: Law): PotSweep {
  if (points.length < 3) throw new RangeError(texts.threePointsTurnMore(points.length));
  for (const { turn, ohms } of points) {
    if (!(turn >= 0 && turn <= 1)) throw new RangeError(texts.turnFromWantedRead(Math.round(turn * 100)));
    if (!(ohms >= 0)) throw new RangeError(texts.ohmsFromZeroUp(ohms));
  }
  if (!(total > 0)) throw new RangeError(texts.ohmsFromEndEnd(total));
  const sorted = [...points].sort((a, b) => a.turn - b.turn);
  const part = sorted.map((p) => Math.min(p.ohms, total * 1.5) / total);
  const errorOf = (law: Law) => Math.sqrt(sorted.reduce((sum, p, i) => sum + (part[i]! - wiperShare(law, p.turn)) ** 2, 0) / sorted.length);
  const best = LAWS.reduce((a, b) => (errorOf(b) < errorOf(a) ? b : a));
  const error = errorOf(best);
  const law = error <= NEAR ? best : undefined;
  const dead: [number, number][] = [];
  const jumps: PotSweep["jumps"] = [];
  for (let i = 1; i < sorted.length; i++) {
    const [from, to] = [sorted[i - 1]!.turn, sorted[i]!.turn];
    const step = part[i]! - part[i - 1]!;
    const asked = wiperShare(best, to) - wiperShare(best, from);
    // Where the law itself hardly moves, as at the quiet end of an audio track, nothing is dead.
    if (Math.abs(step) < STILL && asked > 4 * STILL && to - from > 0) {
      const last = dead.at(-1);
      if (last && last[1] === from) last[1] = to;
      else dead.push([from, to]);
    }
    if (Math.abs(step - asked) > JUMP && Math.abs(step) > Math.abs(asked) + JUMP) jumps.push({ from, to, ohms: step * total });
  }
  const longDead = dead.filter(([a, b]) => b - a >= DEAD_TURN);
  const backwards = sorted.some((_, i) => i > 0 && part[i]! < part[i - 1]! - 0.03);
  const startOhms = sorted[0]!.turn === 0 ? sorted[0]!.ohms : NaN;
  const endOhms = sorted.at(-1)!.turn === 1 ? Math.max(0, total - sorted.at(-1)!.ohms) : NaN;
  const percent = (x: number) => `${Math.round(x * 100)} %`;
  const says: string[] = [];
  let verdict: PotSweep["verdict"] = "in";
  const worse = (v: PotSweep["verdict"]) => {
    if (v === "out" || verdict === "in") verdict = v;
  };
  if (longDead.length > 0) {
    worse("out");
    says.push(texts.nothingChangesTrackWiper(longDead.map(([a, b]) => texts.fromTo(percent(a), percent(b))).join(" and ")));
  }
  if (jumps.length > 0) {
    worse("out");
    says.push(texts.jumpsCrackedTrackDirt(jumps.map((j) => texts.betweenAnd(percent(j.from), percent(j.to))).join(" and ")));
  }
  if (backwards) {
    worse("watch");
    says.push(texts.doesNotRiseAll());
  }
  if (!law) {
    worse("watch");
    says.push(texts.fitsNeitherLinearAudio());
  } else if (wanted && law !== wanted) {
    worse("watch");
    says.push(texts.whereCircuitHasReplacement(law, wanted));
  }
  if (marked !== undefined && Math.abs(total - marked) > TOTAL_TOLERANCE * marked) {
    worse(total > 2 * marked ? "out" : "watch");
    says.push(texts.endEndWhatMarked(percent(total / marked)));
  }
  if (startOhms > LARGE_END * total || endOhms > LARGE_END * total) {
    worse("watch");
    says.push(texts.doesNotReachEnd());
  }
  return { points: sorted, total, law, error, dead: longDead, jumps, startOhms, endOhms, verdict, says };
}
