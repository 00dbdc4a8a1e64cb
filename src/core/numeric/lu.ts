/**
 * LU factors of small matrices that are mostly empty, as circuits give them. Storage is dense and row-major; the arithmetic
 * runs over the places that can be filled, in an order found once and kept while its pivots stay sound.
 */

/** In which order to eliminate, and which places take part. Row and column numbers are those of the matrix. */
interface Order {
  /** Pivot row and column of each step. */
  row: Int32Array;
  column: Int32Array;
  /** Rows below and columns right of each pivot that are filled: `rows[rowsFrom[k] … rowsFrom[k+1]]`. */
  rows: Int32Array;
  rowsFrom: Int32Array;
  columns: Int32Array;
  columnsFrom: Int32Array;
  /** Places that take part, row-major: what was filled, and what filled in. */
  places: Uint8Array;
}

/** Threshold pivoting: a pivot may be this much smaller than the largest entry of its column when it is chosen. */
const PIVOT_THRESHOLD = 0.01;
/** Below this part of the column's largest entry the kept order of pivots is given up and a new one is found. */
const REUSE_THRESHOLD = 1e-7;
const SINGULAR_BELOW = 1e-200;

/**
 * Finds an order with little fill-in: of the sound pivots the one with the fewest neighbours.
 * Source: H. M. Markowitz, "The elimination form of the inverse and its application to linear programming", 1957.
 * @param a n × n; overwritten. @param filled places that can ever be other than zero; fill-in is added to it.
 * @param im imaginary parts, for a complex matrix; overwritten too.
 * @returns the column that has no usable pivot, or the order.
 */
function findOrder(n: number, a: Float64Array, filled: Uint8Array, im?: Float64Array): Order | number {
  const row = new Int32Array(n);
  const column = new Int32Array(n);
  const rows: number[] = [];
  const columns: number[] = [];
  const rowsFrom = new Int32Array(n + 1);
  const columnsFrom = new Int32Array(n + 1);
  // Filled places that are still to be eliminated, by row and by column.
  const inRow: number[][] = Array.from({ length: n }, () => []);
  const inColumn: number[][] = Array.from({ length: n }, () => []);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++)
      if (filled[i * n + j]) {
        inRow[i]!.push(j);
        inColumn[j]!.push(i);
      }
  const open = Array.from({ length: n }, (_, i) => i);
  const sizeAt = (k: number) => Math.abs(a[k]!) + (im ? Math.abs(im[k]!) : 0);
  const largest = (j: number) => {
    let most = 0;
    for (const i of inColumn[j]!) most = Math.max(most, sizeAt(i * n + j));
    return most;
  };
  const remove = (list: number[], value: number) => {
    list[list.indexOf(value)] = list[list.length - 1]!;
    list.pop();
  };
  for (let k = 0; k < n; k++) {
    let best = Infinity;
    let bestSize = 0;
    let pr = -1;
    let pc = -1;
    for (const i of open) {
      const others = inRow[i]!.length - 1;
      for (const j of inRow[i]!) {
        const cost = others * (inColumn[j]!.length - 1);
        if (cost > best) continue;
        const size = sizeAt(i * n + j);
        if (!(size > SINGULAR_BELOW) || (cost === best && size <= bestSize) || size < PIVOT_THRESHOLD * largest(j)) continue;
        best = cost;
        bestSize = size;
        pr = i;
        pc = j;
      }
    }
    if (pr < 0) return [...Array(n).keys()].find((j) => inColumn[j]!.length > 0) ?? 0;
    row[k] = pr;
    column[k] = pc;
    remove(open, pr);
    const right = inRow[pr]!.filter((j) => j !== pc);
    const below = inColumn[pc]!.filter((i) => i !== pr);
    for (const j of right) remove(inColumn[j]!, pr);
    inColumn[pc] = [];
    for (const i of below) {
      remove(inRow[i]!, pc);
      const [fr, fi] = quotient(a, im, i * n + pc, pr * n + pc);
      for (const j of right) {
        if (!filled[i * n + j]) {
          filled[i * n + j] = 1;
          inRow[i]!.push(j);
          inColumn[j]!.push(i);
        }
        const [from, to] = [pr * n + j, i * n + j];
        const ki = im ? im[from]! : 0;
        const kr = a[from]!;
        a[to]! -= fr * kr - fi * ki;
        if (im) im[to]! -= fr * ki + fi * kr;
      }
    }
    rows.push(...below);
    columns.push(...right);
    rowsFrom[k + 1] = rows.length;
    columnsFrom[k + 1] = columns.length;
  }
  return { row, column, rows: Int32Array.from(rows), rowsFrom, columns: Int32Array.from(columns), columnsFrom, places: filled };
}

/** a[top] / a[bottom], real and imaginary. */
function quotient(a: Float64Array, im: Float64Array | undefined, top: number, bottom: number): [number, number] {
  if (!im) return [a[top]! / a[bottom]!, 0];
  const [pr, pi] = [a[bottom]!, im[bottom]!];
  const size = pr * pr + pi * pi;
  return [(a[top]! * pr + im[top]! * pi) / size, (im[top]! * pr - a[top]! * pi) / size];
}

