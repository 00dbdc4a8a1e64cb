import { diodeDevice, mosDevice, opampDevice, pentodeDevice, triodeDevice, zenerDevice, rectifierDevice, type Device } from "./devices";
import { FITTED } from "../tubes/fitted";
import type { PentodeModel, TriodeModel } from "../tubes/model";
import { circuitOf, demoAmp } from "./circuits-for-tests";
import { headlineOf } from "../expectation/headline";
import { idealVolts, operatingPoint } from "./operating-point";
import { solveOnce } from "../expectation/solve-once";
import { limitCycleOf } from "./limit-cycle";
import { alter } from "../circuit/alter";

const state = (gas = 0) => ({ emission: 0.9, spread: 1.1, gas, typicalAmps: 0.04 });
const rectifier = { type: "RECT_FULL" as const, peak: 330, pulses: 2 as const };
const DEVICES: [string, Device, number[][]][] = [
  [
    "triode",
    triodeDevice("V", [0, 1, 2], FITTED["12AX7"] as TriodeModel, state(1e-6)),
    [
      [250, -1, 0.5],
      [60, 0.4, 0],
      [-5, -2, 1],
    ],
  ],
  [
    "pentode",
    pentodeDevice("V", [0, 1, 2, 3], FITTED.EL84 as PentodeModel, state(2e-6)),
    [
      [250, 240, 0, 8],
      [20, 240, 1, 2],
      [300, 10, -20, 0],
    ],
  ],
  [
    "diode",
    diodeDevice("D", [0, 1], 1e-9, 1.8),
    [
      [0.5, 0],
      [-20, 0],
      [0.9, 0.2],
    ],
  ],
  [
    "zener",
    zenerDevice("Z", [0, 1], 12, 10),
    [
      [0, 12.2],
      [0.8, 0],
      [0, 5],
    ],
  ],
  [
    "field-effect transistor",
    mosDevice("Q", [0, 1, 2], 2, 0.1, 0.01),
    [
      [100, 4, 0],
      [1, 5, 0],
      [0, 4, 3],
    ],
  ],
  [
    "operational amplifier",
    opampDevice("A", [0, 1, 2], 1e3, 12),
    [
      [0.001, 0, 1],
      [0.02, 0, 11],
    ],
  ],
  [
    "tube rectifier",
    rectifierDevice("R", [0, 1], { ...rectifier, path: { rs: 180, drop: 0, perveance: 1e-3 } }, { shift: 2 }),
    [
      [270, 0],
      [320, 0],
      [10, 0],
    ],
  ],
  [
    "silicon rectifier",
    rectifierDevice("R", [0, 1], { ...rectifier, path: { rs: 40, drop: 0.7 } }, { shift: 0 }),
    [
      [300, 0],
      [329, 0],
      [-40, 0],
    ],
  ],
];

test.each(DEVICES)("%s: currents sum to zero, and the Jacobian is that of small differences", (name, device, points) => {
  const m = device.at.length;
  const at = (v: number[]) => {
    const [i, g] = [new Float64Array(4), new Float64Array(16)];
    device.evaluate(Float64Array.from(v), i, g);
    return { i: i.slice(0, m), g };
  };
  for (const v of points) {
    const { i, g } = at(v);
    const scale = Math.max(...i.map(Math.abs), 1e-9);
    // An amplifier's output current comes from a supply that is not drawn.
    if (name !== "operational amplifier") expect(Math.abs(i.reduce((a, b) => a + b, 0))).toBeLessThan(1e-9 * scale);
    for (let c = 0; c < m; c++) {
      const d = 1e-5;
      const [up, down] = [1, -1].map((s) => at(v.map((x, k) => (k === c ? x + s * d : x))).i);
      for (let r = 0; r < m; r++) {
        const difference = (up![r]! - down![r]!) / (2 * d);
        expect(Math.abs(difference - g[r * m + c]!)).toBeLessThan(1e-3 * Math.max(Math.abs(difference), scale / 10) + 1e-9);
      }
    }
  }
});

describe("semiconductors in circuits", () => {
  test("a zener holds its voltage, within its own ohms", () => {
    const op = operatingPoint(circuitOf("V1 a 0 300", "R1 a z 100k", "XZ1 0 z ZENER vz=12 rz=10"));
    expect(idealVolts(op, "z")).toBeGreaterThan(11.7);
    expect(idealVolts(op, "z")).toBeLessThan(12.3);
  });
  test("an amplifier of gain ten follows its divider, and stops at its rails", () => {
    const out = (volts: number) =>
      idealVolts(operatingPoint(circuitOf(`V1 a 0 ${volts}`, "XA1 a f o OPAMP gain=1e5 vmax=12", "R1 o f 9k", "R2 f 0 1k")), "o");
    expect(out(0.5)).toBeCloseTo(5, 2);
    expect(out(5)).toBeLessThan(12.1);
  });
});

describe("the headline of a model", () => {
  const says = (changes: string[], mains = 230) => {
    const circuit = alter(demoAmp("wren-5"), changes);
    return headlineOf(circuit, solveOnce(circuit, { mains, without: [], set: [] }), mains);
  };
  test("sound, overloaded, floating", () => {
    expect(says([])).toMatchObject({ verdict: "in", says: expect.stringContaining("V2 at 82 % of plate rating") });
    expect(says(["R4=47"])).toMatchObject({ verdict: "out", says: expect.stringContaining("V2 is at 1") });
    expect(says(["R10=open"])).toMatchObject({ verdict: "watch", says: expect.stringContaining("node g1a floats") });
  });
});

describe("swing", () => {
  test("amps at rest rest; a tremolo that runs does not", () => {
    expect(limitCycleOf(operatingPoint(demoAmp("wren-5")))).toBeUndefined();
    const swinging = limitCycleOf(operatingPoint(alter(demoAmp("lantern-15"), ["S1=open"])))!;
    expect(swinging.violent).toBe(false);
    expect(swinging.swing.get("p3b")).toBeGreaterThan(50);
    expect(swinging.swing.get("b1")).toBeLessThan(5);
  });
});
