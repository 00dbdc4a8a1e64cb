/** Putting back restores the circuit in use exactly, whatever was changed, in whatever order it is put back or fitted again. */

import { readFileSync } from "node:fs";
import fc from "fast-check";
import "@/fixed-draws-for-tests";
import type { EventDraft } from "../tape/events/event";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import { circuitInUse } from "./circuit-in-use";

const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
const PARTS = ["R1", "R4", "R7", "R8", "R9", "C1", "C2", "C6"];

interface Change {
  position: string;
  set: string[];
  kind: "replacement" | "experiment" | "repair";
}

const change = fc
  .record({
    position: fc.constantFrom(...PARTS),
    value: fc.integer({ min: 1, max: 900 }),
    volts: fc.option(fc.integer({ min: 100, max: 900 })),
    kind: fc.constantFrom("replacement" as const, "experiment" as const, "repair" as const),
  })
  .map(({ position, value, volts, kind }): Change => ({
    position,
    kind,
    set: position.startsWith("R")
      ? [`${position}=${value}k`]
      : [`${position}=${value}nF`, ...(volts ? [`${position}.volts=${volts}`] : [])],
  }));

const logged = ({ position, set, kind }: Change, more: object = {}): EventDraft =>
  ({
    type: "change",
    payload: { position, kind, newPart: "new", reversible: true, set, ...(kind === "experiment" ? { outcome: "open" } : {}) },
    ...more,
  }) as EventDraft;
const putBack = (c: Change, line: number): EventDraft => {
  const draft = logged(c) as EventDraft<"change">;
  return { ...draft, payload: { ...draft.payload, outcome: "reverted" }, supersedes: line, reason: "no better" };
};
const netlistOf = (drafts: EventDraft[]) =>
  circuitInUse(foldJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d]))), WREN).netlist;

test("after all is put back the model's own text stands; in between, what is left is as if it alone had been done", () => {
  fc.assert(
    fc.property(
      fc.array(change, { minLength: 1, maxLength: 8 }),
      fc.infiniteStream(fc.double({ min: 0, max: 0.999, noNaN: true })),
      (changes, random) => {
        const next = () => random.next().value!;
        const drafts = changes.map((c) => logged(c));
        /** The line by which each was put back last, while it is. */
        const out = new Map<number, number>();
        const inNow = () => changes.filter((_, i) => !out.has(i)).map((c) => logged(c));
        for (let step = 0; step < 12; step++) {
          const i = Math.floor(next() * changes.length);
          const by = out.get(i);
          if (by === undefined) {
            drafts.push(putBack(changes[i]!, i + 1));
            out.set(i, drafts.length);
          } else {
            drafts.push({ type: "undo", supersedes: by, reason: "fitted again", payload: {} });
            out.delete(i);
          }
          expect(netlistOf(drafts)).toBe(netlistOf(inNow()));
        }
        changes.forEach((c, i) => out.has(i) || drafts.push(putBack(c, i + 1)));
        expect(netlistOf(drafts)).toBe(WREN);
      },
    ),
    { numRuns: 60 },
  );
});

test("a part that was fitted twice: with the second put back the first counts, as what it was", () => {
  const [first, second] = [
    { position: "C1", set: ["C1=47uF", "C1.volts=500"], kind: "replacement" as const },
    { position: "C1", set: ["C1=100uF"], kind: "replacement" as const },
  ];
  expect(netlistOf([logged(first), logged(second), putBack(second, 2)])).toBe(netlistOf([logged(first)]));
  expect(netlistOf([logged(first), logged(second), putBack(first, 1)])).toBe(netlistOf([logged(second)]));
});
