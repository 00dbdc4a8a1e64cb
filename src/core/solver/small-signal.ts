/** Small-signal AC at an operating point: complex nodal analysis, and the gain around a loop. */

import { ComplexLu } from "../numeric/complex-lu";
import { assembleStorage, type Network } from "./network";
import { factorAt, type OperatingPoint } from "./operating-point";
import { workspaceOf } from "./workspace";
import * as texts from "../texts/solver";

export interface Phasor {
  re: number;
  im: number;
}

export const magnitude = (p: Phasor) => Math.hypot(p.re, p.im);
export const phaseDegrees = (p: Phasor) => (Math.atan2(p.im, p.re) * 180) / Math.PI;

/** The linear amp around its operating point, for any number of frequencies. */
export class SmallSignal {
  readonly network: Network;
  private readonly g: Float64Array;
  private readonly c: Float64Array;
  private readonly lu: ComplexLu;
  private readonly bRe: Float64Array;
  private readonly bIm: Float64Array;

  /** @throws RangeError when the operating point has no linear amp around it. */
  constructor(op: OperatingPoint) {
    this.network = op.network;
    const n = op.network.size;
    const work = workspaceOf(op.network);
    if (!op.converged || !factorAt(work, op.x)) throw new RangeError(texts.noOperatingPointSmall());
    work.lu.a.set(work.linear);
    work.stamp(op.x, false);
    this.g = work.lu.a.slice();
    this.c = new Float64Array(n * n);
    assembleStorage(op.network, this.c);
    this.lu = new ComplexLu(n);
    this.bRe = new Float64Array(n);
    this.bIm = new Float64Array(n);
  }

  /** Unknown number of a node. @throws RangeError for a node that is not there. */
  node(name: string): number {
    const k = this.network.index.get(name.toLowerCase());
    if (k === undefined) throw new RangeError(texts.noNode(name));
    return k;
  }

  private load(hertz: number): void {
    const w = 2 * Math.PI * hertz;
    this.lu.re.set(this.g);
    for (let k = 0; k < this.c.length; k++) this.lu.im[k] = w * this.c[k]!;
    this.bRe.fill(0);
    this.bIm.fill(0);
  }

  /**
   * Drives node `input` with an ideal source of `volts` through a capacitor without reactance.
   * @returns phasors of all unknowns, in the source's unit (rms in, rms out).
   */
  drive(input: number, volts: number, hertz: number): Phasor[] {
    const n = this.network.size;
    this.load(hertz);
    // The node's own balance gives way to the source: v(input) = volts.
    for (let k = 0; k < n; k++) {
      this.lu.re[input * n + k] = k === input ? 1 : 0;
      this.lu.im[input * n + k] = 0;
    }
    this.bRe[input] = volts;
    return this.solve();
  }

  /** Sends a current of 1 A rms into `into` and out of `from` (−1: ground). */
  inject(into: number, from: number, hertz: number): Phasor[] {
    this.load(hertz);
    if (into >= 0) this.bRe[into]! += 1;
    if (from >= 0) this.bRe[from]! -= 1;
    return this.solve();
  }

  /**
   * Volts at `out` for one ampere into each unknown in turn, out of ground: the adjoint system, one solve for all places.
   * Of a current from one node to another take the difference of the two.
   */
  toOutput(out: number, hertz: number): Phasor[] {
    const n = this.network.size;
    this.load(hertz);
    const { re, im } = this.lu;
    for (let r = 0; r < n; r++)
      for (let c = r + 1; c < n; c++) {
        [re[r * n + c], re[c * n + r]] = [re[c * n + r]!, re[r * n + c]!];
        [im[r * n + c], im[c * n + r]] = [im[c * n + r]!, im[r * n + c]!];
      }
    this.bRe[out] = 1;
    return this.solve();
  }

  /** Takes a conductance between two nodes (−1: ground) out of the linear amp: that of a rectifier whose current is given. */
  takeOut(a: number, b: number, siemens: number): void {
    const n = this.network.size;
    if (a >= 0) this.g[a * n + a]! -= siemens;
    if (b >= 0) this.g[b * n + b]! -= siemens;
    if (a < 0 || b < 0) return;
    this.g[a * n + b]! += siemens;
    this.g[b * n + a]! += siemens;
  }

  /**
   * Loop gain through a two-terminal part, broken at its terminal on `node`: voltage and current injected there in turn.
   * T = (Tv·Ti − 1)/(Tv + Ti + 2). Source: R. D. Middlebrook, "Measurement of loop gain in feedback systems", 1975.
   * @param node the node on the amp's side of the break. @param siemens the part's conductance. @param other its far node.
   */
  loopGain(node: number, other: number, siemens: number, hertz: number): Phasor {
    // A test volt in series between the amp (x) and the part (y): the part's current is g·(Vx + 1 − Vother).
    this.load(hertz);
    this.bRe[node]! -= siemens;
    if (other >= 0) this.bRe[other]! += siemens;
    const v = this.solve();
    const tv = divide({ re: -v[node]!.re, im: -v[node]!.im }, { re: v[node]!.re + 1, im: v[node]!.im });
    // A test ampere into the junction: Iy goes into the part, the amp takes the rest.
    this.load(hertz);
    this.bRe[node]! += 1;
    const w = this.solve();
    const wo = other < 0 ? { re: 0, im: 0 } : w[other]!;
    const iy = { re: siemens * (w[node]!.re - wo.re), im: siemens * (w[node]!.im - wo.im) };
    const ix = { re: 1 - iy.re, im: -iy.im };
    const ti = divide(ix, iy);
    const product = multiply(tv, ti);
    return divide({ re: product.re - 1, im: product.im }, { re: tv.re + ti.re + 2, im: tv.im + ti.im });
  }

  private solve(): Phasor[] {
    const n = this.network.size;
    const singular = this.lu.solve(this.bRe, this.bIm);
    if (singular >= 0) throw new RangeError(texts.linearAmpSingular(this.network.nodes[singular] ?? "a winding"));
    return Array.from({ length: n }, (_, k) => ({ re: this.bRe[k]!, im: this.bIm[k]! }));
  }
}

const multiply = (a: Phasor, b: Phasor): Phasor => ({ re: a.re * b.re - a.im * b.im, im: a.re * b.im + a.im * b.re });
function divide(a: Phasor, b: Phasor): Phasor {
  const size = b.re * b.re + b.im * b.im;
  return { re: (a.re * b.re + a.im * b.im) / size, im: (a.im * b.re - a.re * b.im) / size };
}
