/** Lines that supersede: a correction with its reason, an undo. The line that is meant is named by what it says, or by its number. */

import { formatQuantity } from "../quantity/format";
import { parseQuantity } from "../quantity/parse";
import type { ReadingKind } from "../tape/events/words";
import { is, type JobEvent } from "../tape/events/event";
import { readingProblem } from "../tape/reading-limits";
import { lineSpokenOf } from "../tape/references";
import { tellEvent } from "../tape/tell";
import { type Entry, type EntryContext, KIND_UNIT, no, yes } from "./context";
import { KIND_WORD, kindIn } from "./measurement-lines";
import { knownTypes } from "../by-tube/places";
import { placeSaid } from "./places-said";
import * as texts from "../texts/entry";

type Measured = JobEvent<"reading"> | JobEvent<"discharge-reading">;

const placeOf = (e: Measured): string => (is(e, "reading") ? e.payload.point : (e as JobEvent<"discharge-reading">).payload.reservoir);
const valueOf = (e: Measured): number => (is(e, "reading") ? e.payload.value : (e as JobEvent<"discharge-reading">).payload.volts);
const kindOf = (e: Measured): ReadingKind => (is(e, "reading") ? e.payload.kind : "dcv");

/** Standing readings of a place, oldest first. */
const readingsOf = (ctx: EntryContext, name: string, kind?: ReadingKind): Measured[] =>
  ctx.state.effective.filter(
    (e): e is Measured =>
      (is(e, "reading") || is(e, "discharge-reading")) &&
      placeOf(e).toLowerCase() === name.toLowerCase() &&
      (kind === undefined || kindOf(e) === kind),
  );

/** `correct B1 305 misread the range`, `correct R1 ohm 1.02k leads not zeroed`. */
export function readCorrect(rest: string, ctx: EntryContext): Entry {
  const place = placeSaid(rest, ctx.circuit, knownTypes(ctx.state));
  if (!place.ok) return no(texts.correct(rest), place.why, place.accepted);
  const [name = "", ...words] = place.line.split(" ");
  const said = words.length > 1 ? KIND_WORD[words[0]!.toLowerCase()] : undefined;
  const [typed = "", ...why] = said ? words.slice(1) : words;
  const kind = said ?? kindIn(typed).kind;
  const old = readingsOf(ctx, name, kind).at(-1);
  if (!old) return no(texts.correct(rest), name ? texts.thereNoReadingCorrect(name) : texts.nothingNamed(), texts.correctMisreadRange());
  if (why.length === 0)
    return no(texts.correct(rest), texts.correctionNeedsReasonStays(), texts.correctMisreadRange2(name, typed || "305"));
  const unit = KIND_UNIT[kindOf(old)];
  const parsed = parseQuantity(typed, { unit, decimal: ctx.decimal });
  if (!parsed.ok) return no(typed, parsed.why, parsed.accepted);
  const { value: read, digits, echo } = parsed.quantity;
  // Milliamperes are the unit of the bench, as where they were logged.
  const value = kindOf(old) === "ma" && !/^[-−+\d.,]+$/.test(typed) ? read * 1000 : read;
  const problem = readingProblem(kindOf(old), value);
  if (problem) return no(typed, problem.replace(/; accepted.*/, ""), problem.replace(/.*accepted: /, ""));
  const reason = why.join(" ");
  const was = kindOf(old) === "ma" ? valueOf(old) / 1000 : valueOf(old);
  const now = kindOf(old) === "ma" ? formatQuantity(value / 1000, unit, Math.max(2, digits)) : echo;
  return yes(texts.correctedFrom(placeOf(old), formatQuantity(was, unit, 3), now, reason), {
    supersedes: old.seq,
    reason,
    ...(is(old, "reading")
      ? { type: "reading", payload: { ...old.payload, value, digits } }
      : { type: "discharge-reading", payload: { ...(old as JobEvent<"discharge-reading">).payload, volts: value } }),
  });
}

/** `undo`, the last line; `undo B2 343`, `undo line 12`, each perhaps with `because …`. Other words are the reason for the last line. */
export function readUndo(rest: string, ctx: EntryContext): Entry {
  const [, what = "", reason = ""] = /^(.*?)(?:\s*\bbecause\s+(.+))?$/i.exec(rest) ?? [];
  const standing = ctx.state.effective.filter((e) => e.type !== "job-opened");
  const last = standing.at(-1);
  if (!last) return no("undo", texts.thereNothingUndo(), texts.lineTapeFirst());
  const number = /^(?:line\s+)?(\d+)$/i.exec(what)?.[1];
  if (number !== undefined) {
    const line = standing.find((e) => e.seq === Number(number));
    return line ? undo(line, reason, ctx) : no(texts.undo(rest), texts.noStandingLine(Number(number)), texts.undoForms());
  }
  const place = placeSaid(what, ctx.circuit, knownTypes(ctx.state));
  const [name = "", ...words] = (place.ok ? place.line : what).split(" ");
  const said = words.length > 0 ? KIND_WORD[words[0]!.toLowerCase()] : undefined;
  const found = readingsOf(ctx, name, said);
  if (what !== "" && found.length > 0) {
    const typed = (said ? words.slice(1) : words).join("");
    if (typed === "") return undo(found.at(-1)!, reason, ctx);
    const same = found.findLast((e) => isThat(e, typed, ctx));
    return same
      ? undo(same, reason, ctx)
      : no(
          texts.undo(rest),
          texts.noReadingOf(name, typed),
          found
            .slice(-3)
            .map((e) => tellEvent(e))
            .join(", "),
        );
  }
  return undo(last, reason || what, ctx);
}

/** Whether a reading is the value that was typed, to the digits that were typed. */
function isThat(e: Measured, typed: string, ctx: EntryContext): boolean {
  const parsed = parseQuantity(typed, { unit: KIND_UNIT[kindOf(e)], decimal: ctx.decimal });
  if (!parsed.ok) return false;
  const { value, digits } = parsed.quantity;
  const own = valueOf(e);
  const shown = (x: number) => Number(x.toPrecision(Math.max(2, digits)));
  return [value, kindOf(e) === "ma" ? value * 1000 : value].some((v) => shown(own) === shown(v));
}

const undo = (line: JobEvent, reason: string, { state }: EntryContext): Entry =>
  yes(texts.undoLine(tellEvent(line, state.lines[(lineSpokenOf(line) ?? 0) - 1]?.event)), {
    type: "undo",
    supersedes: line.seq,
    reason: reason || "undone",
    payload: {},
  });
