/** A settling run: whether a bias or a rail has come to rest, where it will end, and whether it runs away. */

import { fixed } from "../language/language";
import { lastPowerOn, type JobState } from "../tape/fold";
import { formatVolts } from "../quantity/format";
import * as texts from "../texts/bring-up";

export interface RunPoint {
  minutes: number;
  volts: number;
}

export interface Settling {
  points: RunPoint[];
  /** Where it ends by the fit A + B·e^(−t/τ), τ in minutes; undefined with fewer than four readings. */
  end?: number;
  minutes?: number;
  /** Part of the end that is still to come. */
  left?: number;
  verdict: "settled" | "settling" | "drifting" | "too few";
  says: string;
}

/** Within this part of its end a reading has settled. */
const SETTLED = 0.01;
const LEAST_POINTS = 4;
const LEAST_MINUTES = 10;
/** Time constants that are tried, minutes. */
const TAUS = Array.from({ length: 60 }, (_, i) => 0.5 * 1.12 ** i);

/** Readings of one point since power-on. */
export function settlingOf(points: readonly RunPoint[]): Settling {
  const sorted = [...points].sort((a, b) => a.minutes - b.minutes);
  const span = sorted.length > 0 ? sorted.at(-1)!.minutes - sorted[0]!.minutes : 0;
  if (sorted.length < LEAST_POINTS || span < LEAST_MINUTES)
    return {
      points: sorted,
      verdict: "too few",
      says: texts.readingsOverMinMore(LEAST_POINTS, LEAST_MINUTES, sorted.length, Math.round(span)),
    };
  const last = sorted.at(-1)!;
  const fits = TAUS.map((tau) => fit(sorted, tau)).sort((a, b) => a.error - b.error);
  const { a: end, b, tau } = fits[0]!;
  const toCome = b * Math.exp(-last.minutes / tau);
  const scale = Math.max(Math.abs(last.volts), 1e-3);
  const recent = sorted.filter((p) => p.minutes >= last.minutes - Math.max(5, span / 3));
  const slope = (recent.at(-1)!.volts - recent[0]!.volts) / Math.max(1, recent.at(-1)!.minutes - recent[0]!.minutes) / scale;
  const left = toCome / scale;
  const figures = texts.afterMin(formatVolts(last.volts), Math.round(last.minutes));
  // A change that has not begun to slow within the run has no end that the readings know.
  if (tau > 2 * span && Math.abs(slope) * 10 > SETTLED)
    return {
      points: sorted,
      verdict: "drifting",
      says: texts.stillChangingTenMinutes(figures, fixed(slope * 1000, 1)),
    };
  const known = { points: sorted, end, minutes: tau, left };
  if (Math.abs(left) <= SETTLED && Math.abs(slope) * 10 <= 2 * SETTLED)
    return { ...known, verdict: "settled", says: texts.settled(figures) };
  return {
    ...known,
    verdict: "settling",
    says: texts.wayMinMore(figures, formatVolts(end), Math.ceil(tau * Math.log(Math.max(1.01, Math.abs(left) / SETTLED)))),
  };
}

/** Least squares of A + B·e^(−t/τ) for one τ. */
function fit(points: readonly RunPoint[], tau: number): { a: number; b: number; tau: number; error: number } {
  let [n, se, see, sy, sey] = [0, 0, 0, 0, 0];
  for (const { minutes, volts } of points) {
    const e = Math.exp(-minutes / tau);
    n++;
    se += e;
    see += e * e;
    sy += volts;
    sey += e * volts;
  }
  const d = n * see - se * se;
  const b = Math.abs(d) < 1e-12 ? 0 : (n * sey - se * sy) / d;
  const a = (sy - b * se) / n;
  const error = points.reduce((sum, p) => sum + (p.volts - a - b * Math.exp(-p.minutes / tau)) ** 2, 0);
  return { a, b, tau, error };
}

/** The run of each point since the last power-on of a job, whether it is still on or not. @param points names as they are logged. */
export function settlingRuns(state: JobState, points: readonly string[]): Settling[] {
  const start = lastPowerOn(state);
  return points.map((point) =>
    settlingOf(
      state.readings
        .filter((r) => start && r.seq > start.seq && r.kind === "dcv" && r.point.toLowerCase() === point.toLowerCase())
        .map((r) => ({ minutes: (Date.parse(r.at) - Date.parse(start!.at)) / 60_000, volts: r.value })),
    ),
  );
}
