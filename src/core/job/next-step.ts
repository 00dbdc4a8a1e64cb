/** The next thing to do on a job, as its line on the board says it. */

import { openRun, reformRuns } from "../capacitor/reform-run";
import * as texts from "../texts/job";
import { isolationOpen } from "../bring-up/fuse-isolation-state";
import { say } from "../language/language";
import { safetyTestsFor } from "../safety/end-of-job-tests";
import type { Settings } from "../shop/settings";
import { powerOns } from "../tape/fold";
import { findStation, type StationId } from "../tape/stations";
import type { JobView } from "./job-view";
import type { WorkPhase } from "../tape/events/words";
import { tasksOf } from "../repair/tasks";
import { workList } from "../repair/work-list";

export interface NextStep {
  station: StationId;
  says: string;
}

const WORDS = {
  isolation: () => say`find what blew the fuse`,
  complaint: () => say`write down the complaint`,
  brief: () => say`agree with the owner what may be done`,
  experiment: (position: string) => say`decide on the experiment at ${position}: keep it or put it back`,
  soak: () => say`soak test is running`,
  work: (place: string, action: string) => say`${place}: ${action}`,
  look: () => say`inspect it before it is powered`,
  cold: () => say`measure the resistances with the power off`,
  bringUp: () => say`bring it up to full mains`,
  walk: (taken: number, of: number) => say`${taken} of ${of} voltages read`,
  out: (points: string) => say`out of band: ${points}`,
  putBack: (what: string) => say`put back ${what}`,
  tests: (left: number) => (left === 1 ? say`one safety test to do` : say`${left} safety tests to do`),
  hand: () => say`print the report and hand it back`,
} as const;

/** Where the tasks of each phase are done. */
const AT_PHASE: Record<WorkPhase, StationId> = {
  "power off": "work",
  "power on": "walk",
  adjustment: "output-stage",
  "final tests": "prove",
};

/** @returns the station where it is done, and what; undefined for a job that was returned. */
export function nextStep(view: JobView, settings: Settings): NextStep | undefined {
  const { state, rows } = view;
  const at = (station: StationId, says: string): NextStep => ({ station, says: `${findStation(station)!.name}: ${says}` });
  if (state.returned) return undefined;
  if (isolationOpen(state)) return at("bring-up", WORDS.isolation());
  if (!state.complaint) return at("intake", WORDS.complaint());
  if (!state.brief) return at("intake", WORDS.brief());
  const reforming = openRun(reformRuns(state));
  if (reforming) return at("work", texts.reformCapacitors(reforming.parts.map((p) => p.part.part).join(", ")));
  if (state.soaks.some((s) => !s.ended)) return at("noise", WORDS.soak());
  const experiment = state.changes.find((c) => c.kind === "experiment" && (c.outcome ?? "open") === "open");
  if (experiment) return at("work", WORDS.experiment(experiment.position));
  const task = tasksOf(state, Date.parse(state.lastAt ?? "") || 0).find((t) => t.state === "open" && t.agreed === "agreed");
  if (task) return at(AT_PHASE[task.phase], WORDS.work(task.position, task.what));
  // What is on the plan stands there, agreed or not.
  const planned = new Set(state.planned.map((p) => p.source));
  const work = workList(state).find((w) => (w.stands === "allowed" || w.stands === "yes") && !planned.has(w.seq));
  if (work) return at("work", WORDS.work(work.place, work.action));
  const powered = powerOns(state).length > 0;
  if (!powered && state.inspected.size === 0) return at("look", WORDS.look());
  if (!powered && view.circuit && !state.readings.some((r) => r.kind === "ohm")) return at("cold-checks", WORDS.cold());
  if (!powered) return at("bring-up", WORDS.bringUp());
  const out = rows.filter((r) => r.verdict === "out").map((r) => r.point.name);
  if (out.length > 0) return at("suspects", WORDS.out(out.slice(0, 3).join(", ")));
  const taken = rows.filter((r) => r.reading).length;
  if (taken < rows.length && state.changes.length === 0) return at("walk", WORDS.walk(taken, rows.length));
  const off = state.removed.find((r) => r.back === undefined);
  if (off) return at("prove", WORDS.putBack(off.what));
  const left = safetyTestsFor(settings).filter((t) => !state.safetyTests.get(t.test)?.passed).length;
  if (left > 0) return at("prove", WORDS.tests(left));
  return at("return", WORDS.hand());
}
