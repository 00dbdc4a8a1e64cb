import { AMPS, circuitOf, demoAmp } from "./circuits-for-tests";
import { compile } from "./compile";
import { idealVolts, operatingPoint } from "./operating-point";
import { magnitude, SmallSignal } from "./small-signal";
import { periodicAverage } from "./steady";
import { sine, square, transient, TransientError } from "./transient";

/** Largest difference to a closed form over a run, relative to `scale`. */
function worst(t: number[], v: number[], form: (t: number) => number, scale: number): number {
  return Math.max(...t.map((time, k) => Math.abs(v[k]! - form(time)) / scale));
}
const fromZero = (circuit: ReturnType<typeof circuitOf>, stop: number, node: string) => {
  const network = compile(circuit);
  const run = transient(network, { start: new Float64Array(network.size), stop, keep: [network.index.get(node)!] });
  return { t: run.t, v: run.v[0]! };
};

describe("against closed forms, within 0.5 %", () => {
  test("RC: charging", () => {
    const { t, v } = fromZero(circuitOf("V1 in 0 10", "R1 in a 10k", "C1 a 0 10u"), 0.5, "a");
    expect(worst(t, v, (s) => 10 * (1 - Math.exp(-s / 0.1)), 10)).toBeLessThan(0.005);
  });
  test("RL: the choke lets the current rise", () => {
    const { t, v } = fromZero(circuitOf("V1 in 0 10", "L1 in a 5", "R1 a 0 1k"), 0.025, "a");
    expect(worst(t, v, (s) => 10 * (1 - Math.exp(-s / 0.005)), 10)).toBeLessThan(0.005);
  });
  test("RLC: ringing at 50.2 Hz for four periods", () => {
    const { t, v } = fromZero(circuitOf("V1 in 0 10", "L1 in x 10", "R1 x a 200", "C1 a 0 1u"), 0.08, "a");
    const alpha = 200 / (2 * 10);
    const w = Math.sqrt(1 / (10 * 1e-6) - alpha ** 2);
    expect(worst(t, v, (s) => 10 * (1 - Math.exp(-alpha * s) * (Math.cos(w * s) + (alpha / w) * Math.sin(w * s))), 10)).toBeLessThan(0.005);
  });
  test("a square wave through an RC: the corners are met", () => {
    const network = compile(circuitOf("R1 in 0 1MEG", "R2 in a 1k", "C1 a 0 100n"));
    const input = network.index.get("in")!;
    const run = transient(network, {
      start: new Float64Array(network.size),
      stop: 4e-3,
      drive: square(input, 1, 500, 4e-3),
      keep: [network.index.get("a")!],
    });
    const tau = 1e-4;
    let level = 0;
    const form = (s: number) => {
      level = 0;
      for (let k = 0; k * 1e-3 <= s + 1e-12; k++) {
        const target = k % 2 === 0 ? 1 : -1;
        const length = Math.min(1e-3, s - k * 1e-3);
        level = target + (level - target) * Math.exp(-length / tau);
      }
      return level;
    };
    expect(worst(run.t, run.v[0]!, form, 2)).toBeLessThan(0.005);
  });
});

