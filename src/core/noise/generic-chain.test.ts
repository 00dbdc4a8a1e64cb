import { readCircuit } from "../circuit/read";
import { isolate } from "../diagnosis/isolate";
import { genericCircuit, USUAL_CHAIN, type GenericChain } from "./generic-chain";
import { NoiseTable } from "./noise-table";

test.each<[string, Partial<GenericChain>]>([
  ["push-pull, cathode bias", {}],
  ["push-pull, fixed bias, feedback", { fixedBias: true, feedback: true }],
  ["single-ended", { output: "single-ended", stages: [{ tube: "V1A", control: "P1" }] }],
  ["four stages", { stages: [{ tube: "V1A" }, { tube: "V1B", control: "P1" }, { tube: "V2A" }, { tube: "V2B", control: "P2" }] }],
  ["line-connected", { lineConnected: true, output: "single-ended", stages: [{ tube: "V1" }] }],
])("%s: the generic chain is a circuit that settles and that noise is isolated in", (_, of) => {
  const { circuit, errors } = readCircuit(genericCircuit({ ...USUAL_CHAIN, ...of }));
  expect(errors).toEqual([]);
  const table = new NoiseTable(circuit, { mains: 230 });
  expect(table.causes.length).toBeGreaterThan(25);
  const hum = { test: "sound", outcome: "hum-double" };
  const alone = isolate(table, [hum]);
  expect(alone.next.length).toBeGreaterThan(5);
  // Twice the mains frequency comes from the supply: a filter capacitor that is lost, or a pair that no longer cancels its ripple.
  const pair = of.output === "single-ended" ? [] : circuit.elements.flatMap((e) => (e.type === "6V6GT" ? [e.name] : []));
  expect(["C1", "C2", "C3", "C4", ...pair]).toContain(alone.causes[0]!.refs[0]);
  // By hand: the first rail, from the rectifier on, that has too much ripple has lost its own capacitor.
  for (const [part, rails] of Object.entries({
    C1: ["over five times"],
    C2: ["as it should be", "over five times"],
    C3: ["as it should be", "as it should be", "over five times"],
  })) {
    const read = rails.map((outcome, i) => ({ test: `ac:b${i + 1}`, outcome }));
    expect({ part, first: isolate(table, [hum, ...read]).causes[0]!.refs }).toEqual({ part, first: [part] });
  }
});

test("what cannot be drawn is refused by name", () => {
  const of = (stages: GenericChain["stages"]) => () => genericCircuit({ ...USUAL_CHAIN, stages });
  expect(of([])).toThrow("0 stages");
  expect(of([{ tube: "triode" }])).toThrow("read triode");
  expect(of([{ tube: "V1A" }, { tube: "V1A" }])).toThrow("one name");
});
