/** LU factors of small complex matrices that are mostly empty: a circuit at one frequency. */

import { findElimination, REUSE_THRESHOLD, withPattern, type Elimination } from "./elimination";

/** Below this square of a pivot's size the matrix has none. */
const NOTHING = 1e-300;

/** Of one use each: fill `re` and `im`, call `solve`. The order of the elimination is kept from call to call while it fits. */
export class ComplexLu {
  readonly re: Float64Array;
  readonly im: Float64Array;
  private readonly xRe: Float64Array;
  private readonly xIm: Float64Array;
  private order: Elimination | undefined;
  private fRe = new Float64Array(0);
  private fIm = new Float64Array(0);

  /** @param pattern places that can ever be other than zero; without one all are looked at each time. */
  constructor(
    readonly n: number,
    private pattern?: Uint8Array,
  ) {
    this.re = new Float64Array(n * n);
    this.im = new Float64Array(n * n);
    this.xRe = new Float64Array(n);
    this.xIm = new Float64Array(n);
  }

  /** Takes the order of the same circuit's elimination at rest, where none was found yet. */
  adopt(order: Elimination | undefined): void {
    if (order && this.pattern && !this.order) this.order = withPattern(order, this.pattern);
  }

  /** Serves another matrix of the same size from now on, with the order of elimination that was found. */
  become(pattern: Uint8Array): void {
    this.pattern = pattern;
    this.order &&= withPattern(this.order, pattern);
  }

  /** Solves A x = b; x stands in b. @returns −1, or a column without a usable pivot. */
  solve(bRe: Float64Array, bIm: Float64Array): number {
    if (!(this.order && (this.pattern || this.allIn(this.order)) && this.eliminate(this.order, false))) {
      const filled = this.pattern?.slice() ?? Uint8Array.from(this.re, (x, k) => (x !== 0 || this.im[k] !== 0 ? 1 : 0));
      const order = findElimination(this.n, this.re.slice(), filled, this.im.slice());
      if (typeof order === "number") return order;
      this.order = order;
      if (!this.eliminate(order, true)) return order.column[this.n - 1]!;
    }
    this.substitute(this.order!, bRe, bIm);
    return -1;
  }

  /** Whether nothing stands where the order does not look. */
  private allIn({ places }: Elimination): boolean {
    const { re, im } = this;
    for (let k = 0; k < places.length; k++) if (places[k] === 0 && (re[k] !== 0 || im[k] !== 0)) return false;
    return true;
  }

  private eliminate({ start, rowEnd, place, from }: Elimination, last: boolean): boolean {
    const { n, re, im } = this;
    const entries = place.length;
    if (this.fRe.length !== entries) [this.fRe, this.fIm] = [new Float64Array(entries), new Float64Array(entries)];
    const { fRe, fIm } = this;
    for (let e = 0; e < entries; e++) {
      fRe[e] = re[place[e]!]!;
      fIm[e] = im[place[e]!]!;
    }
    let next = 0;
    for (let k = 0; k < n; k++) {
      const first = start[k]!;
      const end = rowEnd[k]!;
      const pr = fRe[first]!;
      const pi = fIm[first]!;
      const size = pr * pr + pi * pi;
      if (!(size > NOTHING)) return false;
      for (let r = end; r < start[k + 1]!; r++) {
        const ar = fRe[r]!;
        const ai = fIm[r]!;
        if (ar === 0 && ai === 0) {
          next += end - first - 1;
          continue;
        }
        if (!last && size < REUSE_THRESHOLD * REUSE_THRESHOLD * (ar * ar + ai * ai)) return false;
        const partRe = (ar * pr + ai * pi) / size;
        const partIm = (ai * pr - ar * pi) / size;
        fRe[r] = partRe;
        fIm[r] = partIm;
        for (let j = first + 1; j < end; j++) {
          const to = from[next++]!;
          const kr = fRe[j]!;
          const ki = fIm[j]!;
          fRe[to]! -= partRe * kr - partIm * ki;
          fIm[to]! -= partRe * ki + partIm * kr;
        }
      }
    }
    return true;
  }

  private substitute({ row, column, start, rowEnd, at }: Elimination, bRe: Float64Array, bIm: Float64Array): void {
    const { n, fRe, fIm, xRe, xIm } = this;
    for (let k = 0; k < n; k++) {
      const vr = bRe[row[k]!]!;
      const vi = bIm[row[k]!]!;
      if (vr === 0 && vi === 0) continue;
      for (let r = rowEnd[k]!; r < start[k + 1]!; r++) {
        const i = at[r]!;
        bRe[i]! -= fRe[r]! * vr - fIm[r]! * vi;
        bIm[i]! -= fRe[r]! * vi + fIm[r]! * vr;
      }
    }
    for (let k = n - 1; k >= 0; k--) {
      const first = start[k]!;
      let sr = bRe[row[k]!]!;
      let si = bIm[row[k]!]!;
      for (let j = first + 1; j < rowEnd[k]!; j++) {
        const c = at[j]!;
        sr -= fRe[j]! * xRe[c]! - fIm[j]! * xIm[c]!;
        si -= fRe[j]! * xIm[c]! + fIm[j]! * xRe[c]!;
      }
      const pr = fRe[first]!;
      const pi = fIm[first]!;
      const size = pr * pr + pi * pi;
      xRe[column[k]!] = (sr * pr + si * pi) / size;
      xIm[column[k]!] = (si * pr - sr * pi) / size;
    }
    bRe.set(xRe);
    bIm.set(xIm);
  }
}