/** Real LU: fill `a`, call `factor`, then solve for as many right-hand sides as wanted. */
export class Lu {
  /** The matrix, row-major; `factor` overwrites it with its factors. */
  readonly a: Float64Array;
  private readonly backup: Float64Array;
  private readonly work: Float64Array;
  private order: Order | undefined;

  /** @param pattern places that can ever be other than zero; those of the first matrix when not given. */
  constructor(
    readonly n: number,
    private readonly pattern?: Uint8Array,
  ) {
    this.a = new Float64Array(n * n);
    this.backup = new Float64Array(n * n);
    this.work = new Float64Array(n);
  }

  /**
   * Takes the order of another matrix's elimination, where every place that this one can fill takes part in it: finding an order costs
   * more than many factorings. Whether its pivots hold is seen at each factoring as ever.
   */
  adopt(other: Lu): void {
    if (other.n !== this.n || !other.order || !this.pattern || this.order) return;
    const { places } = other.order;
    for (let k = 0; k < places.length; k++) if (this.pattern[k] && !places[k]) return;
    this.order = other.order;
  }

  /** @returns −1, or a column without a usable pivot. */
  factor(): number {
    this.backup.set(this.a);
    if (this.order && this.eliminate(this.order)) return -1;
    const filled = Uint8Array.from(this.pattern ?? this.backup, (x) => (x !== 0 ? 1 : 0));
    if (this.pattern) for (let k = 0; k < filled.length; k++) if (this.backup[k] !== 0) filled[k] = 1;
    this.a.set(this.backup);
    const order = findOrder(this.n, this.a, filled);
    if (typeof order === "number") return order;
    this.order = order;
    this.a.set(this.backup);
    if (this.eliminate(order)) return -1;
    // The order was found with these very numbers: what fails now fails for good.
    this.order = undefined;
    return order.column[this.n - 1]!;
  }

  /** False when a pivot has become too small beside its column. */
  private eliminate({ row, column, rows, rowsFrom, columns, columnsFrom }: Order): boolean {
    const { n, a } = this;
    for (let k = 0; k < n; k++) {
      const pivotRow = row[k]! * n;
      const c = column[k]!;
      const pivot = a[pivotRow + c]!;
      const size = Math.abs(pivot);
      if (!(size > SINGULAR_BELOW)) return false;
      const from = columnsFrom[k]!;
      const to = columnsFrom[k + 1]!;
      for (let r = rowsFrom[k]!; r < rowsFrom[k + 1]!; r++) {
        const base = rows[r]! * n;
        const entry = a[base + c]!;
        if (entry === 0) continue;
        if (size < REUSE_THRESHOLD * Math.abs(entry)) return false;
        const f = entry / pivot;
        a[base + c] = f;
        for (let j = from; j < to; j++) {
          const at = columns[j]!;
          a[base + at]! -= f * a[pivotRow + at]!;
        }
      }
    }
    return true;
  }

  /** Solves A x = b in place. */
  solve(b: Float64Array): void {
    substitute(this.a, this.order!, b, this.work);
  }

  /** The factors as they are now, for later: solves in place as `solve` does, whatever this is factored with meanwhile. */
  kept(): (b: Float64Array) => void {
    const { order, work } = this;
    const a = this.a.slice();
    return (b) => substitute(a, order!, b, work);
  }

  /** Solves Aᵀ x = b in place: the adjoint system. */
  solveTransposed(b: Float64Array): void {
    const { n, a, work } = this;
    const { row, column, rows, rowsFrom, columns, columnsFrom } = this.order!;
    for (let k = 0; k < n; k++) {
      const base = row[k]! * n;
      const value = b[column[k]!]! / a[base + column[k]!]!;
      work[row[k]!] = value;
      if (value === 0) continue;
      for (let j = columnsFrom[k]!; j < columnsFrom[k + 1]!; j++) b[columns[j]!]! -= a[base + columns[j]!]! * value;
    }
    for (let k = n - 1; k >= 0; k--) {
      const c = column[k]!;
      let sum = work[row[k]!]!;
      for (let r = rowsFrom[k]!; r < rowsFrom[k + 1]!; r++) sum -= a[rows[r]! * n + c]! * work[rows[r]!]!;
      work[row[k]!] = sum;
    }
    b.set(work);
  }
}

/** Forward and backward substitution with factors in `a`; the answer stands in `b`. */
function substitute(a: Float64Array, order: Order, b: Float64Array, work: Float64Array): void {
  const n = b.length;
  const { row, column, rows, rowsFrom, columns, columnsFrom } = order;
  for (let k = 0; k < n; k++) {
    const value = b[row[k]!]!;
    if (value === 0) continue;
    const c = column[k]!;
    for (let r = rowsFrom[k]!; r < rowsFrom[k + 1]!; r++) b[rows[r]!]! -= a[rows[r]! * n + c]! * value;
  }
  for (let k = n - 1; k >= 0; k--) {
    const base = row[k]! * n;
    let sum = b[row[k]!]!;
    for (let j = columnsFrom[k]!; j < columnsFrom[k + 1]!; j++) sum -= a[base + columns[j]!]! * work[columns[j]!]!;
    work[column[k]!] = sum / a[base + column[k]!]!;
  }
  b.set(work);
}

