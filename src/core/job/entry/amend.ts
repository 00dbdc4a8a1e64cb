/** Lines that supersede: a correction with its reason, an undo. */

import { formatQuantity } from "../../quantity/format";
import { parseQuantity } from "../../quantity/parse";
import { READING_KINDS } from "../events/words";
import { latestReading } from "../fold";
import { readingProblem } from "../reading-limits";
import { type Entry, type EntryContext, KIND_UNIT, no, yes } from "./context";

export function readCorrect(rest: string, ctx: EntryContext): Entry {
  const [name = "", typed = "", ...why] = rest.split(" ");
  const kind = READING_KINDS.find((k) => latestReading(ctx.state, name, k));
  const old = kind && latestReading(ctx.state, name, kind);
  if (!old || !kind)
    return no(`correct ${rest}`, name ? `there is no reading of ${name} to correct` : "nothing named", "correct B1 305 misread the range");
  if (why.length === 0)
    return no(
      `correct ${rest}`,
      "a correction needs its reason: it stays on the tape",
      `correct ${name} ${typed || "305"} misread the range`,
    );
  const parsed = parseQuantity(typed, { unit: KIND_UNIT[kind], decimal: ctx.decimal });
  if (!parsed.ok) return no(typed, parsed.why, parsed.accepted);
  const problem = readingProblem(kind, parsed.quantity.value);
  if (problem) return no(typed, problem.replace(/; accepted.*/, ""), problem.replace(/.*accepted: /, ""));
  return yes(
    `${old.point} corrected from ${formatQuantity(old.value, KIND_UNIT[kind], Math.max(3, old.digits ?? 3))} to ${parsed.quantity.echo}: ${why.join(" ")}`,
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
  if (!last) return no("undo", "there is nothing to undo", "a line on the tape first");
  return yes(`Undo line ${last.event.seq}`, { type: "undo", supersedes: last.event.seq, reason: rest || "undone", payload: {} });
}
