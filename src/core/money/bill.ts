/** The bill from what was done, held against what was agreed: every difference is explained. */

import { formatDuration } from "../quantity/format";
import { shopDay } from "../shop/day";
import type { Settings } from "../shop/settings";
import type { Bill, MoneyLine } from "../tape/events/money-events";
import { isFitted, type JobState } from "../tape/fold";
import { rootOf } from "../tape/line-root";
import { mentions } from "../repair/mentions";
import { questionsOf, type Question } from "../repair/questions";
import type { Task } from "../repair/tasks";
import { minutesWorked } from "../repair/time";
import * as texts from "../texts/money";
import { formatMoney, sumOf, type MoneyForm } from "./amount";
import { billedMinutes, fixedLine, labourLine, partLine, partPrice } from "./price";
import { moneySum } from "./sum";

export type BillDraft = Pick<Bill, "lines" | "sum" | "differences" | "paid"> & {
  /** Total less what was paid and not used up by an earlier bill. */
  due: number;
  /** The quote that it is held against: its line. */
  quote?: number;
};

/** The day at the shop on which a question was answered: as somebody said, else as it was noted. */
const answeredOn = (q: Question, timeZone: string) => q.answer?.on ?? shopDay(q.answer?.at ?? q.at, timeZone);
/** Longer than it was quoted for by more than this part is worth a sentence. */
const WORTH_SAYING = 0.1;
/** Characters of a line of a bill. */
const MOST_TEXT = 300;

/** Bills that stand. */
export const standingBills = (state: Pick<JobState, "bills">) => state.bills.filter((b) => !b.cancelled);

/** What was paid, less what was paid back. */
export const paidSoFar = (state: Pick<JobState, "payments">): number => sumOf(state.payments.map((p) => p.amount));

/** What the owner still owes on the bills that stand; below zero when they have paid too much. */
export const owed = (state: Pick<JobState, "bills" | "payments">): number =>
  sumOf([...standingBills(state).map((b) => b.sum.total), -paidSoFar(state)]);

/**
 * What can be billed now; what stands on an earlier bill that was not cancelled is not billed again.
 * The lines of quotes whose tasks are done are billed as quoted (of several quotes that hold a task the last one counts); questions that
 * were answered with yes and a cost, as answered; changes and time beyond both, by the shop's rates. A yes that was taken back holds for
 * what was done before. What the owner did not agree to is named and not charged.
 * @param tasks of the job (`tasksOf`). @param now milliseconds since 1970
 */
export function billDraft(state: JobState, tasks: readonly Task[], settings: MoneySettings, now: number): BillDraft {
  const rates = settings.money;
  const questions = questionsOf(state);
  const before = standingBills(state);
  const agreed = quotedLines(state, tasks, questions, settings.timeZone);
  const asked = askedLines(state, tasks, questions, agreed, settings.timeZone);
  const byRate = rateLines(state, tasks, settings, now, agreed, asked, before);
  const byHand = state.bill.map((l): MoneyLine => ({
    ...{ text: l.text, kind: l.kind, pieces: 1, price: l.amount, amount: l.amount },
    key: `line ${rootOf(state, l.seq)}`,
  }));

  const once = [...agreed.lines, ...asked.lines, ...byRate.once, ...byHand];
  const billed = new Map(before.flatMap((bill) => bill.lines.flatMap((l) => (l.key ? [[l.key, bill.number] as const] : []))));
  const isBilled = (l: MoneyLine) => l.key !== undefined && billed.has(l.key);
  const fresh = once.filter((l) => !isBilled(l));
  // What was typed by hand stands last, as it was added.
  const last = fresh.filter((l) => byHand.includes(l));
  const lines = [...fresh.filter((l) => !last.includes(l)), ...byRate.labour, ...last];
  const differences = [...agreed.differences, ...asked.differences, ...byRate.differences];
  if (agreed.quote === undefined && lines.length > 0) differences.unshift(noQuoteAgreed(questions));
  for (const bill of before) {
    const count = once.filter((l) => isBilled(l) && billed.get(l.key!) === bill.number).length;
    if (count > 0 && lines.length > 0) differences.push(texts.onEarlierBill(count, bill.number));
  }
  const sum = moneySum(lines, rates);
  // What earlier bills have used up is no longer there for this one.
  const paid = Math.max(0, sumOf([paidSoFar(state), ...before.map((b) => -b.sum.total)]));
  return {
    lines,
    sum,
    // Where everything stands on a bill already, what those bills have explained needs no saying again.
    differences: lines.length > 0 ? differences : differences.filter((d) => !before.some((b) => b.differences.includes(d))),
    paid,
    due: sumOf([sum.total, -paid]),
    ...(agreed.quote === undefined ? {} : { quote: agreed.quote }),
  };
}