/** Complex LU of one use each: fill `re` and `im`, call `solve`. The order is kept from call to call. */
export class ComplexLu {
  readonly re: Float64Array;
  readonly im: Float64Array;
  private readonly xRe: Float64Array;
  private readonly xIm: Float64Array;
  private readonly savedRe: Float64Array;
  private readonly savedIm: Float64Array;
  private order: Order | undefined;

  constructor(readonly n: number) {
    this.re = new Float64Array(n * n);
    this.im = new Float64Array(n * n);
    this.savedRe = new Float64Array(n * n);
    this.savedIm = new Float64Array(n * n);
    this.xRe = new Float64Array(n);
    this.xIm = new Float64Array(n);
  }

  /** Solves A x = b; x stands in b. @returns −1, or a column without a usable pivot. */
  solve(bRe: Float64Array, bIm: Float64Array): number {
    this.savedRe.set(this.re);
    this.savedIm.set(this.im);
    if (!(this.order && this.eliminate(this.order, bRe, bIm, false))) {
      this.re.set(this.savedRe);
      this.im.set(this.savedIm);
      const filled = Uint8Array.from(this.re, (x, k) => (x !== 0 || this.im[k] !== 0 ? 1 : 0));
      const order = findOrder(this.n, this.re, filled, this.im);
      this.re.set(this.savedRe);
      this.im.set(this.savedIm);
      if (typeof order === "number") return order;
      this.order = order;
      if (!this.eliminate(order, bRe, bIm, true)) return order.column[this.n - 1]!;
    }
    this.substitute(this.order!, bRe, bIm);
    return -1;
  }

  private eliminate(order: Order, bRe: Float64Array, bIm: Float64Array, last: boolean): boolean {
    const { n, re, im } = this;
    const { row, column, rows, rowsFrom, columns, columnsFrom } = order;
    // The right-hand side is only touched once the pivots are known to hold.
    for (let k = 0; k < n; k++) {
      const base = row[k]! * n;
      const c = column[k]!;
      const pr = re[base + c]!;
      const pi = im[base + c]!;
      const size = pr * pr + pi * pi;
      if (!(size > 1e-300)) return false;
      for (let r = rowsFrom[k]!; r < rowsFrom[k + 1]!; r++) {
        const to = rows[r]! * n;
        const ar = re[to + c]!;
        const ai = im[to + c]!;
        if (ar === 0 && ai === 0) continue;
        if (!last && size < REUSE_THRESHOLD * REUSE_THRESHOLD * (ar * ar + ai * ai)) return false;
        const fr = (ar * pr + ai * pi) / size;
        const fi = (ai * pr - ar * pi) / size;
        re[to + c] = fr;
        im[to + c] = fi;
        for (let j = columnsFrom[k]!; j < columnsFrom[k + 1]!; j++) {
          const at = columns[j]!;
          const kr = re[base + at]!;
          const ki = im[base + at]!;
          re[to + at]! -= fr * kr - fi * ki;
          im[to + at]! -= fr * ki + fi * kr;
        }
      }
    }
    for (let k = 0; k < n; k++) {
      const c = column[k]!;
      const vr = bRe[row[k]!]!;
      const vi = bIm[row[k]!]!;
      if (vr === 0 && vi === 0) continue;
      for (let r = rowsFrom[k]!; r < rowsFrom[k + 1]!; r++) {
        const i = rows[r]!;
        const fr = re[i * n + c]!;
        const fi = im[i * n + c]!;
        bRe[i]! -= fr * vr - fi * vi;
        bIm[i]! -= fr * vi + fi * vr;
      }
    }
    return true;
  }

  private substitute({ row, column, columns, columnsFrom }: Order, bRe: Float64Array, bIm: Float64Array): void {
    const { n, re, im, xRe, xIm } = this;
    for (let k = n - 1; k >= 0; k--) {
      const base = row[k]! * n;
      let sr = bRe[row[k]!]!;
      let si = bIm[row[k]!]!;
      for (let j = columnsFrom[k]!; j < columnsFrom[k + 1]!; j++) {
        const c = columns[j]!;
        const ar = re[base + c]!;
        const ai = im[base + c]!;
        sr -= ar * xRe[c]! - ai * xIm[c]!;
        si -= ar * xIm[c]! + ai * xRe[c]!;
      }
      const pr = re[base + column[k]!]!;
      const pi = im[base + column[k]!]!;
      const size = pr * pr + pi * pi;
      xRe[column[k]!] = (sr * pr + si * pi) / size;
      xIm[column[k]!] = (si * pr - sr * pi) / size;
    }
    bRe.set(xRe);
    bIm.set(xIm);
  }
}
