/**
 * One door for every line: what may be logged now, by whom. A dialog asks it to show a reason before a key is pressed, the entry line
 * before it logs, and the server last, in the transaction that stores the line.
 */

import { answerRefusedTo, refusedTo } from "../shop/people";
import { is, type JobEvent } from "../tape/events/event";
import type { EventType } from "../tape/events/registry";
import { impossible, isReason, type JobNow, type Line, type Refusal, type Rule, type Writer } from "./refusal";
import { RULES } from "./table";
import * as texts from "../texts/allowed";

export type { JobNow, Line, Refusal, Writer } from "./refusal";

/** Milliseconds before a job was opened of which its tape may still tell: what was noted on paper first. */
const BEFORE_OPENING = 31 * 24 * 3600e3;

/** Why a line may not be logged on this job now; undefined where it may. */
export function allowed(job: JobNow, line: Line, who: Writer): Refusal | undefined {
  const struck = line.supersedes === undefined ? undefined : job.tape[line.supersedes - 1];
  const rule = ruleOf(line.type);
  return (
    ofRole(job, line, who) ??
    ofTime(job, who) ??
    (line.supersedes !== undefined && line.reason?.trim() && !isReason(line.reason)
      ? impossible(texts.reasonWanted(), "reason")
      : undefined) ??
    (struck && ruleOf(struck.type)?.takeBack?.(struck, job, who, line)) ??
    rule?.may?.(line, job, who)
  );
}

/** None of what stands for a line that cannot be read. */
const ruleOf = (type: EventType): Rule<EventType> | undefined => (RULES as Partial<Record<EventType, Rule<EventType>>>)[type];

function ofTime({ tape }: JobNow, { at }: Writer): Refusal | undefined {
  // Of the lines as they are: asked of every line, it must not cost a fold.
  const first = tape.find((e) => e.type === "job-opened");
  const opened = first && Date.parse(first.at);
  return opened !== undefined && at < opened - BEFORE_OPENING ? impossible(texts.longBeforeOpening(), "at") : undefined;
}

/** What a role may not log it may neither strike, correct, restore nor answer. */
function ofRole(job: JobNow, line: Line, { role }: Writer): Refusal | undefined {
  if (role === undefined) return undefined;
  const touched = [line, ...touchedBy(job.tape, line.supersedes)];
  const asked = touched.flatMap((l) => (l.type === "approval" ? touchedBy(job.tape, (l.payload as { asks?: number } | null)?.asks) : []));
  const says = touched.map((l) => refusedTo(role, l)).find(Boolean) ?? answerRefusedTo(role, asked);
  return says ? { status: 403, says } : undefined;
}

/** A line with all that it corrects, takes back or restores, and with all that corrects any of them. */
function touchedBy(tape: readonly JobEvent[], line: number | undefined): JobEvent[] {
  const found = new Set<JobEvent>();
  const add = (seq: number | undefined) => {
    const e = seq === undefined ? undefined : tape[seq - 1];
    if (!e || found.has(e)) return;
    found.add(e);
    add(e.supersedes);
    for (const other of tape) if (other.supersedes === e.seq) add(other.seq);
    // A question is asked again by another: their chains hang together by what they answer.
    if (is(e, "approval")) add(e.payload.asks);
  };
  add(line);
  return [...found];
}
