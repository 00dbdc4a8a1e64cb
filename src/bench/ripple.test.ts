import { readFileSync } from "node:fs";
import { readCircuit } from "@/core/circuit/read";
import { alter } from "@/core/circuit/alter";
import { operatingPoint } from "@/core/solver/operating-point";
import { rippleOf } from "@/core/solver/ripple";
import { genericCircuit, USUAL_CHAIN } from "@/core/noise/generic-chain";
import { rippleAt } from "./ripple";

const read = (text: string) => readCircuit(text).circuit;
const amp = (name: string) => read(readFileSync(`demo/amps/${name}.cir`, "utf8"));

test("ripple by harmonics, by time stepping and by formula agree within 10 % on a plain supply", () => {
  // 2.2 kΩ draws about 0.14 A from 47 µF, full-wave at 50 Hz.
  const circuit = read("Supply\n*@mains 230 50\nXPS b1 0 RECT_BRIDGE vac=230 rs=30 tube=silicon\nC1 b1 0 47u\nR1 b1 0 2.2k\n.end\n");
  const op = operatingPoint(circuit, { mains: 230 });
  const volts = op.x[op.network.index.get("b1")!]!;
  const theta = Math.acos(volts / (230 * Math.SQRT2));
  const peakToPeak = (volts / 2200 / (100 * 47e-6)) * (1 - (2 * theta) / Math.PI);
  // A sawtooth's rms is its peak to peak over 2√3; the rounded corner of the charging makes it a little more.
  const byFormula = peakToPeak / (2 * Math.sqrt(3));
  const byHarmonics = rippleOf(op).get("b1")!;
  const byTime = rippleAt(circuit, "b1", 230, op);
  expect(byHarmonics / byTime).toBeGreaterThan(0.97);
  expect(byHarmonics / byTime).toBeLessThan(1.03);
  expect(byTime / byFormula).toBeGreaterThan(0.9);
  expect(byTime / byFormula).toBeLessThan(1.1);
});

test.each([
  ["lantern-15", [] as string[], ["b1", "b2"]],
  ["lantern-15", ["C1=9u"], ["b1", "b2"]],
  ["lantern-15", ["C3=open", "C4=open"], ["b3", "b4"]],
  ["drover-40", ["C2=8u"], ["b1", "b2", "b3"]],
  ["drover-40", ["C20=4u"], ["bn"]],
  ["wren-5", ["C2=open"], ["b1", "b2"]],
])("%s with %j: the harmonics agree with the pulses at %j", (name, changes, nodes) => {
  const circuit = alter(amp(name), changes);
  const op = operatingPoint(circuit, { mains: 230 });
  const all = rippleOf(op);
  for (const node of nodes) {
    const [byHarmonics, byTime] = [all.get(node)!, rippleAt(circuit, node, 230, op, 50, 1e-4)];
    const ratio = byHarmonics / byTime;
    expect([node, ratio > 0.97 && ratio < 1.03 ? "within 3 %" : `${byHarmonics} V by harmonics, ${byTime} V by time`]).toEqual([
      node,
      "within 3 %",
    ]);
  }
});

test("the generic chain of four stages does not motorboat by itself: its pulses are its harmonics", () => {
  const stages = [{ tube: "V1A" }, { tube: "V1B", control: "P1" }, { tube: "V2A" }, { tube: "V2B", control: "P2" }];
  const circuit = read(genericCircuit({ ...USUAL_CHAIN, stages }));
  const op = operatingPoint(circuit, { mains: 230 });
  for (const node of ["b2", "b3"])
    expect(Math.abs(rippleAt(circuit, node, 230, op, 30, 1e-4) / rippleOf(op).get(node)! - 1)).toBeLessThan(0.1);
});
