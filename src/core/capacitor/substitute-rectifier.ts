/** Silicon in place of selenium or of a tube: the resistance that brings the rail back, the surge, and what the capacitors see before the tubes draw. */

import { alter } from "../circuit/alter";
import type { Circuit, Element } from "../circuit/circuit";
import { isRectifier } from "../circuit/special-parts";
import { decade } from "../quantity/series";
import { ratingFor, STANDARD_WATTS } from "../quantity/ratings";
import { formatQuantity } from "../quantity/format";
import { idealVolts, operatingPoint } from "../solver/operating-point";
import { pulsesOf } from "../solver/ripple";
import type { PartCheck } from "./check";
import { capacitorStresses } from "./stress";
import * as texts from "../texts/capacitor";

export interface RectifierAnswer {
  part: string;
  /** Volts of the first rail and amperes out of it, as it is. */
  before: number;
  amps: number;
  /** With silicon and nothing else. */
  bare: number;
  /** Ohms in series with the rectifier's output that bring the rail back, and the watts to fit. */
  ohms: number;
  watts: number;
  after: number;
  /** Amperes of the first pulse into empty capacitors, and inverse volts at the diodes. */
  surge: number;
  inverse: number;
  /** Capacitors that see more than they are rated for before the tubes draw. */
  over: { part: string; volts: number; rated: number }[];
  /** What makes this change, in the engine's words: the ohms in each path of the rectifier. */
  set: string[];
  checks: PartCheck[];
}

/** A tube rectifier keeps its rail down until it is warm; silicon and selenium do not. */
const slow = (e: Element) => e.rectifierTube !== undefined && !/^(35|5Y3)/.test(e.rectifierTube.type);

/** @param offer diodes: amperes surge of one half wave and inverse volts of their sheet. @throws RangeError for what is no rectifier. */
export function siliconFor(
  circuit: Circuit,
  name: string,
  mains: number,
  offer: { surge?: number; inverse?: number } = {},
): RectifierAnswer {
  const part = circuit.elements.find((e) => e.name === name.toUpperCase() && isRectifier(e.type));
  if (!part || typeof part.params.vac !== "number") throw new RangeError(texts.noRectifier(name));
  const rail = part.nodes[0] === "0" ? part.nodes[1]! : part.nodes[0]!;
  const voltsOf = (c: Circuit) => {
    const op = operatingPoint(c, { mains });
    if (!op.converged) throw new RangeError(texts.doesNotSettle(op.unsettled.join(", "), mains));
    return { volts: Math.abs(idealVolts(op, rail)), op };
  };
  const before = voltsOf(circuit);
  const pulse = pulsesOf(before.op).find((p) => before.op.network.rectifiers[p.rectifier]?.element.name === part.name);
  const amps = pulse?.mean ?? 0;
  const paths = part.type === "RECT_BRIDGE" || part.type === "RECT_FULL" ? 2 : 1;
  const rs = typeof part.params.rs === "number" ? part.params.rs : 0;
  const withOhms = (extra: number) => alter(circuit, [`${name}=tube:silicon`, `${name}.rs=${Math.max(0.1, rs + extra)}`]);
  const bare = voltsOf(withOhms(0)).volts;
  let ohms = 0;
  if (bare > before.volts * 1.01) {
    let [low, high] = [0, 20 * Math.max(10, (bare - before.volts) / Math.max(amps, 1e-3))];
    for (let i = 0; i < 40; i++) {
      const middle = (low + high) / 2;
      if (voltsOf(withOhms(middle)).volts > before.volts) low = middle;
      else high = middle;
    }
    ohms = nearest((low + high) / 2);
  }
  const fitted = withOhms(ohms);
  const after = voltsOf(fitted);
  const train = pulsesOf(after.op).find((p) => after.op.network.rectifiers[p.rectifier]?.element.name === part.name);
  const inPulses = (train?.rms ?? amps) ** 2 * ohms;
  const ratio = circuit.mains ? mains / circuit.mains.volts : 1;
  const peak = Math.SQRT2 * part.params.vac * ratio * 1.1;
  const surge = peak / (rs + ohms || 1);
  const inverse = part.type === "RECT_BRIDGE" ? peak : 2 * peak;
  const over = [...capacitorStresses(fitted, mains).values()].flatMap((s) => {
    const rated = circuit.elements.find((e) => e.name === s.part)?.notes.volts;
    const volts = Math.max(s.unloaded, s.highUnloaded);
    return rated !== undefined && volts > rated ? [{ part: s.part, volts, rated }] : [];
  });
  const checks: PartCheck[] = [
    {
      what: "surge",
      needs: texts.atLeast(formatQuantity(surge, "A", 2)),
      has: offer.surge === undefined ? "" : formatQuantity(offer.surge, "A", 2),
      verdict: offer.surge === undefined ? "none" : offer.surge < surge ? "out" : "in",
      why: texts.emptyCapacitors(),
    },
    {
      what: "inverse volts",
      needs: texts.atLeast(`${Math.ceil(inverse * 1.3)} V`),
      has: offer.inverse === undefined ? "" : `${offer.inverse} V`,
      verdict: offer.inverse === undefined ? "none" : offer.inverse < inverse ? "out" : offer.inverse < 1.3 * inverse ? "watch" : "in",
      why: texts.withMargin(),
    },
    {
      what: "rail",
      needs: `${Math.round(before.volts)} V`,
      has: `${Math.round(after.volts)} V`,
      verdict: Math.abs(after.volts / before.volts - 1) < 0.03 ? "in" : "watch",
      why: ohms > 0 ? texts.seriesFor(formatQuantity(ohms, "Ω", 2), paths) : "",
    },
    {
      what: "capacitors before the tubes draw",
      needs: texts.withinRatings(),
      has: over.map((o) => `${o.part} ${Math.round(o.volts)} V`).join(", ") || texts.allWithin(),
      verdict: over.length > 0 ? "out" : "in",
      why: over.length > 0 ? texts.higherRatings() : slow(part) ? texts.noSlowStart() : "",
    },
  ];
  return {
    part: part.name,
    before: before.volts,
    amps,
    bare,
    ohms,
    watts: ratingFor(Math.max(0.5, 2 * inPulses), STANDARD_WATTS) ?? Math.ceil(2 * inPulses),
    after: after.volts,
    surge,
    inverse,
    over,
    set: [`${name}=tube:silicon`, ...(ohms > 0 ? [`${name}.rs=${rs + ohms}`] : [])],
    checks,
  };
}

const nearest = (ohms: number): number => {
  if (ohms < 1) return 0;
  const power = Math.floor(Math.log10(ohms));
  return [...decade("E12"), 10].map((m) => Number(`${m}e${power}`)).reduce((a, b) => (Math.abs(b - ohms) < Math.abs(a - ohms) ? b : a));
};
