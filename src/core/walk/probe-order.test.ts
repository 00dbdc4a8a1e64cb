import { readFileSync, readdirSync } from "node:fs";
import type { Circuit, TestPoint } from "../circuit/circuit";
import { readCircuit } from "../circuit/read";
import { roleOf } from "../anatomy/points";
import { movement, placeOf, probeOrder } from "./probe-order";
import { spokenPoint, spokenVerdict, spokenVolts } from "./spoken";

const AMPS = readdirSync("demo/amps").map((f) => ({ name: f, circuit: readCircuit(readFileSync(`demo/amps/${f}`, "utf8")).circuit }));
const none = () => undefined;
const betweenSockets = (circuit: Circuit, points: TestPoint[]) =>
  points
    .slice(1)
    .map((p, i) => [placeOf(circuit, points[i]!), placeOf(circuit, p)] as const)
    .filter(([a, b]) => a.place !== b.place)
    .reduce((sum, [a, b]) => sum + movement(a, b), 0);

test.each(AMPS)("$name: every point once, bias first, no more movement than by the chain", ({ circuit }) => {
  const chain = probeOrder(circuit, "chain", none);
  const sweep = probeOrder(circuit, "movement", none);
  expect(sweep.map((p) => p.name).sort()).toEqual(circuit.points.map((p) => p.name).sort());
  for (const order of [chain, sweep]) {
    const lastBias = order.findLastIndex((p) => roleOf(circuit, p) === "bias");
    expect(order.slice(0, lastBias + 1).every((p) => roleOf(circuit, p) === "bias")).toBe(true);
  }
  // From socket to socket the sweep is never longer; inside a socket rising volts may cost a few pins.
  expect(betweenSockets(circuit, sweep)).toBeLessThanOrEqual(betweenSockets(circuit, chain));
});

test("on the Wren: from the first cathode to the reservoir", () => {
  const { circuit } = AMPS.find((a) => a.name === "wren-5.cir")!;
  const names = probeOrder(circuit, "movement", none).map((p) => p.name);
  expect(names).toEqual(["V1A.k", "V1B.k", "V1B.p", "V1A.p", "V2.g", "V2.k", "V2.s", "V2.p", "B3", "B2", "B1"]);
});

test("volts that are expected decide over the chart's", () => {
  const { circuit } = AMPS.find((a) => a.name === "wren-5.cir")!;
  const names = probeOrder(circuit, "movement", (p) => (p.name === "V1B.k" ? 0.4 : undefined)).map((p) => p.name);
  expect(names.slice(0, 2)).toEqual(["V1B.k", "V1A.k"]);
});

test("movement: a pin is a tenth of a socket; the supply lies beyond the last tube", () => {
  const { circuit } = AMPS.find((a) => a.name === "wren-5.cir")!;
  const at = (name: string) =>
    placeOf(
      circuit,
      circuit.points.find((p) => p.name === name)!,
    );
  expect(at("V2.p")).toEqual({ place: "V2", pin: 7, along: 2 });
  expect(at("B1")).toEqual({ place: "C1", along: 4 });
  expect(movement(at("V2.p"), at("V2.k"))).toBeCloseTo(0.4, 9);
  expect(movement(at("V1A.p"), at("V2.g"))).toBeCloseTo(1.5, 9);
});

test("what is spoken", () => {
  expect(spokenPoint({ name: "V1B.k", label: "V1B cathode" })).toBe("V 1 B cathode");
  expect(spokenPoint({ name: "B1", label: "Reservoir" })).toBe("Reservoir");
  expect(spokenVolts(318.4)).toBe("318 volts");
  expect(spokenVolts(-33.14)).toBe("minus 33.1 volts");
  expect(spokenVolts(0.36)).toBe("360 millivolts");
  expect(spokenVolts(1)).toBe("1 volt");
  const expected = { volts: 245, low: 236, high: 254 };
  const point = { name: "V2.p", label: "V2 plate" };
  expect(spokenVerdict(point, 246, "in", expected)).toBe("in band. V 2 plate, 246 volts");
  expect(spokenVerdict(point, 120, "out", expected)).toBe("out, low. V 2 plate, 120 volts. 245 volts expected");
  expect(spokenVerdict(point, 120, "none")).toBe("V 2 plate, 120 volts");
});
