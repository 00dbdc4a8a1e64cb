/** Small dense linear algebra on row-major arrays. */

/**
 * Solves A x = b by Gaussian elimination with row pivoting.
 * @param a n × n, row-major; left as it was.
 * @throws RangeError naming the row when A is singular.
 */
export function solve(a: ArrayLike<number>, b: ArrayLike<number>): number[] {
  const n = b.length;
  const m = Float64Array.from(a);
  const x = Array.from(b);
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(m[i * n + k]!) > Math.abs(m[pivot * n + k]!)) pivot = i;
    if (Math.abs(m[pivot * n + k]!) < 1e-300) throw new RangeError(`the matrix is singular at row ${k}`);
    if (pivot !== k) {
      for (let j = k; j < n; j++) [m[k * n + j], m[pivot * n + j]] = [m[pivot * n + j]!, m[k * n + j]!];
      [x[k], x[pivot]] = [x[pivot]!, x[k]!];
    }
    for (let i = k + 1; i < n; i++) {
      const f = m[i * n + k]! / m[k * n + k]!;
      if (f === 0) continue;
      for (let j = k; j < n; j++) m[i * n + j]! -= f * m[k * n + j]!;
      x[i]! -= f * x[k]!;
    }
  }
  for (let k = n - 1; k >= 0; k--) {
    for (let j = k + 1; j < n; j++) x[k]! -= m[k * n + j]! * x[j]!;
    x[k]! /= m[k * n + k]!;
  }
  return x;
}

/** The same for one use each, fast: `a` is overwritten, the answer stands in `b`. @returns false when A is singular. */
export function solveInPlace(a: Float64Array, b: Float64Array): boolean {
  const n = b.length;
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(a[i * n + k]!) > Math.abs(a[pivot * n + k]!)) pivot = i;
    if (!(Math.abs(a[pivot * n + k]!) > 1e-300)) return false;
    if (pivot !== k) {
      for (let j = k; j < n; j++) {
        const t = a[k * n + j]!;
        a[k * n + j] = a[pivot * n + j]!;
        a[pivot * n + j] = t;
      }
      const t = b[k]!;
      b[k] = b[pivot]!;
      b[pivot] = t;
    }
    for (let i = k + 1; i < n; i++) {
      const f = a[i * n + k]! / a[k * n + k]!;
      if (f === 0) continue;
      for (let j = k + 1; j < n; j++) a[i * n + j]! -= f * a[k * n + j]!;
      b[i]! -= f * b[k]!;
    }
  }
  for (let k = n - 1; k >= 0; k--) {
    let sum = b[k]!;
    for (let j = k + 1; j < n; j++) sum -= a[k * n + j]! * b[j]!;
    b[k] = sum / a[k * n + k]!;
  }
  return true;
}

/** Inverts a symmetric positive matrix in place by Cholesky; the logarithm of its determinant, or undefined when it is not one. */
export function invert(a: Float64Array, n: number): number | undefined {
  let logDet = 0;
  for (let j = 0; j < n; j++) {
    let d = a[j * n + j]!;
    for (let k = 0; k < j; k++) d -= a[j * n + k]! ** 2;
    if (!(d > 0)) return undefined;
    const root = Math.sqrt(d);
    logDet += 2 * Math.log(root);
    a[j * n + j] = root;
    for (let i = j + 1; i < n; i++) {
      let sum = a[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= a[i * n + k]! * a[j * n + k]!;
      a[i * n + j] = sum / root;
    }
  }
  // L⁻¹ in the lower triangle, then Lᵀ⁻¹·L⁻¹.
  for (let j = 0; j < n; j++) {
    a[j * n + j] = 1 / a[j * n + j]!;
    for (let i = j + 1; i < n; i++) {
      let sum = 0;
      for (let k = j; k < i; k++) sum -= a[i * n + k]! * a[k * n + j]!;
      a[i * n + j] = sum / a[i * n + i]!;
    }
  }
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = 0;
      for (let k = i; k < n; k++) sum += a[k * n + i]! * a[k * n + j]!;
      a[i * n + j] = sum;
    }
  for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) a[i * n + j] = a[j * n + i]!;
  return logDet;
}

/**
 * Eigenvalues and orthonormal eigenvectors of a symmetric matrix by Jacobi rotations.
 * @returns `values[k]` with `vectors[k]` (length n each).
 * Source: C. G. J. Jacobi, 1846; the cyclic form as in Golub and Van Loan, "Matrix Computations", 8.5.
 */
export function symmetricEigen(a: ArrayLike<number>, n: number): { values: number[]; vectors: number[][] } {
  const m = Float64Array.from(a);
  const v = new Float64Array(n * n);
  for (let i = 0; i < n; i++) v[i * n + i] = 1;
  for (let sweep = 0; sweep < 60; sweep++) {
    let off = 0;
    let size = 0;
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++)
        if (i === j) size += m[i * n + j]! ** 2;
        else off += m[i * n + j]! ** 2;
    if (off <= 1e-26 * size) break;
    for (let p = 0; p < n; p++)
      for (let q = p + 1; q < n; q++) {
        const apq = m[p * n + q]!;
        if (apq === 0) continue;
        const theta = (m[q * n + q]! - m[p * n + p]!) / (2 * apq);
        const t = (theta >= 0 ? 1 : -1) / (Math.abs(theta) + Math.hypot(theta, 1));
        const c = 1 / Math.hypot(t, 1);
        const s = t * c;
        for (let k = 0; k < n; k++) {
          const [kp, kq] = [m[k * n + p]!, m[k * n + q]!];
          m[k * n + p] = c * kp - s * kq;
          m[k * n + q] = s * kp + c * kq;
        }
        for (let k = 0; k < n; k++) {
          const [pk, qk] = [m[p * n + k]!, m[q * n + k]!];
          m[p * n + k] = c * pk - s * qk;
          m[q * n + k] = s * pk + c * qk;
          const [vp, vq] = [v[k * n + p]!, v[k * n + q]!];
          v[k * n + p] = c * vp - s * vq;
          v[k * n + q] = s * vp + c * vq;
        }
      }
  }
  return {
    values: Array.from({ length: n }, (_, i) => m[i * n + i]!),
    vectors: Array.from({ length: n }, (_, k) => Array.from({ length: n }, (_, i) => v[i * n + k]!)),
  };
}
