/** The first page of the owner's report: what it was, what was done, what it does now, in sentences. */

import { findElement } from "../circuit/circuit";
import { partWords } from "../circuit/part-place";
import { formatQuantity } from "../quantity/format";
import type { Settings } from "../shop/settings";
import { mentions } from "../repair/mentions";
import { isFitted } from "../tape/fold";
import { rootOf } from "../tape/line-root";
import { safetyTestsFor } from "../safety/end-of-job-tests";
import type { JobView } from "../job/job-view";
import * as texts from "../texts/papers";
import { alternating, saysRipple } from "./alternating";
import type { BeforeAfter } from "./before-after";

export interface ReportFront {
  /** Why the amp is not to be used; empty where every safety test passed and no danger is open. */
  warning: string[];
  was: string[];
  did: string[];
  now: string[];
}

/** More parts than this are counted by kind: the page is for the owner. */
const MOST_NAMED = 8;

const ending = (text: string) => text.replace(/[.\s]+$/, "");

export function reportFront(view: JobView, voltages: readonly BeforeAfter[], settings: Settings): ReportFront {
  return { warning: notToBeUsed(view, settings), was: wasIt(view), did: didDo(view), now: doesNow(view, voltages, settings) };
}

/** What stands above everything: a safety test that failed or was not done, a danger that is open. */
export function notToBeUsed({ state }: JobView, settings: Settings): string[] {
  const tests = safetyTestsFor(settings);
  const name = (t: { name: string }) => t.name.toLowerCase();
  const failed = tests.filter((t) => state.safetyTests.get(t.test)?.passed === false);
  const left = tests.filter((t) => !state.safetyTests.has(t.test));
  const dangers = state.findings.filter((f) => f.severity === "danger" && f.closed === undefined);
  return [
    ...failed.map((t) => texts.doNotUseFailed(name(t))),
    ...dangers.map((f) => texts.doNotUseDanger(f.place, ending(f.text))),
    ...(left.length === tests.length ? [texts.doNotUseUntested()] : left.length > 0 ? [texts.doNotUseLeft(left.map(name).join(", "))] : []),
  ];
}

/** Parts that were renewed because of what they measured or did, and faults that the eye found. */
function wasIt({ state, circuit }: JobView): string[] {
  const parts = state.changes
    .filter((c) => isFitted(c) && (c.oldMeasured || c.reason))
    .map((c) => {
      const e = circuit && findElement(circuit, c.position);
      // "was leaky" and "leaky" is one thing said twice.
      const said = c.oldMeasured !== undefined && c.reason?.toLowerCase().includes(c.oldMeasured.toLowerCase());
      const why = [c.reason, c.oldMeasured && !said && texts.measured(c.oldMeasured)].filter(Boolean).join("; ");
      return { position: c.position, says: texts.wasPart(named(e ? partWords(e) : c.position), ending(why)) };
    });
  const found = state.findings
    .filter((f) => (f.severity === "danger" || f.severity === "fault") && !parts.some((p) => mentions(f.place, p.position)))
    .map((f) => texts.wasFault(f.place, ending(f.text)));
  return [...new Set([...found, ...parts.map((p) => p.says)])];
}

/** "Resistor R9, 56 kΩ": the owner need not know what an R is. */
function named(part: string): string {
  const kind = KIND[part.charAt(0)]?.[0];
  return kind && /^[A-Z]\d/.test(part) ? `${kind.charAt(0).toUpperCase()}${kind.slice(1)} ${part}` : part;
}

function didDo({ state }: JobView): string[] {
  const fitted = state.changes.filter(isFitted);
  const named =
    fitted.length <= MOST_NAMED
      ? fitted.map((c) => (c.kind === "repair" ? texts.didRepair(c.position, ending(c.newPart)) : texts.didFit(c.position, c.newPart)))
      : [texts.didFitMany(fitted.length, counted(fitted.map((c) => c.position)))];
  const back = state.changes.filter((c) => c.outcome === "reverted").length;
  const kept = state.reforms.flatMap((r) => r.turns.filter((t) => t.result === "keep").map((t) => t.part ?? ""));
  // What was ticked off as done without a part: it is billed, so it is told.
  const byTask = state.planned
    .filter((p) => p.ended?.how === "done" && !fitted.some((c) => c.planned !== undefined && rootOf(state, c.planned) === p.root))
    .map((p) => (p.ended!.nothingChanged ? texts.didWithoutPart(p.position, ending(p.what)) : texts.didRepair(p.position, ending(p.what))));
  return [
    ...named,
    ...byTask,
    ...(kept.length > 0 ? [texts.didReform([...new Set(kept)].filter(Boolean).join(", "))] : []),
    ...(state.boardsCleaned.length > 0 ? [texts.didClean()] : []),
    ...(state.biases.some((b) => b.when === "after") ? [texts.didBias()] : []),
    ...(back === 1 ? [texts.didTryOne()] : back > 1 ? [texts.didTry(back)] : []),
  ];
}

const KIND: Record<string, [one: string, many: string]> = {
  C: ["capacitor", "capacitors"],
  R: ["resistor", "resistors"],
  V: ["tube", "tubes"],
  D: ["diode", "diodes"],
};

/** "14 capacitors, 2 resistors, mains cord". */
function counted(positions: readonly string[]): string {
  const letters = new Map<string, number>();
  const others: string[] = [];
  for (const p of positions) {
    const letter = /^[A-Z]\d/i.test(p) ? p.charAt(0).toUpperCase() : "";
    if (KIND[letter]) letters.set(letter, (letters.get(letter) ?? 0) + 1);
    else others.push(p);
  }
  return [...[...letters].map(([letter, n]) => `${n} ${KIND[letter]![n === 1 ? 0 : 1]}`), ...others].join(", ");
}

function doesNow({ state }: JobView, voltages: readonly BeforeAfter[], settings: Settings): string[] {
  const again = state.reproductions.findLast((r) => r.run === "prove")?.reproduced;
  const read = voltages.filter((v) => v.after && v.after.verdict !== "none");
  const tests = safetyTestsFor(settings);
  const passed = tests.filter((t) => state.safetyTests.get(t.test)?.passed).length;
  const power = state.signalFigures.findLast((f) => f.kind === "power at clip" && f.value !== undefined);
  const soak = state.soaks.at(-1)?.ended;
  return [
    ...(again === "no" ? [texts.nowSame()] : again === "yes" ? [texts.nowStill()] : again === "sometimes" ? [texts.nowSometimes()] : []),
    ...(soak?.outcome === "cured" ? [texts.nowSoak("")] : []),
    ...(read.length > 0 ? [texts.nowVolts(read.filter((v) => v.after!.verdict === "in").length, read.length)] : []),
    ...saysRipple(alternating(state)),
    ...(power ? [texts.nowPower(formatQuantity(power.value!, "W", 2))] : []),
    ...(state.safetyTests.size > 0 ? [texts.nowSafety(passed, tests.length)] : []),
  ];
}
