/** What the rest of the amp looks like to a rectifier's ripple: the impedance between its terminals over frequency. */

import { averageCurrent, RECTIFIER_LEAK } from "../supply/rectifier";
import type { Impedances } from "../supply/pulse-train";
import type { Network, RectifierPart } from "./network";
import type { Workspace } from "./workspace";

/** Multiples up to this are solved each; above it every so many, with the admittance drawn between them. */
const EACH = 8;
const STRIDE = 1.3;

/** Ohms between the terminals of a rectifier at a multiple of the ripple's frequency, real and imaginary; undefined without an answer. */
export type Port = (multiple: number) => [number, number] | undefined;

/**
 * The amp between the terminals of `part`, linear around `x`, the averaged conductance of the rectifier's pulses taken out.
 * @param hertz of the ripple. What it gives is asked before `work` serves anything else.
 */
export function portOf(network: Network, work: Workspace, part: RectifierPart, x: Float64Array, hertz: number): Port {
  const n = network.size;
  const { a } = work.lu;
  work.assemble();
  work.begin();
  work.stamp(x, false);
  const out = new Float64Array(2);
  averageCurrent(part.model, (part.a < 0 ? 0 : x[part.a]!) - (part.b < 0 ? 0 : x[part.b]!) + part.correction.shift, out);
  // The leak beside the pulses stays: its current follows the rail, as the amp's own does.
  const own = -out[1]! - RECTIFIER_LEAK;
  for (const [r, c, sign] of [
    [part.a, part.a, 1],
    [part.b, part.b, 1],
    [part.a, part.b, -1],
    [part.b, part.a, -1],
  ] as const)
    if (r >= 0 && c >= 0) a[r * n + c]! -= sign * own;
  const { complex: lu, places, storage } = work;
  lu.adopt(work.lu.elimination);
  const conducts = Float64Array.from(places, (place) => a[place]!);
  const bRe = new Float64Array(n);
  const bIm = new Float64Array(n);
  return (multiple) => {
    const w = 2 * Math.PI * hertz * multiple;
    for (let k = 0; k < places.length; k++) {
      lu.re[places[k]!] = conducts[k]!;
      lu.im[places[k]!] = w * storage[k]!;
    }
    bRe.fill(0);
    bIm.fill(0);
    if (part.a >= 0) bRe[part.a] = 1;
    if (part.b >= 0) bRe[part.b] = -1;
    if (lu.solve(bRe, bIm) >= 0) return undefined;
    return [
      (part.a >= 0 ? bRe[part.a]! : 0) - (part.b >= 0 ? bRe[part.b]! : 0),
      (part.a >= 0 ? bIm[part.a]! : 0) - (part.b >= 0 ? bIm[part.b]! : 0),
    ];
  };
}

/** Ohms of a port at 1 to `multiples` times its frequency; undefined where the network has no answer at one of them. */
export function portImpedances(port: Port, multiples: number): Impedances | undefined {
  const z: Impedances = { re: new Float64Array(multiples), im: new Float64Array(multiples) };
  let before = 0;
  let last: [number, number] | undefined;
  for (let k = 1; k <= multiples; k = k < EACH ? k + 1 : k === multiples ? k + 1 : Math.min(multiples, Math.ceil(k * STRIDE))) {
    const here = port(k);
    if (!here) return undefined;
    for (let j = before + 1; j <= k; j++) {
      const t = last ? (j - before) / (k - before) : 1;
      const [re, im] = j === k || !last ? here : between(last, here, t);
      z.re[j - 1] = re;
      z.im[j - 1] = im;
    }
    before = k;
    last = here;
  }
  return z;
}

/** Between two impedances by their admittances, which a capacitor makes a straight line. */
function between(a: [number, number], b: [number, number], t: number): [number, number] {
  const flip = ([re, im]: [number, number]): [number, number] => {
    const square = re * re + im * im;
    return [re / square, -im / square];
  };
  const [p, q] = [flip(a), flip(b)];
  return flip([p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])]);
}
