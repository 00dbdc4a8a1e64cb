import { solve } from "./dense";
import { ComplexLu } from "./complex-lu";
import { Lu } from "./lu";
import { uniformDraws } from "./random";

const sparse = (n: number, seed: number) => {
  const u = uniformDraws(seed);
  const a = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    a[i * n + ((i + 1) % n)] = u() * 2 - 1;
    for (let k = 0; k < 3; k++) a[i * n + Math.floor(u() * n)] = 10 ** (u() * 6 - 3) * (u() < 0.5 ? -1 : 1);
  }
  return { a, b: Float64Array.from({ length: n }, () => u() - 0.5) };
};

describe("sparse LU", () => {
  test.each([1, 2, 3, 4, 5, 6])("agrees with plain elimination, seed %d", (seed) => {
    const n = 5 + seed * 6;
    const { a, b } = sparse(n, seed);
    const lu = new Lu(n);
    lu.a.set(a);
    expect(lu.factor()).toBe(-1);
    const x = b.slice();
    lu.solve(x);
    // The answer itself may be ill-conditioned; what must vanish is the residual.
    for (let i = 0; i < n; i++) {
      let sum = -b[i]!;
      let size = Math.abs(b[i]!);
      for (let j = 0; j < n; j++) {
        sum += a[i * n + j]! * x[j]!;
        size += Math.abs(a[i * n + j]! * x[j]!);
      }
      expect(Math.abs(sum)).toBeLessThan(1e-10 * size);
    }
    const transposed = new Float64Array(n * n);
    for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) transposed[j * n + i] = a[i * n + j]!;
    const y = b.slice();
    lu.solveTransposed(y);
    const plain = solve(transposed, b);
    const scale = Math.max(...plain.map(Math.abs));
    plain.forEach((v, i) => expect(Math.abs(v - y[i]!)).toBeLessThan(1e-6 * scale));
  });

  test("the order is kept, and given up when a pivot fails", () => {
    const lu = new Lu(2, new Uint8Array([1, 1, 1, 1]));
    for (const [p, q, r, s] of [
      [1, 2, 3, 4],
      [1e-12, 2, 3, 4],
      [0, 1, 1, 0],
    ] as const) {
      lu.a.set([p, q, r, s]);
      expect(lu.factor()).toBe(-1);
      const x = Float64Array.of(p + q, r + s);
      lu.solve(x);
      expect(x[0]).toBeCloseTo(1, 9);
      expect(x[1]).toBeCloseTo(1, 9);
    }
  });

  test("an order serves other matrices of its size, with what they fill besides", () => {
    const n = 12;
    const { a, b } = sparse(n, 9);
    const pattern = (m: Float64Array) => Uint8Array.from(m, (x) => (x === 0 ? 0 : 1));
    const lu = new Lu(n, pattern(a));
    lu.a.set(a);
    expect(lu.factor()).toBe(-1);
    const residual = (m: Float64Array, x: Float64Array) =>
      b.map((v, i) => x.reduce((sum, xj, j) => sum + m[i * n + j]! * xj, -v) / (1 + Math.abs(v)));
    for (const [row, column] of [
      [0, 7],
      [11, 2],
      [5, 5],
    ] as const) {
      const other = a.slice();
      other[row * n + column] = 3.7;
      const taken = new Lu(n, pattern(other));
      taken.adopt(lu);
      lu.become(pattern(other));
      for (const each of [lu, taken]) {
        each.a.set(other);
        expect(each.factor()).toBe(-1);
        const x = b.slice();
        each.solve(x);
        for (const off of residual(other, x)) expect(Math.abs(off)).toBeLessThan(1e-8 * (1 + Math.max(...x.map(Math.abs))));
      }
    }
  });

  test("a singular matrix names a column", () => {
    const lu = new Lu(2);
    lu.a.set([1, 2, 2, 4]);
    expect(lu.factor()).toBeGreaterThanOrEqual(0);
  });

  test("complex: the order of the real matrix serves, also for other places", () => {
    const n = 9;
    const { a, b } = sparse(n, 4);
    const pattern = Uint8Array.from(a, (x) => (x === 0 ? 0 : 1));
    const real = new Lu(n, pattern);
    real.a.set(a);
    expect(real.factor()).toBe(-1);
    const lu = new ComplexLu(n, pattern);
    lu.adopt(real.elimination);
    for (const extra of [undefined, 3 * n + 8]) {
      const im = a.map((x, k) => (k % (n + 1) === 0 ? 0.3 : 0.1 * x));
      const filled = Uint8Array.from(a, (x, k) => (x !== 0 || im[k] !== 0 ? 1 : 0));
      if (extra !== undefined) {
        im[extra] = 1.7;
        filled[extra] = 1;
      }
      lu.become(filled);
      lu.re.set(a);
      lu.im.set(im);
      const [xr, xi] = [b.slice(), new Float64Array(n)];
      expect(lu.solve(xr, xi)).toBe(-1);
      for (let i = 0; i < n; i++) {
        let [re, imag] = [-b[i]!, 0];
        for (let j = 0; j < n; j++) {
          re += a[i * n + j]! * xr[j]! - im[i * n + j]! * xi[j]!;
          imag += a[i * n + j]! * xi[j]! + im[i * n + j]! * xr[j]!;
        }
        expect(Math.hypot(re, imag)).toBeLessThan(1e-7);
      }
    }
  });

  test("complex: (3 + 4i)·x = 25, and a system of two, again with the kept order", () => {
    const one = new ComplexLu(1);
    one.re[0] = 3;
    one.im[0] = 4;
    const [re, im] = [Float64Array.of(25), Float64Array.of(0)];
    expect(one.solve(re, im)).toBe(-1);
    expect([re[0], im[0]]).toEqual([3, -4]);
    const two = new ComplexLu(2);
    for (let round = 0; round < 2; round++) {
      two.re.set([1, 0, 1, 1]);
      two.im.set([0, 1, 0, 0]);
      const [bRe, bIm] = [Float64Array.of(1, 2), Float64Array.of(1, 0)];
      expect(two.solve(bRe, bIm)).toBe(-1);
      // x + iy = 1 + i, x + y = 2 has x = y = 1.
      expect([bRe[0], bIm[0], bRe[1], bIm[1]].map((v) => Number(v!.toFixed(9)) + 0)).toEqual([1, 0, 1, 0]);
    }
  });
});
