/** What can be seen, heard or felt without a meter, and how likely each fault makes it. */

import type { SolveConditions } from "../walk/modelled";
import type { FaultTable, Hypothesis, Shown } from "./table";

export interface ObservationType {
  /** As it is typed: "V4 cold" is `cold` of V4. */
  name: string;
  /** Whether a tube or part goes before it. */
  about: "tube" | "amp";
  says: string;
}

/** Chance that it is noted although nothing makes it, and that it is missed although something does. */
const FALSE = 0.03;
const MISSED = 0.15;

export const OBSERVATIONS: ObservationType[] = [
  { name: "cold", about: "tube", says: "the tube is cold to the hand after minutes" },
  { name: "dark", about: "tube", says: "its heater does not glow" },
  { name: "plate glows", about: "tube", says: "its plate shows red" },
  { name: "very hot", about: "tube", says: "far hotter than its fellow" },
  { name: "blue glow", about: "tube", says: "a blue glow between its electrodes" },
  { name: "limiter bright", about: "amp", says: "the series lamp stays bright" },
  { name: "limiter dark", about: "amp", says: "the series lamp hardly glows" },
  { name: "fuse blows", about: "amp", says: "the fuse goes at power-on" },
  { name: "dead quiet", about: "amp", says: "no sound, not even hum" },
  { name: "no signal", about: "amp", says: "it idles, but no signal comes through" },
  { name: "quiet", about: "amp", says: "signal comes through far too low" },
  { name: "hum", about: "amp", says: "hum that the volume does not change" },
  { name: "hot smell", about: "amp", says: "it runs hot and smells" },
  { name: "crackle", about: "amp", says: "crackle and popping at idle" },
];

/** The observation that a text names; undefined when there is none of that name. */
export function observationNamed(text: string): { type: ObservationType; tube?: string } | undefined {
  const lower = text.trim().toLowerCase().replace(/\s+/g, " ");
  for (const type of OBSERVATIONS) {
    if (type.about === "amp" && lower === type.name) return { type };
    const tube = type.about === "tube" && new RegExp(`^(v\\d+[a-d]?) ${type.name}$`).exec(lower)?.[1];
    if (tube) return { type, tube: tube.toUpperCase() };
  }
  return undefined;
}

/** Chance of the observation for every hypothesis. @throws RangeError naming what is known when there is none of that name. */
export function observationChance(table: FaultTable, text: string, conditions: SolveConditions): Float64Array {
  const named = observationNamed(text);
  if (!named)
    throw new RangeError(
      `no observation "${text}"; known are ${OBSERVATIONS.map((o) => (o.about === "tube" ? `V1 ${o.name}` : o.name)).join(", ")}`,
    );
  const { type, tube } = named;
  if (tube && !table.circuit.elements.some((e) => e.tube && (e.name === tube || e.name.startsWith(tube))))
    throw new RangeError(`no tube ${tube}`);
  const shown = table.shown(conditions);
  const gains = /quiet|no signal/.test(type.name) ? table.gains(conditions) : undefined;
  const healthy = shown[0]!;
  return Float64Array.from(table.hypotheses, (h, i) => {
    const s = shown[i]!;
    if (!s.converged) return 0.5;
    const truth = strength(type.name, h, s, healthy, tube, gains ? gains[i]! / Math.max(gains[0]!, 1e-12) : 1);
    return FALSE + truth * (1 - FALSE - MISSED);
  });
}

/** Rises from 0 to 1 as x passes from `none` to `full`. */
const ramp = (x: number, none: number, full: number) => Math.min(1, Math.max(0, (x - none) / (full - none)));

/** 0 to 1: how much a hypothesis makes it so. */
function strength(name: string, h: Hypothesis, s: Shown, healthy: Shown, tube: string | undefined, gain: number): number {
  const watts = (of: Shown) =>
    [...of.tubeWatts].reduce((sum, [t, w]) => (tube === undefined || t === tube || t.startsWith(tube) ? sum + w : sum), 0);
  const rating = watts(s) / Math.max(watts(healthy), 1e-3);
  const heater = h.fault.kind === "heater open" && h.fault.refs[0] === tube;
  const supply = s.supplyWatts / Math.max(healthy.supplyWatts, 1e-3);
  const shorted = /electrolytic shorted|winding|rectifier half/.test(h.fault.kind) && s.supplyWatts < 0.3 * healthy.supplyWatts;
  switch (name) {
    case "cold":
      return heater ? 1 : ramp(-rating, -0.35, -0.05);
    case "dark":
      return heater ? 1 : 0;
    case "plate glows":
      return ramp(rating, 1.6, 2.4);
    case "very hot":
      return ramp(rating, 1.25, 1.8);
    case "blue glow":
      return h.fault.kind === "tube gassy" && h.fault.refs[0] === tube ? 0.7 : 0;
    case "limiter bright":
    case "fuse blows":
    case "hot smell":
      return Math.max(shorted && /shorted/.test(h.fault.kind) ? 1 : 0, ramp(supply, 1.3, 2));
    case "limiter dark":
    case "dead quiet":
      return ramp(-supply, -0.25, -0.03);
    case "no signal":
      return ramp(-Math.log10(Math.max(gain, 1e-6)), 1.2, 2);
    case "quiet":
      return ramp(-Math.log10(Math.max(gain, 1e-6)), 0.25, 0.7) * (1 - ramp(-Math.log10(Math.max(gain, 1e-6)), 2, 3));
    case "hum":
      return /electrolytic open|can lifted|heater-cathode|rectifier half/.test(h.fault.kind) ? 0.8 : 0;
    case "crackle":
      return /coupling leaky|resistor high|tube gassy|board leak/.test(h.fault.kind) ? 0.3 : 0;
    default:
      return 0;
  }
}
