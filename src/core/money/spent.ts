/** What the work comes to so far and with what is planned, held against the owner's limit and the date promised. */

import { addDays, differenceInCalendarDays, format, isWeekend } from "date-fns";
import { formatDuration } from "../quantity/format";
import type { Settings } from "../shop/settings";
import type { JobState } from "../tape/fold";
import type { Task } from "../repair/tasks";
import * as texts from "../texts/money";
import { formatMoney, sumOf } from "./amount";
import { billDraft, standingBills } from "./bill";
import { taskLines } from "./quote";
import { moneySum } from "./sum";

export interface Spent {
  /** Of the shop's currency: done and billed so far; with all that is open and not declined. */
  spent: number;
  all: number;
  limit?: number;
  /** Minutes of open tasks, less what was worked on them. */
  openMinutes: number;
  /** Minutes at the bench until the end of the promised day; undefined without a date. */
  minutesLeft?: number;
  /** What to mind, the worst first. */
  warnings: { says: string; passed: boolean }[];
}

/** From this part of the limit on it is said that little is left. */
const NEAR = 0.85;

/** Bench minutes of the working days from a day to another, both counted. @param today "2026-03-02" */
export function benchMinutes(today: string, due: string, hours: number): number {
  const from = new Date(`${today}T12:00:00`);
  const days = differenceInCalendarDays(new Date(`${due}T12:00:00`), from);
  let working = 0;
  for (let i = 0; i <= days; i++) if (!isWeekend(addDays(from, i))) working++;
  return working * hours * 60;
}

/** @param now milliseconds since 1970 */
export function spentOf(state: JobState, tasks: readonly Task[], settings: Settings, now: number): Spent {
  const draft = billDraft(state, tasks, settings, now);
  const billed = sumOf(standingBills(state).map((b) => b.sum.total));
  const spent = sumOf([billed, draft.sum.total]);
  const open = tasks.filter((t) => t.state === "open" && t.agreed !== "declined");
  const rest = open.flatMap((t) => taskLines({ ...t, estimate: Math.max(0, t.estimate - t.worked) }, settings.money));
  // Taxes of both together, so that the sum is that of the bill to come.
  const all = sumOf([billed, moneySum([...draft.lines, ...rest], settings.money).total]);
  const limit = state.brief?.spendingLimit;
  const due = state.brief?.dueDate;
  const openMinutes = open.reduce((sum, t) => sum + Math.max(0, t.estimate - t.worked), 0);
  const today = format(new Date(now), "yyyy-MM-dd");
  const minutesLeft = due === undefined ? undefined : benchMinutes(today, due, settings.money.benchHours);
  const warnings: Spent["warnings"] = [];
  const money = (amount: number) => formatMoney(amount, settings);
  if (limit !== undefined) {
    if (spent > limit) warnings.push({ says: texts.limitPassed(money(spent), money(limit)), passed: true });
    else if (all > limit) warnings.push({ says: texts.limitAhead(money(all), money(limit)), passed: false });
    else if (spent > NEAR * limit) warnings.push({ says: texts.limitNear(money(sumOf([limit, -spent])), money(limit)), passed: false });
  }
  if (due !== undefined && state.returned === undefined) {
    if (due < today) warnings.push({ says: texts.duePassed(due), passed: true });
    else if (openMinutes > minutesLeft!)
      warnings.push({ says: texts.dueTooSoon(formatDuration(openMinutes * 60), formatDuration(minutesLeft! * 60), due), passed: false });
  }
  return {
    spent,
    all,
    ...(limit === undefined ? {} : { limit }),
    openMinutes,
    ...(minutesLeft === undefined ? {} : { minutesLeft }),
    warnings,
  };
}
