/** Properties of the tape and of typed values over many random cases, with fixed seeds. */

import { formatQuantity } from "../quantity/format";
import { parseQuantity } from "../quantity/parse";
import type { EventDraft } from "./events/event";
import { foldJob, tapeLines } from "./fold";
import { tape } from "./tape-for-tests";

function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296;
    return state / 4294967296;
  };
}

test("a line stands exactly when no standing later line supersedes it; every line is kept", () => {
  for (let seed = 1; seed <= 200; seed++) {
    const next = random(seed);
    const drafts: [number, EventDraft][] = [];
    for (let i = 0; i < 30; i++) {
      const target = drafts.length > 0 && next() < 0.5 ? 1 + Math.floor(next() * drafts.length) : undefined;
      const kind = next();
      if (target === undefined) drafts.push([i, { type: "reading", payload: { point: `P${i}`, kind: "dcv", value: i, conditions: {} } }]);
      else if (kind < 0.5) drafts.push([i, { type: "undo", supersedes: target, reason: "x", payload: {} }]);
      else
        drafts.push([
          i,
          { type: "reading", supersedes: target, reason: "y", payload: { point: `P${i}`, kind: "dcv", value: i, conditions: {} } },
        ]);
    }
    const events = tape(...drafts);
    const lines = tapeLines(events);
    const stands = (seq: number): boolean => !events.some((e) => e.supersedes === seq && stands(e.seq));
    expect(lines.map((l) => l.effective)).toEqual(events.map((e) => stands(e.seq)));
    expect(lines).toHaveLength(events.length);
    // Folding a tape twice, or a copy of it, gives the same state.
    expect(foldJob(structuredClone(events)).readings).toEqual(foldJob(events).readings);
  }
});

test("what is shown with all its digits reads back as the same number", () => {
  const next = random(42);
  for (let i = 0; i < 2000; i++) {
    const value = Number(((next() < 0.5 ? -1 : 1) * (1 + 9 * next()) * 10 ** Math.floor(next() * 18 - 11)).toPrecision(4));
    for (const unit of ["Ω", "F", "A", "H"] as const) {
      const parsed = parseQuantity(formatQuantity(value, unit, 4), { unit });
      expect(parsed.ok ? parsed.quantity.value : parsed.why).toBeCloseTo(value, 15);
      if (parsed.ok) expect(Math.abs(parsed.quantity.value / value - 1)).toBeLessThan(1e-9);
    }
  }
});

test("no line of text makes the value reader throw", () => {
  const next = random(7);
  const alphabet = "0123456789.,-+kKmMuµnpRΩVeE %x\u0000é";
  for (let i = 0; i < 5000; i++) {
    const text = Array.from({ length: Math.floor(next() * 10) }, () => alphabet[Math.floor(next() * alphabet.length)]).join("");
    const parsed = parseQuantity(text, { unit: next() < 0.3 ? "F" : undefined });
    if (parsed.ok) expect(Number.isFinite(parsed.quantity.value)).toBe(true);
    else expect(parsed.why).not.toBe("");
  }
});
