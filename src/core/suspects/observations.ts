/** How likely each fault makes what can be seen, heard or felt without a meter. */

import type { SolveConditions } from "../expectation/modelled";
import { OBSERVATIONS, observationNamed } from "../diagnosis/observation-names";
import type { FaultTable, Hypothesis, Prediction } from "./table";
import * as texts from "../texts/suspects";

/** Chance that it is noted although nothing makes it, and that it is missed although something does. */
const FALSE = 0.03;
const MISSED = 0.15;

/** Chance of the observation for every hypothesis. @throws RangeError naming what is known when there is none of that name. */
export function observationChance(table: FaultTable, text: string, conditions: SolveConditions): Float64Array {
  const named = observationNamed(text);
  if (!named)
    throw new RangeError(
      texts.noObservationKnown(text, OBSERVATIONS.map((o) => (o.about === "tube" ? `V1 ${o.name}` : o.name)).join(", ")),
    );
  const { type, tube } = named;
  if (tube && !table.circuit.elements.some((e) => e.tube && (e.name === tube || e.name.startsWith(tube))))
    throw new RangeError(texts.noTube(tube));
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
function strength(name: string, h: Hypothesis, s: Prediction, healthy: Prediction, tube: string | undefined, gain: number): number {
  const watts = (of: Prediction) =>
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
