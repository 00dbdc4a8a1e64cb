/** Lines that supersede: a correction with its reason, an undo. */

import { formatQuantity } from "../quantity/format";
import { parseQuantity } from "../quantity/parse";
import { READING_KINDS } from "../tape/events/words";
import { latestReading } from "../tape/fold";
import { readingProblem } from "../tape/reading-limits";
import { type Entry, type EntryContext, KIND_UNIT, no, yes } from "./context";
import * as texts from "../texts/entry";

export function readCorrect(rest: string, ctx: EntryContext): Entry {
  const [name = "", typed = "", ...why] = rest.split(" ");
  const kind = READING_KINDS.find((k) => latestReading(ctx.state, name, k));
  const old = kind && latestReading(ctx.state, name, kind);
  if (!old || !kind)
    return no(texts.correct(rest), name ? texts.thereNoReadingCorrect(name) : texts.nothingNamed(), texts.correctMisreadRange());
  if (why.length === 0)
    return no(texts.correct(rest), texts.correctionNeedsReasonStays(), texts.correctMisreadRange2(name, typed || "305"));
  const parsed = parseQuantity(typed, { unit: KIND_UNIT[kind], decimal: ctx.decimal });
  if (!parsed.ok) return no(typed, parsed.why, parsed.accepted);
  const problem = readingProblem(kind, parsed.quantity.value);
  if (problem) return no(typed, problem.replace(/; accepted.*/, ""), problem.replace(/.*accepted: /, ""));
  return yes(
    texts.correctedFrom(
      old.point,
      formatQuantity(old.value, KIND_UNIT[kind], Math.max(3, old.digits ?? 3)),
      parsed.quantity.echo,
      why.join(" "),
    ),
    {
      type: "reading",
      supersedes: old.seq,
      reason: why.join(" "),
      payload: { point: old.point, kind, value: parsed.quantity.value, digits: parsed.quantity.digits, conditions: old.conditions },
    },
  );
}

export function readUndo(rest: string, ctx: EntryContext): Entry {
  const last = ctx.state.lines.findLast((l) => l.effective && l.event.type !== "undo" && l.event.type !== "job-opened");
  if (!last) return no("undo", texts.thereNothingUndo(), texts.lineTapeFirst());
  return yes(texts.undoLine(last.event.seq), { type: "undo", supersedes: last.event.seq, reason: rest || "undone", payload: {} });
}
