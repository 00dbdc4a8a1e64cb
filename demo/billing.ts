/** Quotes and bills of the demo's jobs, made from their tapes as the program makes them. */

import { billDraft, billNumber } from "@/core/money/bill";
import { billIssued, quoteMade } from "@/core/money/bill-acts";
import { depositOf, quoteOption, type OptionDraft } from "@/core/money/quote";
import type { EventDraft, JobEvent } from "@/core/tape/events/event";
import { foldJob } from "@/core/tape/fold";
import { tasksOf, type Task } from "@/core/repair/tasks";
import type { Days } from "./days";
import { DEMO_SETTINGS } from "./settings";

const stateOf = (d: Days) => foldJob(d.events.map((e, i) => ({ ...e, seq: i + 1 }) as JobEvent));

/** When the last line was logged. */
const lastAt = (d: Days) => Date.parse(d.events.at(-1)!.at!);

/** A quote of the tasks so far. @param options which tasks each way holds. */
export function quoteOf(d: Days, options: (tasks: Task[]) => OptionDraft[]): EventDraft {
  const tasks = tasksOf(stateOf(d), 0);
  const priced = options(tasks).map((o) => quoteOption(o, tasks, DEMO_SETTINGS.money));
  return quoteMade(priced, DEMO_SETTINGS, lastAt(d), { deposit: depositOf(priced, DEMO_SETTINGS.money) });
}

/** The bill of what was done so far. */
export function billOf(d: Days, job: number): EventDraft<"bill"> {
  const state = stateOf(d);
  return billIssued(billNumber(job, state), billDraft(state, tasksOf(state, 0), DEMO_SETTINGS, 0), DEMO_SETTINGS, lastAt(d));
}
