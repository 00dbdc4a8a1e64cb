/** A spectrum as few figures, for a picture, for the tape and for the owner's report. */

import { CURVE_FROM, CURVE_POINTS, CURVE_TO, curveHertz } from "./curve-scale";
import { decibelsFull, type Spectrum } from "./spectrum";

const LOWEST = -130;
/** A line has two thirds of its power in the middle bin of Hann's window. */
const LINE = 1.5;

/** Strongest of each narrow band, decibels relative to a sine of full scale: lines stay lines. −130 beyond the recording's own end. */
export function curveOf(spectrum: Spectrum): number[] {
  const half = (CURVE_TO / CURVE_FROM) ** (0.5 / (CURVE_POINTS - 1));
  return Array.from({ length: CURVE_POINTS }, (_, i) => {
    const [from, to] = [curveHertz(i) / half / spectrum.step, (curveHertz(i) * half) / spectrum.step];
    const middle = curveHertz(i) / spectrum.step;
    // Where bands are narrower than bins, between the two bins; else the strongest of them.
    let most = between(spectrum.power, middle);
    for (let k = Math.ceil(from); k <= to && k < spectrum.power.length; k++) most = Math.max(most, spectrum.power[k]!);
    most *= LINE;
    return Math.round(10 * Math.max(LOWEST, decibelsFull(most))) / 10;
  });
}

function between(power: Float64Array, at: number): number {
  const k = Math.floor(at);
  const [a, b] = [Math.max(power[k] ?? 0, 1e-20), Math.max(power[k + 1] ?? 0, 1e-20)];
  return a * (b / a) ** (at - k);
}
