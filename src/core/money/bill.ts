/** The bill from what was done, held against what was agreed: every difference is explained. */

import { formatDuration } from "../quantity/format";
import type { Settings } from "../shop/settings";
import type { Bill, MoneyLine } from "../tape/events/money-events";
import { isFitted, rootOf, type JobState } from "../tape/fold";
import { questionsOf, type Question } from "../work/questions";
import type { Task } from "../work/tasks";
import { minutesWorked } from "../work/time";
import * as texts from "../texts/money";
import { sumOf } from "./amount";
import { billedMinutes, fixedLine, labourLine, partLine } from "./price";
import { moneySum } from "./sum";

export type BillDraft = Pick<Bill, "lines" | "sum" | "differences" | "paid"> & {
  /** Total less what was paid and not used up by an earlier bill. */
  due: number;
  /** The quote that it is held against: its line. */
  quote?: number;
};

/** Of a day, or of a moment: "2026-03-02". */
const dayOf = (iso: string) => iso.slice(0, 10);
const answeredOn = (q: Question) => q.answer?.on ?? dayOf(q.answer?.at ?? q.at);
/** Longer than it was quoted for by more than this part is worth a sentence. */
const WORTH_SAYING = 0.1;

/** Bills that stand. */
export const standingBills = (state: Pick<JobState, "bills">) => state.bills.filter((b) => !b.cancelled);

/** What was paid, less what was paid back. */
export const paidSoFar = (state: Pick<JobState, "payments">): number => sumOf(state.payments.map((p) => p.amount));

/** What the owner still owes on the bills that stand; below zero when they have paid too much. */
export const owed = (state: Pick<JobState, "bills" | "payments">): number =>
  sumOf([...standingBills(state).map((b) => b.sum.total), -paidSoFar(state)]);

/**
 * What can be billed now. What stands on an earlier bill that was not cancelled is not billed again.
 * Of the quote that was accepted last, the lines of tasks that are done are billed as quoted; questions that were answered with yes and a
 * cost, as answered; changes, tasks and time beyond both, by the shop's rates. What the owner did not agree to is named and not charged.
 * @param tasks of the job (`tasksOf`). @param now milliseconds since 1970
 */
