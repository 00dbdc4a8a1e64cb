/**
 * LU factors of small real matrices that are mostly empty, as circuits give them. The matrix is filled in as a dense one; the arithmetic
 * runs over the entries that can be other than zero, in an order found once and kept while its pivots stay sound.
 */

import { findElimination, REUSE_THRESHOLD, SINGULAR_BELOW, withPattern, type Elimination } from "./elimination";

/** Fill `a`, call `factor`, then solve for as many right-hand sides as wanted. */
export class Lu {
  /** The matrix, row-major; left as it is. */
  readonly a: Float64Array;
  private readonly work: Float64Array;
  private order: Elimination | undefined;
  /** The first that was found: others are made from it, so that what they fill in does not pile up. */
  private first: Elimination | undefined;
  private factors = new Float64Array(0);

  /** @param pattern places that can ever be other than zero; those of the first matrix when not given. */
  constructor(
    readonly n: number,
    private pattern?: Uint8Array,
  ) {
    this.a = new Float64Array(n * n);
    this.work = new Float64Array(n);
  }

  /**
   * Takes the order of another matrix's elimination, with the places that this one fills besides: finding an order costs
   * more than many factorings. Whether its pivots hold is seen at each factoring as ever.
   */
  adopt(other: Lu): void {
    if (other.n !== this.n || !other.order || !this.pattern || this.order) return;
    this.order = this.first = withPattern(other.order, this.pattern);
  }

  /** Serves another matrix of the same size from now on: its order of elimination is kept, with the places that this one fills besides. */
  become(pattern: Uint8Array): void {
    this.pattern = pattern;
    if (this.first) this.order = withPattern(this.first, pattern);
  }

  /** In which order it is eliminated, once that is known. */
  get elimination(): Elimination | undefined {
    return this.order;
  }

  /** @returns −1, or a column without a usable pivot. */
  factor(): number {
    if (this.order && this.eliminate(this.order)) return -1;
    const filled = this.pattern?.slice() ?? new Uint8Array(this.a.length);
    for (let k = 0; k < filled.length; k++) if (this.a[k] !== 0) filled[k] = 1;
    const order = findElimination(this.n, this.a.slice(), filled);
    if (typeof order === "number") return order;
    this.order = order;
    this.first ??= order;
    if (this.eliminate(order)) return -1;
    // The order was found with these very numbers: what fails now fails for good.
    this.order = undefined;
    return order.column[this.n - 1]!;
  }

  /** False when a pivot has become too small beside its column. */
  private eliminate({ start, rowEnd, place, from }: Elimination): boolean {
    const { n, a } = this;
    const entries = place.length;
    if (this.factors.length !== entries) this.factors = new Float64Array(entries);
    const f = this.factors;
    for (let e = 0; e < entries; e++) f[e] = a[place[e]!]!;
    let next = 0;
    for (let k = 0; k < n; k++) {
      const first = start[k]!;
      const end = rowEnd[k]!;
      const below = start[k + 1]!;
      const pivot = f[first]!;
      const size = Math.abs(pivot);
      if (!(size > SINGULAR_BELOW)) return false;
      const width = end - first - 1;
      for (let r = end; r < below; r++) {
        const entry = f[r]!;
        if (entry === 0) {
          next += width;
          continue;
        }
        if (size < REUSE_THRESHOLD * Math.abs(entry)) return false;
        const part = entry / pivot;
        f[r] = part;
        for (let j = first + 1; j < end; j++) f[from[next++]!]! -= part * f[j]!;
      }
    }
    return true;
  }

  /** Solves A x = b in place. */
  solve(b: Float64Array): void {
    substitute(this.factors, this.order!, b, this.work);
  }

  /** The factors as they are now, for later: solves in place as `solve` does, whatever this is factored with meanwhile. */
  kept(): (b: Float64Array) => void {
    const { order, work } = this;
    const factors = this.factors.slice();
    return (b) => substitute(factors, order!, b, work);
  }

  /** Solves Aᵀ x = b in place: the adjoint system. */
  solveTransposed(b: Float64Array): void {
    const { n, factors: f, work } = this;
    const { row, column, start, rowEnd, at } = this.order!;
    for (let k = 0; k < n; k++) {
      const first = start[k]!;
      const value = b[column[k]!]! / f[first]!;
      work[row[k]!] = value;
      if (value === 0) continue;
      for (let j = first + 1; j < rowEnd[k]!; j++) b[at[j]!]! -= f[j]! * value;
    }
    for (let k = n - 1; k >= 0; k--) {
      let sum = work[row[k]!]!;
      for (let r = rowEnd[k]!; r < start[k + 1]!; r++) sum -= f[r]! * work[at[r]!]!;
      work[row[k]!] = sum;
    }
    b.set(work);
  }
}

/** Forward and backward substitution; the answer stands in `b`. */
function substitute(f: Float64Array, { row, column, start, rowEnd, at }: Elimination, b: Float64Array, work: Float64Array): void {
  const n = b.length;
  for (let k = 0; k < n; k++) {
    const value = b[row[k]!]!;
    if (value === 0) continue;
    const below = start[k + 1]!;
    for (let r = rowEnd[k]!; r < below; r++) b[at[r]!]! -= f[r]! * value;
  }
  for (let k = n - 1; k >= 0; k--) {
    const first = start[k]!;
    const end = rowEnd[k]!;
    let sum = b[row[k]!]!;
    for (let j = first + 1; j < end; j++) sum -= f[j]! * work[at[j]!]!;
    work[column[k]!] = sum / f[first]!;
  }
  b.set(work);
}
