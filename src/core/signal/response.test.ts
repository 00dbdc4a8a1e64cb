import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { responseOf } from "./response";
import { changeOf, loopWarning } from "./response-change";

const amp = (name: string) => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;

test("the Drover: less feedback resistance is more feedback, less gain, less margin", () => {
  const circuit = amp("drover-40");
  const [now, more] = [responseOf(circuit, 230), responseOf(circuit, 230, ["R17=4.7k"])];
  expect(now.feedback!.resistor).toBe("R17");
  expect(now.feedback!.decibels).toBeGreaterThan(1);
  expect(more.feedback!.decibels).toBeGreaterThan(now.feedback!.decibels + 3);
  const at1k = (r: typeof now) => r.gain[r.hertz.findIndex((f) => f >= 1000)]!;
  // The gain goes down by as much as the feedback goes up.
  expect(at1k(now) - at1k(more)).toBeCloseTo(more.feedback!.decibels - now.feedback!.decibels, 0);
  expect(now.feedback!.positive).toBe(false);
  expect(more.low!).toBeLessThan(now.low! * 1.05);
});

test("the output transformer turned round: the feedback comes back in phase, and it is said", () => {
  const circuit = amp("drover-40");
  const turned = {
    ...circuit,
    elements: circuit.elements.map((e) =>
      e.type === "OPT_PP" ? { ...e, nodes: [e.nodes[2]!, e.nodes[1]!, e.nodes[0]!, ...e.nodes.slice(3)] } : e,
    ),
  };
  expect(responseOf(turned, 230).feedback!.positive).toBe(true);
});

test("a decoupler lost hums more, a smaller coupling capacitor raises the lower corner, a square wave tilts with it", () => {
  const circuit = amp("wren-5");
  const now = responseOf(circuit, 230);
  expect(responseOf(circuit, 230, ["C2=open"]).humMillivolts).toBeGreaterThan(1.5 * now.humMillivolts);
  const coupling = circuit.elements.find((e) => e.letter === "C" && e.nodes.includes("p1b"))!.name;
  const thin = responseOf(circuit, 230, [`${coupling}=1n`]);
  expect(thin.low!).toBeGreaterThan(2 * now.low!);
  const flat = (r: typeof now) => r.square[38]! / r.square[4]!;
  expect(flat(thin)).toBeLessThan(flat(now));
  expect(now.noiseMicrovolts).toBeGreaterThan(1);
  expect(now.noiseMicrovolts).toBeLessThan(20_000);
});

test("hum is that of a pair as pairs come: with both halves alike it would all but cancel", () => {
  const { humMillivolts, noiseMicrovolts } = responseOf(amp("drover-40"), 230);
  expect(humMillivolts).toBeGreaterThan(0.1);
  expect(humMillivolts).toBeLessThan(20);
  // 10 kΩ of stopper before a gain of 2,045: at least √(4kT·10 kΩ·20 kHz)·2045, about 3.8 µV of its own at the speaker.
  expect(noiseMicrovolts).toBeGreaterThan(1e6 * Math.sqrt(4 * 1.38e-23 * 320 * 10e3 * 20e3) * 2045 * 0.8);
});

test("what a change does in decibels and in words; what a loop warns of", () => {
  const circuit = amp("drover-40");
  const [now, then] = [responseOf(circuit, 230), responseOf(circuit, 230, ["C2=open"])];
  const change = changeOf(now, then);
  expect(change.hum).toBeCloseTo(20 * Math.log10(then.humMillivolts / now.humMillivolts), 6);
  expect(change.hum).toBeGreaterThan(6);
  expect(change.predicts).toMatch(/^feedback 10\.\d dB, hum \+\d+\.\d dB, hiss [+-]?\d\.\d dB$/);
  const loop = { resistor: "R17", decibels: 12, positive: false };
  expect(loopWarning({ ...loop, gainMargin: 12 })).toBeUndefined();
  expect(loopWarning({ ...loop, gainMargin: 4.2 })).toContain("4.2 dB of gain margin");
  expect(loopWarning({ ...loop, positive: true })).toContain("wrong way round");
  expect(loopWarning(undefined)).toBeUndefined();
});

test("an amp without stages has no response to speak of", () => {
  const { circuit } = readCircuit("Bare\n*@mains 230 50\nR1 a 0 1k\n.end\n");
  expect(() => responseOf(circuit, 230)).toThrow("wants an input");
});
