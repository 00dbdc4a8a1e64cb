/** An output tube above its rating is stopped, at whatever volts; a sound amp is not. */

import { alter } from "../circuit/alter";
import { demoAmp } from "../solver/circuits-for-tests";
import { mainsDraw, madeFor } from "../solver/mains-draw";
import { operatingPoint, tubesAtWork } from "../solver/operating-point";
import { judgeCurrent } from "./corridor";
import { overByCathode } from "./over-rating";
import { predictBringUp } from "./predict-stages";

const wren = demoAmp("wren-5");
const drawOf = (mains: number, ...changes: string[]) => {
  const op = operatingPoint(alter(wren, changes), { mains });
  return { amps: mainsDraw(op, { madeFor: madeFor(wren) }).amps, watts: tubesAtWork(op).get("V2")!.plateWatts };
};

test("the cathode bypass shorted, 12 W rated: stop, at full mains; a sound Wren is in at every step", () => {
  const full = predictBringUp(wren, 230).stages.find((s) => s.stage === "full")!;
  const shorted = drawOf(230, "C4=short");
  expect(shorted.watts).toBeGreaterThan(12);
  expect(judgeCurrent(full.steps, 230, shorted.amps)).toMatchObject({ verdict: "out", stop: true });
  for (const { mains, amps } of full.steps) expect([mains, judgeCurrent(full.steps, mains, amps)!.verdict]).toEqual([mains, "in"]);
});

test("every sound demo amp is in at its own current", () => {
  for (const name of ["lantern-15", "drover-40", "halberd-120", "picture-house"])
    for (const { stage, steps } of predictBringUp(demoAmp(name), demoAmp(name).mains!.volts).stages)
      for (const { mains, amps } of steps)
        expect([name, stage, mains, judgeCurrent(steps, mains, amps)!.stop]).toEqual([name, stage, mains, false]);
});

test("by hand: 13 V across the Wren's cathode resistor with 250 V at the plate is far above 12 W", () => {
  const resistor = wren.elements.find((e) => e.letter === "R" && e.nodes.includes("k2") && e.nodes.includes("0"))!;
  // 13 V / R in amperes times 237 V.
  const watts = (13 / resistor.value!) * (250 - 13);
  expect(watts).toBeGreaterThan(12);
  expect(overByCathode(wren, "k2", 13, () => 250)).toMatchObject({ tube: "V2", rated: 12, watts: expect.closeTo(watts, 6) as number });
  expect(overByCathode(wren, "k2", 13, () => 250)!.says).toMatch(/^STOP, off/);
  expect(overByCathode(wren, "k2", 6, () => 250)).toBeUndefined();
  expect(overByCathode(wren, "k1b", 13, () => 250)).toBeUndefined();
  expect(overByCathode(wren, "k2", 13, () => undefined)).toBeUndefined();
});
