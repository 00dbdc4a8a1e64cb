import { alter } from "../circuit/alter";
import { circuitOf, demoAmp } from "./circuits-for-tests";
import { ohmmeter, StoredChargeError } from "./ohmmeter";

const lantern = demoAmp("lantern-15");

test("a cathode resistor with its bypass: settled long before the display is read", () => {
  expect(ohmmeter(lantern, "k45", "0").settled).toBeCloseTo(250, 6);
  expect(ohmmeter(lantern, "k45", "0").ohms).toBeCloseTo(250, 1);
});
test("parts in parallel and in series, hand-worked", () => {
  // The plate load of V3A leads to B3, from there over 10 kΩ + 470 Ω and the bleeder of 220 kΩ to ground.
  expect(ohmmeter(lantern, "p3a", "0").settled).toBeCloseTo(56e3 + 10e3 + 470 + 220e3, -1);
  const bridge = circuitOf("R1 a b 1k", "R2 a 0 2k", "R3 b 0 3k", "R4 b c 10k", "R5 c 0 10k");
  const toGround = 1 / (1 / 3e3 + 1 / 20e3);
  expect(ohmmeter(bridge, "a", "0").settled).toBeCloseTo(1 / (1 / 2e3 + 1 / (1e3 + toGround)), 6);
  expect(ohmmeter(bridge, "a", "b").settled).toBeCloseTo(1 / (1 / 1e3 + 1 / (2e3 + toGround)), 6);
});
test("a reservoir still charging reads low, and climbs to the bleeder", () => {
  const { ohms, settled } = ohmmeter(lantern, "b1", "0");
  expect(settled).toBeCloseTo(220e3, -2);
  expect(ohms).toBeLessThan(0.5 * settled);
  expect(ohmmeter(lantern, "b1", "0", { seconds: 600 }).ohms).toBeCloseTo(settled, -3);
});
test("nothing leads to ground: open", () => {
  expect(ohmmeter(alter(lantern, ["R30=open"]), "b1", "0").settled).toBe(Infinity);
  expect(ohmmeter(demoAmp("wren-5"), "b1", "0").settled).toBe(Infinity);
});
test("a silicon bridge conducts one way only", () => {
  const drover = circuitOf("*@mains 230 50", "XPS b 0 RECT_BRIDGE vac=300 rs=40", "R1 b 0 470k");
  expect(ohmmeter(drover, "b", "0", { testVolts: 2.5, sourceOhms: 2e3 }).settled / 470e3).toBeCloseTo(1, 2);
  expect(ohmmeter(drover, "0", "b", { testVolts: 2.5, sourceOhms: 2e3 }).settled).toBeLessThan(20e3);
});
test("the halves of an output transformer", () => {
  expect(ohmmeter(lantern, "p4", "b1").settled).toBeCloseTo(180, 3);
  expect(ohmmeter(lantern, "p5", "b1").settled).toBeCloseTo(195, 3);
});
test("refuses stored charge and nodes that are not there", () => {
  expect(() => ohmmeter(lantern, "b1", "0", { storedVolts: 12 })).toThrow(StoredChargeError);
  expect(() => ohmmeter(lantern, "nowhere", "0")).toThrow(/no node nowhere/);
});
