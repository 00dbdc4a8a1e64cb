import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import type { EventDraft } from "../tape/events/event";
import { findingDrafts, type TypedFinding } from "./finding-drafts";
import { workList } from "../repair/work-list";

const typed: TypedFinding = {
  station: "look",
  place: " C6 ",
  text: "wax has run ",
  severity: "watch",
  action: "replace it",
  brief: "ask",
  photos: [],
};
const listOf = (...drafts: EventDraft[]) =>
  workList(foldJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d])))).map((w) => [w.place, w.stands]);

test("a finding that the brief covers asks nobody, nor one that suggests nothing", () => {
  expect(findingDrafts({ ...typed, brief: "allowed" }).map((d) => d.type)).toEqual(["finding"]);
  expect(findingDrafts({ ...typed, action: "  " })).toEqual([
    { type: "finding", payload: { station: "look", place: "C6", text: "wax has run", severity: "watch", brief: "ask" } },
  ]);
});

test("the same action at two places is two questions: the owner's no to one leaves the other open", () => {
  const no: EventDraft = { type: "approval", payload: { what: "C6: replace it", answer: "no" } };
  expect(listOf(...findingDrafts(typed), ...findingDrafts({ ...typed, place: "C7" }), no)).toEqual([
    ["C6", "no"],
    ["C7", "asked"],
  ]);
});
