/** Filters, taps and balanced outputs by hand: what a part does to a corner, a load to a tap, a mismatch to a balance. */

import * as texts from "../texts/signal";

/** Corner of a resistance and a capacitance, hertz: 1/(2πRC). @throws RangeError for what is not above zero. */
export function cornerHertz(ohms: number, farads: number): number {
  if (!(ohms > 0) || !(farads > 0)) throw new RangeError(texts.ohmsFaradsAboveZero(ohms, farads));
  return 1 / (2 * Math.PI * ohms * farads);
}

/**
 * A shelf in a feedback path: a capacitor across the lower resistor lets feedback go above its corner, one in series below it.
 * @returns hertz at which the feedback begins to change and at which it has, decibels between them.
 */
export function feedbackShelf(
  series: number,
  shunt: number,
  farads: number,
  across: "shunt" | "series",
): { from: number; to: number; decibels: number } {
  const parallel = (series * shunt) / (series + shunt);
  // Across the series resistor the feedback rises above the corner, across the shunt it falls.
  return across === "shunt"
    ? { from: cornerHertz(parallel, farads), to: Infinity, decibels: -Infinity }
    : { from: cornerHertz(series, farads), to: cornerHertz(parallel, farads), decibels: 20 * Math.log10((series + shunt) / shunt) };
}

/** What a load takes from a tap, and where a cable's capacitance begins to take the highs. */
export function tapLoading(source: number, load: number, cable = 0): { decibels: number; corner?: number } {
  if (!(source >= 0) || !(load > 0)) throw new RangeError(texts.sourceMoreLoadAbove(source, load));
  const parallel = source > 0 ? (source * load) / (source + load) : 0;
  return {
    decibels: 20 * Math.log10(load / (load + source)),
    ...(cable > 0 && parallel > 0 ? { corner: cornerHertz(parallel, cable) } : {}),
  };
}

export interface Balanced {
  /** Ohms between the two legs. */
  outputOhms: number;
  /** Decibels from the unbalanced source to the legs, loaded. */
  decibels: number;
  /** Hum on both legs alike that is left between them, decibels; −∞ for a perfect balance. */
  rejection: number;
}

/**
 * Through a transformer: its ratio moves ohms by its square; what unbalances it is capacitance between the windings.
 * @param ratio secondary turns for one primary turn. @param source ohms before it. @param dcr of both windings, seen from the secondary.
 */
export function transformerBalanced(
  ratio: number,
  source: number,
  dcr: number,
  load: number,
  windingFarads: number,
  hertz: number,
): Balanced {
  const ohms = source * ratio * ratio + dcr;
  const stray = windingFarads > 0 ? 1 / (2 * Math.PI * hertz * windingFarads) : Infinity;
  return {
    outputOhms: ohms,
    decibels: 20 * Math.log10((ratio * load) / (load + ohms)),
    rejection: Number.isFinite(stray) ? 20 * Math.log10(ohms / (ohms + 2 * stray)) : -Infinity,
  };
}

/**
 * Electronically: two legs of equal resistors, the second from an inverter or from ground (impedance balanced).
 * What both legs pick up alike is rejected by how alike their ohms are, worked out against the receiver's own to ground.
 * @param mismatch difference of the legs as a part of their ohms. @param driven false when only one leg carries signal.
 */
export function electronicBalanced(legOhms: number, mismatch: number, receiverOhms: number, driven: boolean): Balanced {
  const [a, b] = [legOhms * (1 + mismatch / 2), legOhms * (1 - mismatch / 2)];
  const part = (leg: number) => receiverOhms / (receiverOhms + leg);
  const left = Math.abs(part(a) - part(b));
  return {
    outputOhms: a + b,
    decibels: 20 * Math.log10((driven ? 2 : 1) * part(legOhms)),
    rejection: left > 0 ? 20 * Math.log10(left) : -Infinity,
  };
}
