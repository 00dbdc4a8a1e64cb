/** Line-ups as read off sockets, and the chain that is usual for them. */

import fc from "fast-check";
import { readCircuit } from "../circuit/read";
import { stresses } from "../solver/stress";
import { operatingPoint } from "../solver/operating-point";
import { assemble } from "./assemble";
import { readLineUp } from "./line-up";
import { propose, type Answers } from "./propose";

const types = (text: string) => readLineUp(text).tubes.map((t) => t.type.type);
const kinds = (text: string, answers: Answers = {}) => propose(readLineUp(text), answers).chain.map((p) => p.kind);

describe("reading", () => {
  it.each([
    ["12AX7 12AX7 6V6 6V6 5Y3", ["12AX7", "12AX7", "6V6GT", "6V6GT", "5Y3GT"]],
    ["2x12AX7, 2 x 6V6; GZ34", ["12AX7", "12AX7", "6V6GT", "6V6GT", "GZ34"]],
    ["V1: ECC83 V2=ECC83\nV3: EL84", ["12AX7", "12AX7", "EL84"]],
    ["2 6L6GC + ef86", ["6L6GC", "6L6GC", "EF86"]],
    ["", []],
  ])("%s", (text, wanted) => {
    expect(types(text)).toEqual(wanted);
  });

  it.each([
    ["12AX7 6V8", /"6V8" is not a tube type.*6V6/],
    ["EL84 EL84", /2 output tubes alone/],
    ["5Y3", /Only a rectifier/],
    ["12AX7 6V6 EL34", /6V6GT and EL34 in one output stage/],
    ["12AX7 3x6V6", /3 output tubes/],
    ["12AX7 10xEL34", /at most eight/],
    ["12AX7 6V6 5Y3 5Y3", /2 rectifier tubes/],
    ["40x12AX7", /at most 30/],
    ["EF86 4xEL84", /no triode/],
  ])("%s is said to be impossible", (text, says) => {
    expect(readLineUp(text).problems.join(" ")).toMatch(says);
  });

  it("never throws, whatever is typed", () => {
    fc.assert(fc.property(fc.string({ maxLength: 60 }), (text) => void readLineUp(text)));
  });
});

describe("the usual chain", () => {
  it("of two tubes and a rectifier: two stages into one output tube", () => {
    expect(kinds("12AX7 EL84 EZ80").filter((k) => !["filter", "heaters"].includes(k))).toEqual([
      "full-wave",
      "input",
      "triode",
      "volume",
      "triode",
      "single-ended",
    ]);
  });

  it("of a pair with enough halves: long-tailed pair with feedback, fixed bias for large tubes, a cathode resistor for small ones", () => {
    expect(kinds("12AX7 12AX7 6L6GC 6L6GC")).toEqual(
      expect.arrayContaining(["bridge", "bias-supply", "bias-adjuster", "long-tailed-pair", "push-pull", "feedback"]),
    );
    expect(kinds("12AX7 12AX7 6V6 6V6 5Y3")).not.toContain("bias-supply");
    expect(kinds("12AX7 6V6 6V6 5Y3")).toContain("split-load");
  });

  it("of low-µ twins: they are the inverter", () => {
    const { chain } = propose(readLineUp("6SL7 6SN7 6V6 6V6 5Y3"));
    expect(chain.find((p) => p.kind === "long-tailed-pair")!.tubes!.map((t) => t.name)).toEqual(["V2A", "V2B"]);
  });

  it("of a series string: from the line itself, at the line's volts", () => {
    const proposal = propose(readLineUp("12SQ7 50L6 35Z5"));
    expect(proposal).toMatchObject({ mains: 117, hertz: 60 });
    expect(proposal.chain[0]).toMatchObject({ kind: "line-connected" });
    expect(proposal.chain.at(-1)).toMatchObject({ kind: "heaters", options: { wiring: "string" } });
  });

  it("offers no tone network where nothing would stand behind it", () => {
    const tone = (tubes: string) => propose(readLineUp(tubes)).choices.find((c) => c.name === "tone")!.answers;
    expect(tone("EF86 EL84")).toEqual(["none", "tone control"]);
    expect(tone("12AX7 EL84")).toContain("tone stack");
  });

  it("answers otherwise where asked, and passes over what does not fit", () => {
    expect(kinds("12AX7 12AX7 6V6 6V6", { inverter: "paraphase", bias: "fixed" })).toEqual(
      expect.arrayContaining(["paraphase", "bias-supply"]),
    );
    expect(kinds("12AX7 6V6 6V6", { inverter: "long-tailed-pair" })).toContain("split-load");
    expect(kinds("12AX7 12AX7 6V6 6V6", { output: "two single-ended" }).filter((k) => k === "single-ended")).toHaveLength(2);
  });
});

it("every line-up of a usual size gives a file that reads, converges and burns nothing", () => {
  const small = fc.array(fc.constantFrom("12AX7", "12AT7", "12AU7", "EF86", "6SN7", "6SL7"), { minLength: 1, maxLength: 4 });
  const output = fc.constantFrom(
    ["EL84"],
    ["6V6"],
    ["6V6", "6V6"],
    ["EL84", "EL84"],
    ["6L6GC", "6L6GC"],
    ["EL34", "EL34"],
    ["KT88", "KT88"],
    ["EL34", "EL34", "EL34", "EL34"],
    [],
  );
  const rectifier = fc.constantFrom([], ["GZ34"], ["5U4GB"], ["EZ81"]);
  let made = 0;
  fc.assert(
    fc.property(small, output, rectifier, (a, b, c) => {
      const lineUp = readLineUp([...a, ...b, ...c].join(" "));
      // What cannot be an amp says why, in a sentence for somebody at the keyboard.
      if (lineUp.problems.length > 0) return lineUp.problems.every((problem) => problem.length > 10);
      made++;
      const { circuit, errors } = readCircuit(assemble({ maker: "T", model: "T", mains: 230, hertz: 50 }, propose(lineUp).chain));
      expect(errors).toEqual([]);
      const op = operatingPoint(circuit, { mains: 230 });
      expect(op.converged).toBe(true);
      const burnt = stresses(op).filter((s) => (s.share ?? 0) > 1.3);
      expect(burnt.map((s) => `${s.part} ${s.kind} ${s.share}`)).toEqual([]);
    }),
    { numRuns: 80 },
  );
  // Eight of nine outputs are one; a few of those have no triode to drive them.
  expect(made).toBeGreaterThan(50);
});
