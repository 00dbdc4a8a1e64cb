import { uniformDraws } from "../numeric/random";
import { solve } from "../numeric/dense";
import { circuitOf } from "./circuits-for-tests";
import { idealVolts, operatingPoint } from "./operating-point";
import { powerBalance } from "./power-balance";

const TRIODES = ["12AX7", "12AT7", "12AU7", "6SN7", "6SL7"];
const PENTODES = ["EF86", "EL84", "6V6GT", "EL34", "6L6GC"];

test("random resistor networks against plain elimination, to 1e-9", () => {
  for (let seed = 1; seed <= 60; seed++) {
    const u = uniformDraws(seed);
    const n = 3 + Math.floor(u() * 15);
    const lines = [`I1 0 n0 ${(u() * 0.1).toPrecision(6)}`];
    const g = new Float64Array(n * n);
    const put = (a: number, b: number) => {
      const ohms = Number((10 ** (1 + 5 * u())).toPrecision(6));
      lines.push(`R${lines.length} n${a} ${b < 0 ? "0" : `n${b}`} ${ohms}`);
      g[a * n + a]! += 1 / ohms;
      if (b < 0) return;
      g[b * n + b]! += 1 / ohms;
      g[a * n + b]! -= 1 / ohms;
      g[b * n + a]! -= 1 / ohms;
    };
    for (let k = 0; k < n; k++) put(k, k - 1);
    for (let k = 0; k < n; k++) {
      const [a, b] = [Math.floor(u() * n), Math.floor(u() * (n + 1)) - 1];
      if (a !== b) put(a, b);
    }
    const wanted = solve(g, [Number(lines[0]!.split(" ").at(-1)), ...new Array<number>(n - 1).fill(0)]);
    const op = operatingPoint(circuitOf(...lines));
    const scale = Math.abs(wanted[0]!);
    wanted.forEach((v, k) => expect(Math.abs(idealVolts(op, `n${k}`) - v)).toBeLessThanOrEqual(1e-9 * scale));
  }
});

test("random tube stages converge, or name the node that will not", () => {
  let converged = 0;
  for (let seed = 1; seed <= 150; seed++) {
    const u = uniformDraws(seed + 1000);
    const pick = <T>(list: T[]) => list[Math.floor(u() * list.length)]!;
    const ohms = (low: number, high: number) => Number((low * (high / low) ** u()).toPrecision(3));
    const lines = [`VB b 0 ${Math.round(80 + 500 * u())}`];
    const stages = 1 + Math.floor(u() * 3);
    let before = "0";
    for (let k = 0; k < stages; k++) {
      const pentode = u() < 0.4;
      lines.push(`R${k}a b p${k} ${ohms(1e3, 470e3)}`, `R${k}k k${k} 0 ${ohms(47, 10e3)}`, `R${k}g g${k} 0 ${ohms(47e3, 10e6)}`);
      if (pentode) lines.push(`R${k}s b s${k} ${ohms(100, 1e6)}`, `XV${k} p${k} s${k} g${k} k${k} ${pick(PENTODES)}`);
      else lines.push(`XV${k} p${k} g${k} k${k} ${pick(TRIODES)}`);
      // Some stages are direct-coupled or leak into the next.
      if (before !== "0" && u() < 0.6) lines.push(`R${k}c ${before} g${k} ${ohms(10e3, 20e6)}`);
      if (u() < 0.2) lines.push(`R${k}f p${k} g${k} ${ohms(100e3, 20e6)}`);
      before = `p${k}`;
    }
    const op = operatingPoint(circuitOf(...lines));
    if (!op.converged) {
      expect(op.unsettled.length).toBeGreaterThan(0);
      continue;
    }
    converged++;
    const { delivered, dissipated } = powerBalance(op);
    expect(Math.abs(delivered - dissipated)).toBeLessThanOrEqual(1e-6 * delivered);
    // No plate above its supply, no cathode of a stage below ground by more than rounding.
    for (let k = 0; k < stages; k++) expect(idealVolts(op, `p${k}`)).toBeLessThanOrEqual(idealVolts(op, "b") + 1e-6);
  }
  expect(converged).toBeGreaterThanOrEqual(148);
});
