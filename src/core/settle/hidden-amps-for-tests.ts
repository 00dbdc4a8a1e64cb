/** Amps whose windings, source resistances and tubes are not what the file says, and the chart that was measured on each. */

import type { Circuit } from "../circuit/circuit";
import { isLineConnected } from "../circuit/mains-connection";
import { isOutputTube } from "../anatomy/cathode-current";
import { fullScale } from "../expectation/expectation";
import { normalDraws, uniformDraws } from "../numeric/random";
import { compile } from "../solver/compile";
import { readings, solveOperatingPoint } from "../solver/operating-point";
import { meterAt, stepOf, type Given } from "./given";

/** The circuit with its hidden truth written into it. */
export function hiddenAmp(circuit: Circuit, seed: number): Circuit {
  const normal = normalDraws(seed);
  const uniform = uniformDraws(seed + 7777);
  const cathodes = new Map<string, number>();
  return {
    ...circuit,
    elements: circuit.elements.map((e) => {
      if (typeof e.params.vac === "number") {
        // A set on the line itself gets what the wall has.
        const vac = e.params.vac * (isLineConnected(circuit) ? 1 : 0.9 + 0.2 * uniform());
        return {
          ...e,
          params: { ...e.params, vac, ...(typeof e.params.rs === "number" ? { rs: e.params.rs * Math.exp(0.8 * (uniform() - 0.5)) } : {}) },
        };
      }
      if (!e.tube) return e;
      // A matched set has one strength; what is drawn once for a cathode holds for all on it.
      const key = isOutputTube(e) ? `output ${e.type}` : e.name;
      const drawn = cathodes.get(key) ?? Math.max(0.6, 1 + 0.12 * normal()) * (isOutputTube(e) ? 0.92 : 1);
      cathodes.set(key, drawn);
      return { ...e, notes: { ...e.notes, strength: drawn * (isOutputTube(e) && key.startsWith("output") ? 1 + 0.03 * normal() : 1) } };
    }),
  };
}

/** What every point of it shows at that mains, to so many ohms per volt. */
export function shownBy(amp: Circuit, mains: number, perVolt?: number): Map<string, number> {
  const network = compile(amp, { mains });
  const op = solveOperatingPoint(network);
  const plain = readings(op, amp.points, 10e6);
  if (perVolt === undefined) return plain;
  return new Map(amp.points.map((p) => [p.name, readings(op, [p], perVolt * (fullScale(plain.get(p.name)!) ?? 10)).get(p.name)!]));
}

/** As charts print: large volts in fives, smaller ones with two figures or three. */
export function printed(volts: number): number {
  const size = Math.abs(volts);
  if (size >= 100) return 5 * Math.round(volts / 5);
  if (size >= 20) return Math.round(volts);
  if (size >= 1) return Math.round(volts * 10) / 10;
  return Math.round(volts * 100) / 100;
}

/** What a compositor makes of a figure: two digits changed round, one lost, a wrong one, the point in the wrong place. */
export function misprinted(volts: number, uniform: () => number): number {
  const text = String(Math.abs(volts));
  const sign = Math.sign(volts) || 1;
  for (let tries = 0; tries < 40; tries++) {
    const digits = [...text];
    const kind = Math.floor(uniform() * 4);
    if (kind === 0 && digits.length >= 2) {
      const at = Math.floor(uniform() * (digits.length - 1));
      [digits[at], digits[at + 1]] = [digits[at + 1]!, digits[at]!];
    } else if (kind === 1) digits[0] = String(1 + Math.floor(uniform() * 9));
    else if (kind === 2 && digits.length >= 3) digits.splice(Math.floor(uniform() * digits.length), 1);
    const value = kind === 3 ? Math.abs(volts) * (uniform() < 0.5 ? 10 : 0.1) : Number(digits.join(""));
    // Closer than a fifth, no reader would call it one, and no other figure could tell.
    if (Number.isFinite(value) && Math.abs(value / Math.abs(volts) - 1) > 0.2) return sign * value;
  }
  return volts * 2;
}

export interface HiddenChart {
  given: Given[];
  /** Names of the points whose figure is a misprint. */
  misprints: string[];
}

/** The chart of a hidden amp: rounded as charts are, one figure in ten a misprint. */
export function chartFrom(amp: Circuit, mains: number, seed: number, perVolt?: number): HiddenChart {
  const uniform = uniformDraws(seed + 99);
  const shown = shownBy(amp, mains, perVolt);
  const misprints: string[] = [];
  const figures = amp.points
    .filter((p) => Math.abs(shown.get(p.name)!) > 0.15)
    .map((p) => ({ point: p.name, volts: printed(shown.get(p.name)!) }));
  const wrong = Math.max(1, Math.round(figures.length / 10));
  for (const at of [...figures.keys()].sort(() => uniform() - 0.5).slice(0, wrong)) {
    const figure = figures[at]!;
    figure.volts = misprinted(figure.volts, uniform);
    misprints.push(figure.point);
  }
  const all = figures.map((f) => f.volts);
  const given = figures.map((f): Given => ({
    ...f,
    mains,
    meterOhms: meterAt(f.volts, perVolt),
    step: stepOf(f.volts, (String(f.volts).split(".")[1] ?? "").length, all),
    source: "chart",
  }));
  return { given, misprints };
}