/** What prices are worked out by, and amounts in sentences written by. */
type MoneySettings = MoneyForm & Pick<Settings, "money" | "timeZone">;

interface Part {
  lines: MoneyLine[];
  differences: string[];
  /** Tasks whose price is settled, by root. */
  settled: Set<number>;
}

/** What a quote settles: whole tasks, and of tasks that were declined in part the labour that was agreed to or declined by itself. */
interface Quoted extends Part {
  labourSettled: Set<number>;
  quote?: number;
}

/** Work of a task, not a part for it. */
const isWork = (l: MoneyLine) => l.kind === "labour" || l.kind === "fixed price";

/** Why no quote stands behind a bill. */
function noQuoteAgreed(questions: readonly Question[]): string {
  const quotes = questions.filter((q) => q.kind === "quote");
  if (quotes.some((q) => q.stands === "asked")) return texts.nothingAgreed();
  if (quotes.some((q) => q.stands === "revoked")) return texts.quoteTakenBack();
  return quotes.some((q) => q.stands === "no") ? texts.quoteDeclined() : texts.withoutQuote();
}

/** Lines of the quotes, the last that holds a task first. */
function quotedLines(state: JobState, tasks: readonly Task[], questions: readonly Question[], timeZone: string): Quoted {
  const out: Quoted = { lines: [], differences: [], settled: new Set(), labourSettled: new Set() };
  const quotes = questions.filter((q) => q.kind === "quote" && (q.option || q.before)).reverse();
  for (const q of quotes) {
    const answer = q.before ?? q.answer!;
    const option = q.option ?? q.quote!.options[answer.option ?? 0];
    const declined = new Set(answer.answer === "part" ? (answer.declined ?? []) : []);
    const here = new Set<number>();
    option?.lines.forEach((l, i) => {
      const t = l.planned === undefined ? undefined : tasks.find((each) => each.root === rootOf(state, l.planned!));
      if (t && out.settled.has(t.root) && !here.has(t.root)) return;
      const done = t?.state === "done" && (!q.before || (t.doneBy ?? Infinity) < q.answer!.seq);
      // What was not done before the yes was taken back is as if it had never been quoted.
      if (q.before && !done) return;
      if (t) {
        out.settled.add(t.root);
        here.add(t.root);
        if (isWork(l)) out.labourSettled.add(t.root);
        if (isWork(l) && declined.has(i) && t.worked > 0)
          out.differences.push(texts.workedThoughDeclined(t.name, formatDuration(t.worked * 60)));
      }
      if (declined.has(i)) out.differences.push(texts.lineDeclined(l.text, answer.on ?? shopDay(answer.at, timeZone)));
      else if (done && l.kind === "parts" && t.ended?.nothingChanged) out.differences.push(texts.partNotFitted(l.text));
      else if (!t || done) out.lines.push(l);
      else
        out.differences.push(
          t.state === "left out" ? texts.taskLeftOut(l.text, t.ended?.why ? `: ${t.ended.why}` : "") : texts.taskOpen(l.text),
        );
      if (q.before && !declined.has(i)) out.differences.push(texts.takenBackAfter(l.text, answeredOn(q, timeZone)));
      if (t && done) out.differences.push(...unlikeQuoted(state, t, l, declined.has(i)));
    });
    // What was declined of a task and done all the same is beyond what was agreed. Its labour is settled by its own line.
    if (!q.before) for (const root of q.declined) out.settled.delete(root);
  }
  const quote = quotes.find((q) => q.option)?.line;
  return { ...out, ...(quote === undefined ? {} : { quote }) };
}

