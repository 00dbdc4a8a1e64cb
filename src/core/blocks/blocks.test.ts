/** Blocks: each solves and is read back as it was written; amps put together from them; the demo shop's six against their own files. */

import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import type { Circuit } from "../circuit/circuit";
import { faultsOf } from "../drawing/check-drawing";
import { drawCircuit } from "../drawing/draw-circuit";
import { layoutHere } from "../drawing/layout-for-tests";
import { draws } from "../numeric/draws-for-tests";
import { solveOnce } from "../expectation/solve-once";
import { operatingPoint } from "../solver/operating-point";
import { blocksOf, readBlockFile } from "./block-file";
import { ampWith, composedAmp } from "./composed-for-tests";
import { demoPlans } from "./demo-amps-for-tests";
import { optionSets, type BlockKind } from "./kind";
import { KINDS } from "./kinds";
import { writeBlockFile } from "./write-blocks";

/** Reads the text as blocks, marks each as changed so that all are written anew, and writes it. */
function rewritten(text: string): string {
  const file = readBlockFile(text);
  expect(file.broken).toEqual([]);
  return writeBlockFile({
    ...file,
    sections: file.sections.map((s) => ("free" in s ? s : { block: { ...s.block, changed: true }, lines: s.lines })),
  });
}

function soundCircuit(text: string): Circuit {
  const { circuit, errors } = readCircuit(text);
  if (errors[0]) throw new Error(`line ${errors[0].line}: ${errors[0].found}; ${errors[0].expected}\n${text}`);
  return circuit;
}

/** Sets of options that show every value of every option at least once. */
function everyValue(kind: BlockKind): Record<string, string>[] {
  const seen = new Set<string>();
  return optionSets(kind).filter((set) => {
    const before = seen.size;
    for (const [key, value] of Object.entries(set)) seen.add(`${key}=${value}`);
    return seen.size > before || kind.options.length === 0;
  });
}

describe.each(KINDS.map((k) => [k.kind, k] as const))("%s", (name, kind) => {
  it.each(
    everyValue(kind).map(
      (o) =>
        [
          Object.entries(o)
            .map(([k, v]) => `${k} ${v}`)
            .join(", ") || "as it is",
          o,
        ] as const,
    ),
  )("%s", async (_, options) => {
    const text = ampWith(kind, options);
    const circuit = soundCircuit(text);
    expect(rewritten(text)).toBe(text);
    const own = blocksOf(readBlockFile(text)).find((b) => b.kind === name && Object.entries(options).every(([k, v]) => b.options[k] === v));
    expect(own).toBeDefined();
    expect(operatingPoint(circuit, { mains: 230 }).converged).toBe(true);
    expect(faultsOf(circuit, await drawCircuit(circuit, layoutHere))).toEqual([]);
  });
});

describe("amps put together from blocks", () => {
  const AMPS = draws(70, 320);

  it(`${AMPS} random ones are read back as they were written, and converge`, () => {
    const failed: string[] = [];
    const kinds = new Set<string>();
    for (let seed = 1; seed <= AMPS; seed++) {
      const text = composedAmp(seed);
      const circuit = soundCircuit(text);
      expect(rewritten(text)).toBe(text);
      for (const b of blocksOf(readBlockFile(text))) kinds.add(b.kind);
      const op = operatingPoint(circuit, { mains: 230 });
      if (!op.converged) failed.push(`${seed}: ${op.unsettled.join(", ") || "names nothing"}`);
    }
    expect(failed).toEqual([]);
    // Every kind but the supply that needs a series string stood in one of them.
    expect(KINDS.map((k) => k.kind).filter((k) => !kinds.has(k))).toEqual(["line-connected"]);
  });

  it("some of them drawn", async () => {
    for (let seed = 1; seed <= draws(12, 24); seed++) {
      const circuit = soundCircuit(composedAmp(seed));
      expect(faultsOf(circuit, await drawCircuit(circuit, layoutHere))).toEqual([]);
    }
  });
});

describe("the demo shop's amps from blocks", () => {
  it.each(demoPlans().map((p) => [p.file, p] as const))("%s shows what its own file shows", (file, { text }) => {
    const own = soundCircuit(readFileSync(`demo/amps/${file}`, "utf8"));
    const made = soundCircuit(text);
    expect(readBlockFile(text).broken).toEqual([]);
    const conditions = { mains: own.mains!.volts, without: [], set: [] };
    const [a, b] = [solveOnce(own, conditions), solveOnce(made, conditions)];
    // Rails by their order, since each file numbers its own; electrodes by name.
    const rails = (c: Circuit) => c.points.filter((p) => /^B\d+$/.test(p.name)).sort((p, q) => p.order - q.order);
    const pairs = [
      ...rails(own).map((p, i) => [p.name, rails(made)[i]!.name]),
      ...own.points.filter((p) => !/^B\d+$/.test(p.name)).map((p) => [p.name, p.name]),
    ] as [string, string][];
    for (const [mine, its] of pairs) {
      const [x, y] = [a.points[mine]!, b.points[its]!];
      expect({ point: mine, off: Math.abs(x - y) <= 0.01 * Math.abs(x) + 0.01, x, y }).toMatchObject({ off: true });
    }
  });
});
