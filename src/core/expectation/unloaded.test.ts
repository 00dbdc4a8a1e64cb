import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { unloadedRails } from "./unloaded";

const load = (name: string) => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;

test("every capacitor of the Wren's chain can rise to the winding's peak", () => {
  const rails = unloadedRails(load("wren-5"), 230);
  expect(rails.map((r) => [r.capacitor, Math.round(r.volts), r.verdict])).toEqual([
    ["C1", 332, "in"],
    ["C2", 332, "in"],
    ["C3", 332, "in"],
  ]);
  expect(unloadedRails(load("wren-5"), 253).find((r) => r.capacitor === "C3")).toMatchObject({
    verdict: "out",
    why: expect.stringContaining("rating of C3"),
  });
});

test("the Drover's bias supply is a rail of its own", () => {
  const rails = unloadedRails(load("drover-40"), 230);
  expect(rails.find((r) => r.capacitor === "C20")?.volts).toBeCloseTo(58 * Math.SQRT2, 6);
  expect(rails.find((r) => r.capacitor === "C3")).toMatchObject({ rated: 450, verdict: "out" });
});

test("of the Halberd's two reservoirs in series each has half, and a divider below a rail counts", () => {
  const rails = unloadedRails(load("halberd-120"), 230);
  const of = (name: string) => rails.find((r) => r.capacitor === name)!;
  expect(of("C1").volts).toBeCloseTo(365 * Math.SQRT1_2, 1);
  expect(of("C2")).toMatchObject({ verdict: "in", volts: expect.closeTo(365 * Math.SQRT1_2, 1) });
  // 15 kΩ and the upper part of P9 above, the rest and 27 kΩ below: 66·√2 V divided.
  expect(of("C20").volts).toBeCloseTo(66 * Math.SQRT2, 6);
  expect(of("C21").volts).toBeCloseTo((66 * Math.SQRT2 * (27e3 + 25e3 * 0.3)) / (15e3 + 25e3 + 27e3), 0);
});