describe("against the other analyses", () => {
  test.each(AMPS)("%s at rest stays at its operating point", (name) => {
    const op = operatingPoint(demoAmp(name));
    const keep = op.network.nodes.map((_, k) => k);
    const run = transient(op.network, { start: op.x, stop: 0.05, keep });
    keep.forEach((k) => expect(Math.abs(run.end[k]! - op.x[k]!)).toBeLessThan(2e-3));
  });
  test.each([
    ["wren-5", "in"],
    ["lantern-15", "in"],
    ["drover-40", "g1"],
    ["halberd-120", "in"],
  ])("%s: small-signal gain against a small transient, within 1 %%", (name, input) => {
    const op = operatingPoint(demoAmp(name));
    const hertz = 400;
    const [a, out] = [op.network.index.get(input)!, op.network.index.get("out")!];
    const gain = magnitude(new SmallSignal(op).drive(a, 1, hertz)[out]!);
    // Small enough for half a volt at the output, long enough for the coupling capacitors to settle.
    const run = transient(op.network, {
      start: op.x,
      stop: 0.1,
      drive: sine(a, 0.5 / gain, hertz),
      keep: [out],
      tolerance: 2e-4,
      mostStep: 1 / hertz / 60,
    });
    // Fundamental of the last ten periods, by projection.
    let [s, c, length] = [0, 0, 0];
    for (let k = 1; k < run.t.length; k++) {
      const [t, before] = [run.t[k]!, run.t[k - 1]!];
      if (before < 0.1 - 10 / hertz) continue;
      const middle = 2 * Math.PI * hertz * ((t + before) / 2);
      const v = (run.v[0]![k]! + run.v[0]![k - 1]!) / 2;
      s += v * Math.sin(middle) * (t - before);
      c += v * Math.cos(middle) * (t - before);
      length += t - before;
    }
    expect(Math.abs((2 * Math.hypot(s, c)) / length / 0.5 - 1)).toBeLessThan(0.01);
  });

  const supply = (rectifier: string, farads: string, load: string) =>
    circuitOf("*@mains 230 50", `XPS b 0 ${rectifier}`, `C1 b 0 ${farads}`, `R1 b 0 ${load}`);
  const full = "RECT_FULL vac=290 rs=180 tube=EZ80";
  test.each([
    // ωCR ≥ 30: the averaged law alone.
    [full, "32u", "5k", 0.01],
    ["RECT_BRIDGE vac=300 rs=40 tube=silicon", "50u", "3k", 0.01],
    ["RECT_HALF vac=48 rs=1k", "50u", "80k", 0.01],
    ["RECT_FULL vac=350 rs=100 tube=GZ34", "60u", "4k", 0.01],
    // Below: corrected by the periodic steady state.
    [full, "4u", "5k", 0.01],
    [full, "1u", "5k", 0.01],
    ["RECT_HALF vac=117 rs=33 tube=35Z5GT", "20u", "2k", 0.01],
    ["RECT_BRIDGE vac=300 rs=40", "2u", "3k", 0.01],
  ] as const)("%s, %s into %s: the average is that of the real pulses", (rectifier, farads, load, part) => {
    const circuit = supply(rectifier, farads, load);
    const truth = periodicAverage(circuit).get("b")!;
    expect(Math.abs(idealVolts(operatingPoint(circuit), "b") / truth - 1)).toBeLessThan(part);
  });
  test("no reservoir at all, a dropper and a second capacitor behind it", () => {
    const circuit = circuitOf("*@mains 230 50", `XPS b 0 ${full}`, "R0 b c 2.2k", "C2 c 0 32u", "R1 c 0 6k");
    const truth = periodicAverage(circuit);
    const op = operatingPoint(circuit);
    for (const node of ["b", "c"]) expect(Math.abs(idealVolts(op, node) / truth.get(node)! - 1)).toBeLessThan(0.02);
  });
  test("two capacitors in series hold the rail like one of half the size", () => {
    const one = supply("RECT_BRIDGE vac=300 rs=40", "50u", "3k");
    const two = circuitOf(
      "*@mains 230 50",
      "XPS b 0 RECT_BRIDGE vac=300 rs=40",
      "C1 b m 100u",
      "C2 m 0 100u",
      "R2 b m 100k",
      "R3 m 0 100k",
      "R1 b 0 3.0456852791878k",
    );
    // One is corrected by its capacitor alone, the other by all that the ripple sees: a fiftieth of a percent.
    expect(Math.abs(idealVolts(operatingPoint(two), "b") / idealVolts(operatingPoint(one), "b") - 1)).toBeLessThan(3e-4);
  });
});

test("a run can be stopped, and says how far it is", () => {
  const op = operatingPoint(demoAmp("lantern-15"));
  const parts: number[] = [];
  const run = transient(op.network, {
    start: op.x,
    stop: 1,
    drive: sine(op.network.index.get("in")!, 0.01, 400),
    keep: [],
    mostStep: 1e-4,
    progress: (part) => parts.push(part) < 3,
  });
  expect(run.finished).toBe(false);
  expect(parts).toHaveLength(3);
  expect(parts[2]).toBeGreaterThan(parts[0]!);
});

test("a step that comes to nothing names its node", () => {
  const network = compile(circuitOf("V1 a 0 1", "R1 a b 1k", "C1 b 0 1u"));
  network.devices.push({
    name: "BAD",
    at: [network.index.get("b")!],
    evaluate(v, i, g) {
      i[0] = NaN;
      g[0] = v[0]!;
    },
  });
  expect(() => transient(network, { start: new Float64Array(network.size), stop: 1, keep: [] })).toThrow(TransientError);
});
