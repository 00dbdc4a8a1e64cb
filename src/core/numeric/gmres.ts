/**
 * Solves A x = b where A is only known by what it makes of a vector: the generalised minimal residual method, without restarts.
 * Source: Y. Saad and M. H. Schultz, SIAM J. Sci. Stat. Comput. 7, 1986.
 * @param times A·v as a new array. @param close residual, relative to b, that is good enough. @param most vectors at most.
 */
export function gmres(times: (v: Float64Array) => Float64Array, b: Float64Array, close: number, most: number): Float64Array {
  const n = b.length;
  const norm = (v: Float64Array) => Math.sqrt(v.reduce((s, x) => s + x * x, 0));
  const size = norm(b);
  if (size === 0) return new Float64Array(n);
  const basis = [b.map((x) => x / size)];
  const h: number[][] = [];
  const cos: number[] = [];
  const sin: number[] = [];
  const g = [size];
  for (let k = 0; k < most; k++) {
    const w = times(basis[k]!);
    const column: number[] = [];
    for (const v of basis) {
      let dot = 0;
      for (let i = 0; i < n; i++) dot += w[i]! * v[i]!;
      for (let i = 0; i < n; i++) w[i]! -= dot * v[i]!;
      column.push(dot);
    }
    const rest = norm(w);
    // Givens rotations keep the small system triangular.
    for (let i = 0; i < k; i++) {
      const [a, c] = [column[i]!, column[i + 1]!];
      column[i] = cos[i]! * a + sin[i]! * c;
      column[i + 1] = -sin[i]! * a + cos[i]! * c;
    }
    const r = Math.hypot(column[k]!, rest);
    cos.push(r === 0 ? 1 : column[k]! / r);
    sin.push(r === 0 ? 0 : rest / r);
    column[k] = r;
    h.push(column);
    g.push(-sin[k]! * g[k]!);
    g[k] = cos[k]! * g[k]!;
    if (Math.abs(g[k + 1]!) <= close * size || rest <= 1e-14 * size || r === 0) break;
    basis.push(w.map((x) => x / rest));
  }
  const m = h.length;
  const y = new Array<number>(m).fill(0);
  for (let i = m - 1; i >= 0; i--) {
    let sum = g[i]!;
    for (let j = i + 1; j < m; j++) sum -= h[j]![i]! * y[j]!;
    y[i] = h[i]![i] === 0 ? 0 : sum / h[i]![i]!;
  }
  const x = new Float64Array(n);
  for (let j = 0; j < m; j++) for (let i = 0; i < n; i++) x[i]! += y[j]! * basis[j]![i]!;
  return x;
}
