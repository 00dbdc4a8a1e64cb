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
  const { causes, next } = isolate(table, [{ test: "sound", outcome: "hum-double" }]);
  expect(causes[0]!.refs[0]).toMatch(/^[CV]\d/);
  expect(next.length).toBeGreaterThan(5);
});

test("what cannot be drawn is refused by name", () => {
  const of = (stages: GenericChain["stages"]) => () => genericCircuit({ ...USUAL_CHAIN, stages });
  expect(of([])).toThrow("0 stages");
  expect(of([{ tube: "triode" }])).toThrow("read triode");
  expect(of([{ tube: "V1A" }, { tube: "V1A" }])).toThrow("one name");
});
