/** What a line names has to be there: before it, and of the right type. */

import type { JobEvent } from "./events/event";
import { referenceErrors, storedReferences } from "./references";
import { samplePayloads } from "./samples-for-tests";
import { tape } from "./tape-for-tests";

const stored = { photo: "a".repeat(64), recording: "b".repeat(64) };
const p = samplePayloads(stored, { finding: 1, removed: 2, change: 2, asked: 3, soak: 4, reform: 5, planned: 6, bill: 7 });
const lines = tape(
  [0, { type: "finding", payload: p.finding }],
  [1, { type: "removed", payload: p.removed }],
  [2, { type: "approval", payload: { what: "new socket", answer: "asked" } }],
  [3, { type: "soak-begun", payload: p["soak-begun"] }],
  [4, { type: "reform-begun", payload: p["reform-begun"] }],
  [5, { type: "planned", payload: p.planned }],
  [6, { type: "bill", payload: p.bill }],
  [7, { type: "quote", payload: p.quote }],
);
const next = (event: object) => ({ ...lines[0]!, seq: 9, supersedes: undefined, ...event }) as JobEvent;

test("closing, putting back, answering and ending name a line of their kind that stands before", () => {
  const naming = (
    type:
      | "finding-closed"
      | "put-back"
      | "approval"
      | "soak-ended"
      | "reform-point"
      | "reform-turn"
      | "planned-ended"
      | "timer"
      | "time"
      | "change"
      | "bill-cancelled",
    field: string,
    line: number,
  ) => referenceErrors(next({ type, payload: { ...p[type], [field]: line } }), lines)[0];
  const all = [
    ["finding-closed", "finding", 1],
    ["put-back", "removed", 2],
    ["approval", "asks", 3],
    ["soak-ended", "soak", 4],
    ["reform-point", "reform", 5],
    ["reform-turn", "reform", 5],
    ["planned-ended", "planned", 6],
    ["timer", "planned", 6],
    ["time", "planned", 6],
    ["change", "planned", 6],
    ["bill-cancelled", "bill", 7],
  ] as const;
  for (const [type, field, right] of all) {
    expect(naming(type, field, right)).toBeUndefined();
    for (const wrong of [(right % 7) + 1, 9, 10, 900_000]) expect(naming(type, field, wrong)).toMatchObject({ field });
  }
  expect(naming("put-back", "removed", 1)!.message).toBe("line 1 is of the type finding; one of the type removed is wanted");
  // A quote is answered as a question is.
  expect(naming("approval", "asks", 8)).toBeUndefined();
  expect(naming("put-back", "removed", 9)!.message).toMatch(/does not stand before this one/);
});

test("a correction is of the type that it corrects; an undo strikes any line, also one that cannot be understood", () => {
  const superseding = (type: string, supersedes: number, before: JobEvent[] = lines) =>
    referenceErrors(next({ type, supersedes, payload: type === "undo" ? {} : p.removed }), before)[0]?.message;
  expect(superseding("removed", 2)).toBeUndefined();
  expect(superseding("removed", 1)).toMatch(/cannot be corrected by one of the type removed/);
  expect(superseding("undo", 4)).toBeUndefined();
  expect(superseding("undo", 9)).toMatch(/not on this tape; it has 8 lines/);
  const odd = lines.map((l) => (l.seq === 2 ? { ...l, type: "unreadable", payload: { type: "removed", why: "x" } } : l)) as JobEvent[];
  expect([superseding("undo", 2, odd), superseding("removed", 2, odd)]).toEqual([undefined, undefined]);
});

test("photos and recordings that a line speaks of", () => {
  const of = (type: keyof typeof p) => storedReferences(next({ type, payload: p[type] })).map((r) => r.kind);
  expect(["photo", "recording", "finding", "removed", "provoked", "change"].map((t) => of(t as never))).toEqual([
    ["photo"],
    ["recording"],
    ["photo"],
    ["photo"],
    ["photo"],
    ["photo", "photo"],
  ]);
  expect(of("note")).toEqual([]);
  expect(storedReferences(next({ type: "unreadable", payload: { type: "photo", why: "x" } }))).toEqual([]);
});
