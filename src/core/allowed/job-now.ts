/** A job as it stands before a line, from its tape: for the rules, on the server and in the browser alike. */

import { energyOf, viewJob, type JobView } from "../job/job-view";
import type { Settings } from "../shop/settings";
import type { EventDraft, JobEvent } from "../tape/events/event";
import { foldJob, type JobState } from "../tape/fold";
import { allowed } from "./allowed";
import type { JobNow, Refusal, Writer } from "./refusal";

/** @param model circuit file of the job's model. @param at milliseconds since 1970. Each part is worked out when a rule asks for it. */
export function jobNow(lines: readonly JobEvent[], model: string | undefined, settings: Settings, at: number): JobNow {
  const tape = lines.slice();
  let view: JobView | undefined;
  const viewed = () => (view ??= viewJob(tape, model, settings, at));
  let state: JobState | undefined;
  return {
    tape,
    settings,
    get state() {
      return (state ??= view?.state ?? foldJob(tape));
    },
    get circuit() {
      return viewed().circuit;
    },
    energy: () => energyOf(viewed(), at).kind,
  };
}

/** The first refusal of lines that are to be logged one after the other, each on what those before it make of the job. */
export function firstRefusal(
  lines: readonly JobEvent[],
  drafts: readonly EventDraft[],
  model: string | undefined,
  settings: Settings,
  who: Writer,
): Refusal | undefined {
  const tape = lines.slice();
  for (const draft of drafts) {
    const refused = allowed(jobNow(tape, model, settings, who.at), draft, who);
    if (refused) return refused;
    const at = new Date(who.at).toISOString();
    tape.push({ ...draft, seq: tape.length + 1, id: `draft ${tape.length + 1}`, at, who: "" } as JobEvent);
  }
  return undefined;
}
