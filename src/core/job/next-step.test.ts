/** The next step of a job: by its plan first, at the station where such a task is done. */

import { DEFAULT_SETTINGS } from "../shop/settings";
import type { EventDraft } from "../tape/events/event";
import type { WorkPhase } from "../tape/events/words";
import { at, tape } from "../tape/tape-for-tests";
import { viewJob } from "./job-view";
import { nextStep } from "./next-step";

const next = (...drafts: EventDraft[]) => {
  const opened: EventDraft[] = [
    { type: "job-opened", payload: { owner: "Osric Venn", amp: "Wren 5" } },
    { type: "complaint", payload: { words: "hums", when: [] } },
    { type: "brief", payload: { order: ["cost"] } },
  ];
  const lines = [...opened, ...drafts].map((d, i): [number, EventDraft] => [i, d]);
  return nextStep(viewJob(tape(...lines), undefined, DEFAULT_SETTINGS, at(1000)), DEFAULT_SETTINGS);
};
const planned = (position: string, phase: WorkPhase, more: object = {}): EventDraft => ({
  type: "planned",
  payload: { position, what: "do it", phase, from: "technician", reversible: true, ...more },
});
const finding: EventDraft = {
  type: "finding",
  payload: { station: "look", place: "C6", text: "leaks", action: "renew it", severity: "fault", brief: "allowed" },
};

test("the first open task that is agreed, where it is done", () => {
  expect(next(planned("C6", "power off"), planned("bias", "adjustment"))).toEqual({ station: "work", says: "Work: C6: do it" });
  expect(next(planned("bias", "adjustment"))).toEqual({ station: "output-stage", says: "Output stage: bias: do it" });
  expect(next(planned("all", "final tests"))).toMatchObject({ station: "prove" });
  const done: EventDraft = { type: "planned-ended", payload: { planned: 4, how: "done" } };
  expect(next(planned("C6", "power off"), planned("B1", "power on"), done)).toMatchObject({ station: "walk" });
});

test("a finding that is on the plan is asked for once; one that the owner declined is not", () => {
  expect(next(finding)).toMatchObject({ says: "Work: C6: renew it" });
  expect(next(finding, planned("C6", "power off", { source: 4 }))).toMatchObject({ says: "Work: C6: do it" });
  const asked: EventDraft = { type: "approval", payload: { what: "renew C6?", answer: "asked", planned: [5] } };
  const no: EventDraft = { type: "approval", payload: { what: "renew C6?", answer: "no", asks: 6 } };
  expect(next(finding, planned("C6", "power off", { source: 4 }), asked, no)?.says).not.toMatch(/C6/);
});