/** A task that took longer than it was quoted for, or was done with another part: billed as quoted, and said. */
function unlikeQuoted(state: JobState, t: Task, l: MoneyLine, declined: boolean): string[] {
  const out: string[] = [];
  if (l.kind === "labour" && l.minutes && t.worked > l.minutes * (1 + WORTH_SAYING))
    out.push(texts.tookLonger(t.name, formatDuration(t.worked * 60), formatDuration(l.minutes * 60)));
  const fitted = state.changes.find((c) => isFitted(c) && c.planned !== undefined && rootOf(state, c.planned) === t.root);
  if (fitted && l.kind === "parts" && !declined && !l.text.startsWith(fitted.newPart))
    out.push(texts.otherPart(fitted.position, fitted.newPart, l.text));
  return out;
}

/** Questions with a price that were answered with yes, once what they are about is done. */
function askedLines(
  state: JobState,
  tasks: readonly Task[],
  questions: readonly Question[],
  { settled: quoted, quote }: Pick<Quoted, "settled" | "quote">,
  timeZone: string,
): Part & { paidFor: Set<number> } {
  const hasQuote = quote !== undefined;
  const out = { lines: [] as MoneyLine[], differences: [] as string[], settled: new Set(quoted), paidFor: new Set<number>() };
  for (const q of questions) {
    if (q.kind === "quote" || !q.cost || !q.answer) continue;
    const about = (q.asked?.planned ?? []).map((p) => rootOf(state, p));
    if (about.length > 0 && about.every((r) => out.settled.has(r))) continue;
    const own = changesOf(state, q, about);
    const done = [...own.map((c) => c.seq), ...tasks.filter((t) => about.includes(t.root) && t.state === "done").map((t) => t.doneBy!)];
    const agreed = q.stands === "yes" || q.stands === "part";
    // What was done before the owner took the yes back was done with it.
    const tookBack = q.before !== undefined && done.some((seq) => seq < q.answer!.seq);
    if (agreed && done.length === 0) out.differences.push(texts.taskOpen(q.what));
    if (done.length === 0 || !(agreed || tookBack)) continue;
    about.forEach((r) => out.settled.add(r));
    for (const c of own) {
      out.paidFor.add(rootOf(state, c.seq));
      // The time on their tasks is in the price that was agreed.
      if (c.planned !== undefined) out.settled.add(rootOf(state, c.planned));
    }
    const way = q.asked?.options?.[(q.before ?? q.answer).option ?? -1]?.name;
    out.lines.push({ ...fixedLine(way ?? q.what, q.cost), key: `line ${q.line}` });
    if (tookBack) out.differences.push(texts.takenBackAfter(q.what, answeredOn(q, timeZone)));
    else if (hasQuote) out.differences.push(texts.addedLater(q.what, answeredOn(q, timeZone)));
  }
  return out;
}

