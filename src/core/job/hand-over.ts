/** The state of a job in one paragraph, written from its tape: for the technician who takes it over. */

import { formatDuration } from "../quantity/format";
import type { EnergyState } from "../safety/energy";
import type { Settings } from "../shop/settings";
import { isFitted } from "../tape/fold";
import * as texts from "../texts/memory";
import { questionsOf } from "../repair/questions";
import { tasksOf } from "../repair/tasks";
import type { JobView } from "./job-view";
import { nextStep } from "./next-step";

/** Of a list no more than so many by name. */
const MOST = 4;

/** Without the stop at its end: the sentence brings its own. */
const bare = (text: string) => text.trim().replace(/[.?!\s]+$/, "");

const listed = (items: readonly string[]): string => {
  const shown = items.slice(0, MOST).map(bare).join("; ");
  return items.length > MOST ? texts.andMore(shown, items.length - MOST) : shown;
};

const STANDS: Record<EnergyState["kind"], () => string> = {
  live: texts.standsLive,
  stored: texts.standsStored,
  "proven-dead": texts.standsDead,
  unknown: texts.standsUnknown,
  "not-here": texts.standsNotHere,
};

/** @param now milliseconds since 1970 */
export function handOver(view: JobView, energy: EnergyState["kind"], settings: Settings, now: number): string {
  const { state, rows } = view;
  const open = state.findings.filter((f) => f.closed === undefined);
  const done = state.changes.filter(isFitted).map((c) => `${c.position} ${c.newPart}${c.reason ? ` (${c.reason})` : ""}`);
  const trials = state.changes.filter((c) => c.kind === "experiment" && (c.outcome ?? "open") === "open");
  const off = state.removed.filter((r) => r.back === undefined);
  const out = rows.filter((r) => r.verdict === "out").map((r) => r.point.name);
  const asked = questionsOf(state).filter((q) => q.stands === "asked");
  const tasks = tasksOf(state, now).filter((t) => t.state === "open" && t.agreed !== "declined");
  const minutes = tasks.reduce((sum, t) => sum + Math.max(0, t.estimate - t.worked), 0);
  const next = nextStep(view, settings);
  return [
    texts.forOwner(state.opened?.amp ?? "", state.opened?.owner ?? ""),
    // What can hurt somebody is read first.
    STANDS[energy](),
    state.complaint ? texts.complains(bare(state.complaint.words)) : "",
    open.length > 0 ? texts.foundSoFar(listed(open.map((f) => `${f.place}, ${f.text}`))) : "",
    done.length > 0 ? texts.doneSoFar(listed(done)) : "",
    trials.length > 0 ? texts.trialsIn(listed(trials.map((c) => `${c.position} ${c.newPart}`))) : "",
    off.length > 0 ? texts.offIt(listed(off.map((r) => r.what))) : "",
    out.length > 0 ? texts.outOfBand(out.slice(0, 6).join(", ")) : "",
    asked.length > 0 ? texts.asksOwner(listed(asked.map((a) => a.what))) : "",
    tasks.length > 0 ? texts.openTasks(listed(tasks.map((t) => t.name)), formatDuration(minutes * 60)) : "",
    state.brief?.dueDate ? texts.promised(state.brief.dueDate) : "",
    next ? texts.nextIs(next.says) : "",
  ]
    .filter(Boolean)
    .join(" ");
}