export function billDraft(state: JobState, tasks: readonly Task[], settings: Pick<Settings, "money">, now: number): BillDraft {
  const rates = settings.money;
  const questions = questionsOf(state);
  const accepted = questions.findLast((q) => q.kind === "quote" && q.option && (q.stands === "yes" || q.stands === "part"));
  const lines: MoneyLine[] = [];
  const differences: string[] = [];
  const task = (root: number | undefined) => tasks.find((t) => t.root === root);
  const rootOfLine = (l: MoneyLine) => (l.planned === undefined ? undefined : rootOf(state, l.planned));
  const settled = new Set<number>();

  if (accepted?.option) {
    const declined = new Set(accepted.stands === "part" ? (accepted.answer?.declined ?? []) : []);
    accepted.option.lines.forEach((l, i) => {
      const t = task(rootOfLine(l));
      const label = l.text;
      if (t) settled.add(t.root);
      if (declined.has(i)) differences.push(texts.lineDeclined(label, answeredOn(accepted)));
      else if (!t || t.state === "done") lines.push(l);
      else
        differences.push(t.state === "left out" ? texts.taskLeftOut(label, t.ended?.why ? `: ${t.ended.why}` : "") : texts.taskOpen(label));
      if (t?.state === "done" && l.kind === "labour" && l.minutes && t.worked > l.minutes * (1 + WORTH_SAYING))
        differences.push(texts.tookLonger(t.name, formatDuration(t.worked * 60), formatDuration(l.minutes * 60)));
      const fitted = t && state.changes.find((c) => isFitted(c) && c.planned !== undefined && rootOf(state, c.planned) === t.root);
      if (fitted && l.kind === "parts" && !declined.has(i) && !l.text.startsWith(fitted.newPart))
        differences.push(texts.otherPart(fitted.position, fitted.newPart, l.text));
    });
    // A task that was declined whole and done all the same is beyond what was agreed.
    for (const root of accepted.declined) settled.delete(root);
  }
  const quoteTaken = questions.findLast((q) => q.kind === "quote" && q.stands === "revoked");
  /** Changes that a question with a price pays for, by root. */
  const paidFor = new Set<number>();
  for (const q of questions) {
    if (q.kind === "quote" || !q.cost || !q.answer) continue;
    const about = (q.asked?.planned ?? []).map((p) => rootOf(state, p));
    if (about.length > 0 && about.every((r) => settled.has(r))) continue;
    const own = changesOf(state, q, about);
    const done = [...own.map((c) => c.seq), ...tasks.filter((t) => about.includes(t.root) && t.state === "done").map((t) => t.doneBy!)];
    const agreed = q.stands === "yes" || q.stands === "part";
    // What was done before the owner took the yes back was done with it.
    const before = q.stands === "revoked" && done.some((seq) => seq < q.answer!.seq);
    if (agreed && done.length === 0) differences.push(texts.taskOpen(q.what));
    if (done.length === 0 || !(agreed || before)) continue;
    about.forEach((r) => settled.add(r));
    for (const c of own) {
      paidFor.add(rootOf(state, c.seq));
      // The time on their tasks is in the price that was agreed.
      if (c.planned !== undefined) settled.add(rootOf(state, c.planned));
    }
    lines.push({ ...fixedLine(q.asked?.options?.[q.answer.option ?? -1]?.name ?? q.what, q.cost), key: `line ${q.line}` });
    if (before) differences.push(texts.takenBackAfter(q.what, answeredOn(q)));
    else if (accepted) differences.push(texts.addedLater(q.what, answeredOn(q)));
  }

  const quotedLabour = new Set(settled);
  for (const c of state.changes) {
    const root = c.planned === undefined ? undefined : rootOf(state, c.planned);
    if (!isFitted(c) || paidFor.has(rootOf(state, c.seq)) || (root !== undefined && settled.has(root))) continue;
    const text = texts.partFor(c.newPart, c.position);
    if (c.unagreed) {
      differences.push(texts.doneUnagreed(text, c.unagreed));
      if (root !== undefined) quotedLabour.add(root);
      continue;
    }
    const withdrawn = quoteTaken?.declined.includes(root ?? -1);
    if (withdrawn) differences.push(texts.takenBackAfter(text, answeredOn(quoteTaken!)));
    const planned = task(root)?.parts ?? [];
    // Several parts of one task: what was planned is what it cost, where the change does not say it.
    const cost = c.cost ?? (planned.length > 0 ? sumOf(planned.map((p) => (p.cost ?? 0) * p.pieces)) : undefined);
    if (c.kind === "replacement" || c.cost !== undefined) {
      lines.push({ ...partLine(text, 1, cost ?? 0, rates), key: `change ${rootOf(state, c.seq)}` });
      if (cost === undefined) differences.push(texts.noPriceKnown(text));
    }
  }
  const worked = minutesWorked(state, now);
  const before = standingBills(state);
  for (const t of tasks) {
    if (quotedLabour.has(t.root)) continue;
    const minutes = worked.get(t.root) ?? 0;
    if (t.fixedPrice !== undefined && t.state === "done")
      lines.push({ ...fixedLine(t.name, t.fixedPrice), key: `planned ${t.root} labour` });
    else if (minutes > 0 && t.fixedPrice === undefined)
      lines.push({ ...labourLine(t.name, minutes, rates), key: `planned ${t.root} labour` });
  }
  // Where a price was agreed for the whole, time that is on no task is part of it.
  const loose = worked.get(undefined) ?? 0;
  const looseBilled = before.flatMap((b) => b.lines.filter((l) => l.key === "loose time")).reduce((s, l) => s + (l.minutes ?? 0), 0);
  const looseLeft = billedMinutes(loose, rates.stepMinutes) - looseBilled;
  if (!accepted && looseLeft > 0) lines.push({ ...labourLine(texts.benchTime(), looseLeft, rates), key: "loose time" });
  for (const l of state.bill)
    lines.push({ text: l.text, kind: l.kind, pieces: 1, price: l.amount, amount: l.amount, key: `line ${rootOf(state, l.seq)}` });

  if (!accepted && lines.length > 0)
    differences.unshift(questions.some((q) => q.kind === "quote" && q.stands === "asked") ? texts.nothingAgreed() : texts.withoutQuote());
  const billed = new Map(
    before.flatMap((b) => b.lines.flatMap((l) => (l.key && l.key !== "loose time" ? [[l.key, b.number] as const] : []))),
  );
  const fresh = lines.filter((l) => !l.key || !billed.has(l.key));
  for (const bill of before) {
    const count = lines.filter((l) => l.key && billed.get(l.key) === bill.number).length;
    if (count > 0 && fresh.length > 0) differences.push(texts.onEarlierBill(count, bill.number));
  }
  const sum = moneySum(fresh, rates);
  // What earlier bills have used up is no longer there for this one.
  const paid = Math.max(0, sumOf([paidSoFar(state), ...before.map((b) => -b.sum.total)]));
  // Where everything stands on a bill already there is nothing left to explain.
  return {
    lines: fresh,
    sum,
    differences: fresh.length === 0 && before.length > 0 ? [] : differences,
    paid,
    due: sumOf([sum.total, -paid]),
    ...(accepted ? { quote: accepted.line } : {}),
  };
}

/** The changes that stand of the tasks that a question is about; of one that names no task, those whose position it speaks of. */
const changesOf = (state: JobState, q: Question, about: readonly number[]) =>
  state.changes.filter(
    (c) =>
      isFitted(c) &&
      (about.length > 0
        ? c.planned !== undefined && about.includes(rootOf(state, c.planned))
        : q.what.toLowerCase().includes(c.position.toLowerCase())),
  );

/** The number of the next bill of a job: "1004-2". */
export const billNumber = (job: number, state: Pick<JobState, "bills">): string => `${job}-${state.bills.length + 1}`;
