/** A reading and its verdict as a sentence to be spoken: the eyes stay on the chassis. */

import type { TestPoint } from "../circuit/circuit";
import type { Expectation, Verdict } from "../expectation/expectation";
import * as texts from "../texts/walk";

const ELECTRODE: Record<string, string> = { p: "plate", k: "cathode", g: "grid", s: "screen" };

/** "V 2 plate": spelt so that it is not read as a word. */
export function spokenPoint(point: Pick<TestPoint, "name" | "label">): string {
  const [, tube, electrode] = /^V(\d+[A-D]?)\.([pkgs])$/i.exec(point.name) ?? [];
  return tube ? `V ${tube.replace(/([A-D])$/i, " $1")} ${ELECTRODE[electrode!.toLowerCase()]}` : point.label || point.name;
}

/** "238 volts", "minus 33.1 volts", "420 millivolts": as many digits as help the ear. */
export function spokenVolts(volts: number): string {
  const size = Math.abs(volts);
  const sign = volts < 0 ? "minus " : "";
  if (size === 0) return texts.zeroVolts();
  if (size < 0.9995) return texts.millivolts(sign, Number((size * 1000).toPrecision(3)));
  const shown = Number(size.toFixed(size >= 99.95 ? 0 : 1));
  return `${sign}${shown} ${shown === 1 ? "volt" : "volts"}`;
}

/** The whole sentence. The word of the verdict comes first, the figure after: that is what decides. */
export function spokenVerdict(
  point: Pick<TestPoint, "name" | "label">,
  volts: number,
  verdict: Verdict,
  expected?: Pick<Expectation, "volts" | "low" | "high">,
): string {
  const what = `${spokenPoint(point)}, ${spokenVolts(volts)}`;
  if (verdict === "none" || !expected) return what;
  if (verdict === "in") return texts.inBand(what);
  const side = volts > expected.high ? "high" : "low";
  return texts.expected(verdict === "out" ? "out" : "watch", side, what, spokenVolts(expected.volts));
}

/** What the tone says, apart from colour and word: pitch in hertz, one or more beeps. */
export function toneOf(verdict: Verdict): { hertz: number; beeps: number; seconds: number } {
  if (verdict === "in") return { hertz: 880, beeps: 1, seconds: 0.12 };
  if (verdict === "watch") return { hertz: 587, beeps: 2, seconds: 0.12 };
  if (verdict === "out") return { hertz: 294, beeps: 3, seconds: 0.16 };
  return { hertz: 660, beeps: 1, seconds: 0.06 };
}
