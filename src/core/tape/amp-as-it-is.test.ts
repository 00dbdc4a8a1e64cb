import { ampAsItIs } from "./amp-as-it-is";
import type { EventDraft } from "./events/event";
import { foldJob } from "./fold";
import { tape } from "./tape-for-tests";

const note: EventDraft = { type: "note", payload: { text: "read" } };
const change = (kind: "replacement" | "experiment", outcome?: "open" | "kept" | "reverted", supersedes?: number): EventDraft => ({
  type: "change",
  ...(supersedes === undefined ? {} : { supersedes }),
  payload: { position: "C6", kind, newPart: "new", reversible: true, ...(outcome ? { outcome } : {}) },
});
/** Numbers of the lines that count, of lines one second apart. */
function counting(...drafts: EventDraft[]): number[] {
  const state = foldJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d])));
  const { counts } = ampAsItIs(state);
  return state.lines.flatMap((l) => (l.event.type === "note" && counts(l.event.seq) ? [l.event.seq] : []));
}

test("a part that was replaced makes it another amp", () => {
  expect(counting(note, note)).toEqual([1, 2]);
  expect(counting(note, change("replacement"), note)).toEqual([3]);
});

test("what was read during a trial counts while the trial is in, and no longer once it is put back; what was read before it does then", () => {
  expect(counting(note, change("experiment", "open"), note)).toEqual([3]);
  expect(counting(note, change("experiment", "open"), note, change("experiment", "kept", 2), note)).toEqual([3, 5]);
  expect(counting(note, change("experiment", "open"), note, change("experiment", "reverted", 2), note)).toEqual([1, 5]);
});