/** Parts and time by the shop's rates. Labour goes on after a bill: what came on top of what stands there is billed next. */
function rateLines(
  state: JobState,
  tasks: readonly Task[],
  settings: MoneySettings,
  now: number,
  { quote, labourSettled, ...quoted }: Quoted,
  { settled, paidFor }: Pick<ReturnType<typeof askedLines>, "settled" | "paidFor">,
  before: readonly Bill[],
): { once: MoneyLine[]; labour: MoneyLine[]; differences: string[] } {
  const out = { once: [] as MoneyLine[], labour: [] as MoneyLine[], differences: [] as string[] };
  const rates = settings.money;
  const hasQuote = quote !== undefined;
  const uncharged = new Set(settled);
  const worked = minutesWorked(state, now);
  /** What is billed and stands in no quote that was agreed to. */
  const beyond = new Set<string>();
  /** Minutes on no task that are paid for otherwise, or not at all. */
  let notLoose = 0;
  for (const c of state.changes) {
    const root = c.planned === undefined ? undefined : rootOf(state, c.planned);
    if (!isFitted(c)) continue;
    const inPrice = paidFor.has(rootOf(state, c.seq));
    if (root === undefined && (inPrice || c.unagreed)) notLoose += c.minutes ?? 0;
    if (inPrice) continue;
    // Of a task that was declined in part, its part may be what was agreed to.
    const partAgreed = root !== undefined && quoted.lines.some((l) => l.kind === "parts" && l.planned === root);
    if (root !== undefined && (settled.has(root) || partAgreed)) {
      // Its price is that of the quote or of the answer: a cost of its own that nobody was asked about is not on top of it.
      if (c.cost === undefined && c.kind === "replacement" && !partAgreed)
        out.differences.push(texts.partInPrice(texts.partFor(c.newPart, c.position)));
      if (c.cost !== undefined && !partAgreed)
        out.differences.push(texts.costInPrice(texts.partFor(c.newPart, c.position), formatMoney(partPrice(c.cost, rates), settings)));
      continue;
    }
    if (c.unagreed) {
      out.differences.push(texts.doneUnagreed(texts.partFor(c.newPart, c.position), c.unagreed));
      if (root !== undefined) uncharged.add(root);
      continue;
    }
    if (c.kind !== "replacement" && c.cost === undefined) continue;
    // Where the changes of a task do not say what they cost, the parts that were planned for it are charged: once for all of them.
    const planned = c.cost === undefined ? (tasks.find((t) => t.root === root)?.parts ?? []) : [];
    const together = planned.length > 0 ? state.changes.filter((each) => chargedAsPlanned(state, each, root)) : [c];
    if (together[0] !== c) continue;
    const text = together
      .map((each) => texts.partFor(each.newPart, each.position))
      .join("; ")
      .slice(0, MOST_TEXT);
    if (hasQuote) beyond.add(tasks.find((t) => t.root === root)?.name ?? text);
    const cost = c.cost ?? (planned.length > 0 ? sumOf(planned.map((p) => (p.cost ?? 0) * p.pieces)) : undefined);
    out.once.push({ ...partLine(text, 1, cost ?? 0, rates), key: `change ${rootOf(state, c.seq)}` });
    if (cost === undefined) out.differences.push(texts.noPriceKnown(text));
  }
  const labour = (text: string, minutes: number, key: string) => {
    const there = before.flatMap((b) => b.lines.filter((l) => l.key === key)).reduce((sum, l) => sum + (l.minutes ?? 0), 0);
    const left = billedMinutes(minutes, rates.stepMinutes) - there;
    if (left > 0) out.labour.push({ ...labourLine(text, left, rates), key });
  };
  for (const t of tasks) {
    const key = `planned ${t.root} labour`;
    if (uncharged.has(t.root) || labourSettled.has(t.root)) continue;
    const there = out.once.length + out.labour.length;
    if (t.fixedPrice === undefined) labour(t.name, worked.get(t.root) ?? 0, key);
    else if (t.state === "done") {
      out.once.push({ ...fixedLine(t.name, t.fixedPrice), key });
      if (t.worked > t.estimate * (1 + WORTH_SAYING))
        out.differences.push(texts.tookLongerFixed(t.name, formatDuration(t.worked * 60), formatDuration(t.estimate * 60)));
    } else if (t.worked > 0)
      out.differences.push(t.state === "open" ? texts.taskOpen(t.name) : texts.taskLeftOut(t.name, t.ended?.why ? `: ${t.ended.why}` : ""));
    if (hasQuote && out.once.length + out.labour.length > there) beyond.add(t.name);
  }
  // Where a price was agreed for the whole, time that is on no task is part of it.
  const loose = Math.max(0, (worked.get(undefined) ?? 0) - notLoose);
  if (!hasQuote) labour(texts.benchTime(), loose, "loose time");
  else if (loose > 0) out.differences.push(texts.looseInQuote(formatDuration(loose * 60)));
  for (const name of beyond) out.differences.push(texts.beyondQuote(name));
  return out;
}

/** A part of a task that was fitted as agreed, with no cost of its own. */
const chargedAsPlanned = (state: JobState, c: JobState["changes"][number], task: number | undefined): boolean =>
  isFitted(c) &&
  c.kind === "replacement" &&
  c.cost === undefined &&
  !c.unagreed &&
  c.planned !== undefined &&
  rootOf(state, c.planned) === task;

/** The changes that stand of the tasks that a question is about; of one that names no task, those whose position it speaks of. */
const changesOf = (state: JobState, q: Question, about: readonly number[]) =>
  state.changes.filter(
    (c) =>
      isFitted(c) &&
      (about.length > 0 ? c.planned !== undefined && about.includes(rootOf(state, c.planned)) : mentions(q.what, c.position)),
  );

/** The number of the next bill of a job: "1004-2". */
export const billNumber = (job: number, state: Pick<JobState, "bills">): string => `${job}-${state.bills.length + 1}`;
