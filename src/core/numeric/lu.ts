/** LU factors of small dense matrices on typed arrays, kept so that many right-hand sides can follow. */

/** Row-major LU with row pivoting, in buffers that are used again for each factorisation. */
export class Lu {
  readonly a: Float64Array;
  private readonly pivots: Int32Array;
  private readonly work: Float64Array;

  constructor(readonly n: number) {
    this.a = new Float64Array(n * n);
    this.pivots = new Int32Array(n);
    this.work = new Float64Array(n);
  }

  /**
   * Factorises what stands in `a`. Multipliers of zero are skipped: circuit matrices are mostly empty.
   * @returns −1, or the column without a usable pivot.
   */
  factor(): number {
    const { n, a, pivots } = this;
    for (let k = 0; k < n; k++) {
      let pivot = k;
      let best = Math.abs(a[k * n + k]!);
      for (let i = k + 1; i < n; i++) {
        const size = Math.abs(a[i * n + k]!);
        if (size > best) {
          best = size;
          pivot = i;
        }
      }
      if (!(best > 1e-200)) return k;
      pivots[k] = pivot;
      if (pivot !== k) {
        for (let j = 0; j < n; j++) {
          const swap = a[k * n + j]!;
          a[k * n + j] = a[pivot * n + j]!;
          a[pivot * n + j] = swap;
        }
      }
      const inverse = 1 / a[k * n + k]!;
      for (let i = k + 1; i < n; i++) {
        const entry = a[i * n + k]!;
        if (entry === 0) continue;
        const f = entry * inverse;
        a[i * n + k] = f;
        for (let j = k + 1; j < n; j++) a[i * n + j]! -= f * a[k * n + j]!;
      }
    }
    return -1;
  }

  /** Solves A x = b in place. */
  solve(b: Float64Array): void {
    const { n, a, pivots } = this;
    for (let k = 0; k < n; k++) {
      const p = pivots[k]!;
      if (p !== k) {
        const swap = b[k]!;
        b[k] = b[p]!;
        b[p] = swap;
      }
    }
    for (let i = 1; i < n; i++) {
      let sum = b[i]!;
      for (let j = 0; j < i; j++) sum -= a[i * n + j]! * b[j]!;
      b[i] = sum;
    }
    for (let i = n - 1; i >= 0; i--) {
      let sum = b[i]!;
      for (let j = i + 1; j < n; j++) sum -= a[i * n + j]! * b[j]!;
      b[i] = sum / a[i * n + i]!;
    }
  }

  /** Solves Aᵀ x = b in place: the adjoint system. */
  solveTransposed(b: Float64Array): void {
    const { n, a, pivots, work } = this;
    for (let i = 0; i < n; i++) {
      let sum = b[i]!;
      for (let j = 0; j < i; j++) sum -= a[j * n + i]! * work[j]!;
      work[i] = sum / a[i * n + i]!;
    }
    for (let i = n - 1; i >= 0; i--) {
      let sum = work[i]!;
      for (let j = i + 1; j < n; j++) sum -= a[j * n + i]! * b[j]!;
      b[i] = sum;
    }
    for (let k = n - 1; k >= 0; k--) {
      const p = pivots[k]!;
      if (p !== k) {
        const swap = b[k]!;
        b[k] = b[p]!;
        b[p] = swap;
      }
    }
  }
}

/**
 * Solves the complex system A x = b by Gaussian elimination with row pivoting; A and b are overwritten, x stands in b.
 * @param re,im n × n, row-major. @returns −1, or the column without a usable pivot.
 */
export function solveComplex(n: number, re: Float64Array, im: Float64Array, bRe: Float64Array, bIm: Float64Array): number {
  for (let k = 0; k < n; k++) {
    let pivot = k;
    let best = 0;
    for (let i = k; i < n; i++) {
      const size = Math.abs(re[i * n + k]!) + Math.abs(im[i * n + k]!);
      if (size > best) {
        best = size;
        pivot = i;
      }
    }
    if (!(best > 1e-200)) return k;
    if (pivot !== k) {
      for (let j = k; j < n; j++) {
        let swap = re[k * n + j]!;
        re[k * n + j] = re[pivot * n + j]!;
        re[pivot * n + j] = swap;
        swap = im[k * n + j]!;
        im[k * n + j] = im[pivot * n + j]!;
        im[pivot * n + j] = swap;
      }
      let swap = bRe[k]!;
      bRe[k] = bRe[pivot]!;
      bRe[pivot] = swap;
      swap = bIm[k]!;
      bIm[k] = bIm[pivot]!;
      bIm[pivot] = swap;
    }
    const pr = re[k * n + k]!;
    const pi = im[k * n + k]!;
    const size = pr * pr + pi * pi;
    for (let i = k + 1; i < n; i++) {
      const ar = re[i * n + k]!;
      const ai = im[i * n + k]!;
      if (ar === 0 && ai === 0) continue;
      const fr = (ar * pr + ai * pi) / size;
      const fi = (ai * pr - ar * pi) / size;
      for (let j = k + 1; j < n; j++) {
        const kr = re[k * n + j]!;
        const ki = im[k * n + j]!;
        if (kr === 0 && ki === 0) continue;
        re[i * n + j]! -= fr * kr - fi * ki;
        im[i * n + j]! -= fr * ki + fi * kr;
      }
      bRe[i]! -= fr * bRe[k]! - fi * bIm[k]!;
      bIm[i]! -= fr * bIm[k]! + fi * bRe[k]!;
    }
  }
  for (let k = n - 1; k >= 0; k--) {
    let sr = bRe[k]!;
    let si = bIm[k]!;
    for (let j = k + 1; j < n; j++) {
      const ar = re[k * n + j]!;
      const ai = im[k * n + j]!;
      if (ar === 0 && ai === 0) continue;
      sr -= ar * bRe[j]! - ai * bIm[j]!;
      si -= ar * bIm[j]! + ai * bRe[j]!;
    }
    const pr = re[k * n + k]!;
    const pi = im[k * n + k]!;
    const size = pr * pr + pi * pi;
    bRe[k] = (sr * pr + si * pi) / size;
    bIm[k] = (si * pr - sr * pi) / size;
  }
  return -1;
}
