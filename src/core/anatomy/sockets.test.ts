import { readdirSync, readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { findTubeType, TUBE_TYPES } from "../tubes/library";
import { angleOf, pinOfPoint, socketOf, whereToProbe } from "./sockets";

const AMPS = readdirSync("demo/amps").map((file) => ({ file, circuit: readCircuit(readFileSync(`demo/amps/${file}`, "utf8")).circuit }));
const wren = AMPS.find((a) => a.file === "wren-5.cir")!.circuit;

test("pins count clockwise from the key or the gap, seen from below", () => {
  // Of the sheets: nine pins on ten places of 36°, seven on eight places of 45°, eight all round with the key between 8 and 1.
  expect([1, 5, 9].map((p) => angleOf("noval", p))).toEqual([36, 180, 324]);
  expect([1, 4, 7].map((p) => angleOf("miniature", p))).toEqual([45, 180, 315]);
  expect([1, 4, 5, 8].map((p) => angleOf("octal", p))).toEqual([22.5, 157.5, 202.5, 337.5]);
});

test("each type stands on the base of its published sheet", () => {
  // Written apart from the catalogue, by the sheets' own basing names: 9A and the like have nine pins, 7xx on glass seven, the rest the octal key.
  const SHEETS: Record<string, string> = {
    noval: "12AX7 12AT7 12AU7 12AY7 EF86 EL84 EZ80 EZ81",
    miniature: "6AV6 12AV6 6AU6 12AU6 6AQ5 35C5 50C5 6X4 35W4",
    octal: "6SN7GTB 6SN7GT 6SL7GT 12SQ7 6V6GT 6L6GC 5881 EL34 KT66 KT88 6550 7591A 50L6GT GZ34 5Y3GT 5U4GB 35Z5GT",
  };
  for (const [base, types] of Object.entries(SHEETS))
    for (const t of types.split(" ")) expect([t, findTubeType(t)?.base]).toEqual([t, base]);
  expect(Object.values(SHEETS).join(" ").split(" ")).toHaveLength(TUBE_TYPES.length);
  // No electrode and no heater on a pin that the base has not, and none on another's.
  for (const { type, base, pins, heaterPins } of TUBE_TYPES) {
    const used = [...pins.flatMap((p) => Object.values(p)), heaterPins!.centre].filter((p) => p !== undefined);
    expect([type, new Set(used).size]).toEqual([type, used.length]);
    expect(Math.max(...used, ...heaterPins!.ends)).toBeLessThanOrEqual({ noval: 9, miniature: 7, octal: 8 }[base!]);
  }
});

test("a twin triode's socket: both halves, the heater, and what lies on each pin", () => {
  expect(socketOf(wren, "V1")!.pins.map((p) => [p.pin, p.half, p.electrode, p.node])).toEqual([
    [1, "A", "plate", "p1a"],
    [2, "A", "grid", "g1a"],
    [3, "A", "cathode", "k1a"],
    [4, undefined, "heater", undefined],
    [5, undefined, "heater", undefined],
    [6, "B", "plate", "p1b"],
    [7, "B", "grid", "g1b"],
    [8, "B", "cathode", "k1b"],
    [9, undefined, "heater centre", undefined],
  ]);
});

test("a rectifier's socket has the winding on its plates and the rail on its cathode", () => {
  const pins = socketOf(wren, "V3")!.pins;
  expect(pins.filter((p) => p.electrode?.startsWith("plate")).map((p) => [p.pin, p.carries])).toEqual([
    [1, "235 V ~"],
    [7, "235 V ~"],
  ]);
  expect(pins[2]).toMatchObject({ electrode: "cathode", node: "b1" });
});

test("where the cathode is an end of the heater, the rail's volts are on both ends", () => {
  const { circuit } = readCircuit("supply\nXV1 b1 0 RECT_FULL vac=300 rs=100 tube=5Y3GT\nC1 b1 0 16u\nR1 b1 0 10k\n.end");
  const pins = socketOf(circuit, "V1")!.pins;
  // Of the sheet: filament at 2 and 8, plates at 4 and 6.
  expect(pins.filter((p) => p.node === "b1").map((p) => [p.pin, p.electrode])).toEqual([
    [2, "heater"],
    [8, "cathode"],
  ]);
  expect(pins.filter((p) => p.carries).map((p) => p.pin)).toEqual([4, 6]);
});

test.each(AMPS)("$file: what the file says of pins and what the basing says agree, point by point", ({ circuit }) => {
  let held = 0;
  for (const point of circuit.points) {
    const said = pinOfPoint(circuit, point);
    if (!said) continue;
    const pin = socketOf(circuit, said.socket)!.pins[said.pin - 1]!;
    expect([point.name, pin.node]).toEqual([point.name, point.node]);
    // Without the file's word the basing gives a pin of the same node.
    const bare = { ...point, pin: undefined };
    const found = pinOfPoint(circuit, bare);
    // A rail is told by its capacitor.
    if (!found) {
      expect(whereToProbe(circuit, bare)).toMatch(/^C\d+ [+−]$/);
      continue;
    }
    expect([point.name, socketOf(circuit, found.socket)!.pins[found.pin - 1]!.node]).toEqual([point.name, point.node]);
    if (/\.[pkgs]$/i.test(point.name)) expect([point.name, found]).toEqual([point.name, said]);
    held++;
  }
  expect(held).toBeGreaterThan(0);
});

test.each(AMPS)("$file: a point without a pin is told by a place and never by a node's name", ({ circuit }) => {
  for (const point of circuit.points) {
    const told = whereToProbe(circuit, { ...point, pin: undefined });
    expect(told).not.toMatch(/^node|^$/);
    expect(told).not.toBe(point.name);
  }
});

test("a tube whose base is not known has no socket, and its points are told by its electrodes", () => {
  const { circuit } = readCircuit(`own type
*@tube 6ZZ9 kind=triode mu=100 ex=1.4 kg1=1060 kp=600 kvb=300 vct=0.5 kgrid=2000
*@point P node=p order=10 label="Plate"
XV1 p g k 6ZZ9
R1 b p 100k
R2 k 0 1.5k
R3 g 0 1MEG
V1 b 0 250
.end`);
  expect(socketOf(circuit, "V1")).toBeUndefined();
  expect(whereToProbe(circuit, circuit.points[0]!)).toBe("V1 plate");
});
