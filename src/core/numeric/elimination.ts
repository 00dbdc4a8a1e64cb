/**
 * In which order the unknowns of a small, mostly empty matrix are eliminated, and the arithmetic of it written out once: which entry is
 * taken from which. A circuit that is solved a thousand times with other values has one such plan.
 */

/**
 * Entries are numbered in the order of the elimination: of step k the pivot is `start[k]`, the filled entries of its row follow up to
 * `rowEnd[k]`, then those of its column up to `start[k + 1]`.
 */
export interface Elimination {
  /** Pivot row and column of each step, as numbers of the matrix. */
  row: Int32Array;
  column: Int32Array;
  start: Int32Array;
  rowEnd: Int32Array;
  /** Of an entry of a pivot's row its column; of one of its column its row. */
  at: Int32Array;
  /** Where each entry stands in the matrix, row-major. */
  place: Int32Array;
  /** For each entry of a pivot's column and each of its row, in this order: the entry that their product is taken from. */
  from: Int32Array;
  /** Places that take part, row-major: what was filled, and what filled in. */
  places: Uint8Array;
}

/** Threshold pivoting: a pivot may be this much smaller than the largest entry of its column when it is chosen. */
const PIVOT_THRESHOLD = 0.01;
/** Below this part of the column's largest entry a kept order of pivots is given up and a new one is found. */
export const REUSE_THRESHOLD = 1e-7;
export const SINGULAR_BELOW = 1e-200;

/**
 * Finds an order with little fill-in: of the sound pivots the one with the fewest neighbours.
 * Source: H. M. Markowitz, "The elimination form of the inverse and its application to linear programming", 1957.
 * @param a n × n; overwritten. @param filled places that can ever be other than zero; fill-in is added to it.
 * @param im imaginary parts, for a complex matrix; overwritten too.
 * @returns the column that has no usable pivot, or the order.
 */
export function findElimination(n: number, a: Float64Array, filled: Uint8Array, im?: Float64Array): Elimination | number {
  const row = new Int32Array(n);
  const column = new Int32Array(n);
  const rows: number[][] = [];
  const columns: number[][] = [];
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
    rows.push(below);
    columns.push(right);
  }
  return written({ row, column, rows, columns, places: filled });
}

/**
 * The same pivots for a matrix that fills other places as well: what they fill in is found anew, without the search for an order.
 * @returns the elimination itself where it has them all.
 */
export function withPattern(order: Elimination, pattern: Uint8Array): Elimination {
  const { row, column } = order;
  const n = row.length;
  let missing = false;
  for (let k = 0; k < pattern.length && !missing; k++) missing = pattern[k]! > order.places[k]!;
  if (!missing) return order;
  const places = Uint8Array.from(pattern, (there, k) => there | order.places[k]!);
  const rowDone = new Uint8Array(n);
  const columnDone = new Uint8Array(n);
  const rows: number[][] = [];
  const columns: number[][] = [];
  for (let k = 0; k < n; k++) {
    const [pr, pc] = [row[k]!, column[k]!];
    rowDone[pr] = columnDone[pc] = 1;
    const right: number[] = [];
    const below: number[] = [];
    for (let j = 0; j < n; j++) if (!columnDone[j] && places[pr * n + j]) right.push(j);
    for (let i = 0; i < n; i++) if (!rowDone[i] && places[i * n + pc]) below.push(i);
    for (const i of below) for (const j of right) places[i * n + j] = 1;
    rows.push(below);
    columns.push(right);
  }
  return written({ row, column, rows, columns, places });
}

/** Numbers the entries and lists which is taken from which. */
function written(order: { row: Int32Array; column: Int32Array; rows: number[][]; columns: number[][]; places: Uint8Array }): Elimination {
  const { row, column, rows, columns, places } = order;
  const n = row.length;
  const start = new Int32Array(n + 1);
  const rowEnd = new Int32Array(n);
  const number = new Int32Array(n * n);
  const place: number[] = [];
  const at: number[] = [];
  const entry = (i: number, j: number, other: number) => {
    number[i * n + j] = place.length;
    place.push(i * n + j);
    at.push(other);
  };
  for (let k = 0; k < n; k++) {
    entry(row[k]!, column[k]!, column[k]!);
    for (const j of columns[k]!) entry(row[k]!, j, j);
    rowEnd[k] = place.length;
    for (const i of rows[k]!) entry(i, column[k]!, i);
    start[k + 1] = place.length;
  }
  const from: number[] = [];
  for (let k = 0; k < n; k++) for (const i of rows[k]!) for (const j of columns[k]!) from.push(number[i * n + j]!);
  return { row, column, start, rowEnd, at: Int32Array.from(at), place: Int32Array.from(place), from: Int32Array.from(from), places };
}

/** a[top] / a[bottom], real and imaginary. */
function quotient(a: Float64Array, im: Float64Array | undefined, top: number, bottom: number): [number, number] {
  if (!im) return [a[top]! / a[bottom]!, 0];
  const [pr, pi] = [a[bottom]!, im[bottom]!];
  const size = pr * pr + pi * pi;
  return [(a[top]! * pr + im[top]! * pi) / size, (im[top]! * pr - a[top]! * pi) / size];
}
