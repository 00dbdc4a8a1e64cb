/** What one job leaves to the shop's memory: kept beside its tape, made anew from it at will. */

import { findElement, type Circuit } from "../circuit/circuit";
import { bookedOf, type Booked } from "../money/bookkeeping";
import { ampAsItIs } from "../tape/amp-as-it-is";
import { isFitted, isIn, type JobState } from "../tape/fold";
import { rootOf } from "../tape/line-root";
import type { JobView } from "../job/job-view";
import { leftAfter } from "../repair/cure";
import { minutesWorked } from "../repair/time";
import { taskKind, type TaskKind } from "../repair/usual-minutes";
import { seriesOf } from "../suspects/series";
import * as texts from "../texts/memory";
import { complaintKinds } from "./complaint";

/** A part that failed or was renewed. */
export interface RememberedPart {
  position: string;
  /** What it was and measured, in words. */
  says: string;
  line: number;
  series?: string;
}

export interface JobDigest {
  complaint: string;
  /** Kinds of complaint (`complaintKinds`). */
  kinds: string[];
  /** Points that were out before anything was changed. */
  signs: Record<string, "low" | "high">;
  /** Whether the complaint is gone: by its own test, by a soak, or by the hand-over. */
  cured: boolean;
  /** What cured it; one alone where putting back has shown it. */
  cures: RememberedPart[];
  /** Whether that was shown by putting back, or is all that was changed. */
  proved: boolean;
  /** Parts that were renewed, whatever for. */
  replaced: RememberedPart[];
  /** Of each series of parts, how many this amp had. */
  had: Record<string, number>;
  /** Volts at each point of an amp that works, with the mains that they were read at. */
  normal: Record<string, { volts: number; mains: number }>;
  /** Whole minutes by kind of task, one figure a task that is done. */
  minutes: Partial<Record<TaskKind, number[]>>;
  /** In all. */
  worked: number;
  booked: Booked;
  /** The part that the job waits for. */
  waits?: { what: string; stock?: number };
}

function seriesHad(circuit: Circuit): Record<string, number> {
  const had: Record<string, number> = {};
  const seen = new Set<string>();
  for (const e of circuit.elements) {
    const series = seriesOf(e);
    // The halves of one envelope are one tube.
    const part = e.tube ? e.name.replace(/[A-D]$/, "") : e.name;
    if (!series || seen.has(part)) continue;
    seen.add(part);
    had[series] = (had[series] ?? 0) + 1;
  }
  return had;
}

/** @param model the circuit of the library, before anything was changed. */
export function digestOf(view: JobView, model: Circuit | undefined): JobDigest {
  const { state } = view;
  const remembered = (c: JobState["changes"][number]): RememberedPart => {
    const e = model && findElement(model, c.position);
    const series = e && seriesOf(e);
    const says = [c.oldPart, c.oldMeasured && texts.measuredWas(c.oldMeasured), c.reason].filter(Boolean).join("; ");
    return {
      position: c.position.trim().toUpperCase(),
      says: says || c.newPart,
      line: rootOf(state, c.seq),
      ...(series ? { series } : {}),
    };
  };
  const fitted = state.changes.filter(isFitted);
  const again = state.reproductions.findLast((r) => r.run === "prove")?.reproduced;
  const gone = again === "no";
  const wrong = state.findings.some((f) => f.closed === undefined && (f.severity === "fault" || f.severity === "danger"));
  // An amp that went home with its fault, because the owner declined the work, cured nothing and is not how they should be.
  const cured = gone || state.soaks.at(-1)?.ended?.outcome === "cured" || (state.returned !== undefined && again === undefined && !wrong);
  const told = curedBy(state);
  const cures = cured ? fitted.filter((c) => !told || rootOf(state, c.seq) === told) : [];
  const minutes: JobDigest["minutes"] = {};
  const worked = minutesWorked(state, Date.parse(state.lastAt ?? "") || 0);
  for (const p of state.planned) {
    const took = worked.get(p.root) ?? 0;
    const done =
      p.ended?.how === "done" || state.changes.some((c) => isFitted(c) && c.planned !== undefined && rootOf(state, c.planned) === p.root);
    if (took > 0 && done) (minutes[taskKind(p)] ??= []).push(took);
  }
  const waits =
    state.waiting?.on === "part"
      ? { what: state.waiting.what ?? "", ...(state.waiting.stock ? { stock: state.waiting.stock } : {}) }
      : undefined;
  return {
    complaint: state.complaint?.words ?? "",
    kinds: complaintKinds(state.complaint?.words ?? "", state.complaint?.when),
    signs: signsOf(view),
    cured,
    cures: cures.map(remembered),
    proved: cures.length > 0 && (told !== undefined || (cures.length === 1 && gone)),
    replaced: state.changes.filter((c) => isIn(c) && c.kind === "replacement").map(remembered),
    had: model ? seriesHad(model) : {},
    normal: cured ? normalOf(state) : {},
    minutes,
    worked: [...worked.values()].reduce((a, b) => a + b, 0),
    booked: bookedOf(state),
    ...(waits ? { waits } : {}),
  };
}

/** The change that putting back has shown to be the cure, by its root. */
function curedBy(state: JobState): number | undefined {
  const last = state.cureTests.at(-1);
  if (!last) return undefined;
  const same = state.cureTests.filter((t) => t.among.join() === last.among.join());
  const left = leftAfter(last.among, same);
  return left.length === 1 ? rootOf(state, left[0]!) : undefined;
}

/** Points whose first reading, before anything was changed, was out of its band. */
function signsOf({ state, circuit, sourceAt }: JobView): JobDigest["signs"] {
  const first = state.changes[0]?.seq ?? Infinity;
  const out: JobDigest["signs"] = {};
  // One circuit for all of them: nothing was changed yet.
  const source = circuit && state.readings.length > 0 ? sourceAt(first) : undefined;
  for (const r of state.readings) {
    if (r.kind !== "dcv" || r.seq > first || out[r.point]) continue;
    const point = circuit?.points.find((p) => p.name === r.point);
    const expected = point && source?.expect(point, r.conditions);
    if (!expected || "none" in expected) continue;
    if (r.value > expected.high) out[r.point] = "high";
    if (r.value < expected.low) out[r.point] = "low";
  }
  return out;
}

/** The last readings of the amp as it went home: with all tubes in, nothing before it, at a mains that was noted. */
function normalOf(state: JobState): JobDigest["normal"] {
  const { counts } = ampAsItIs(state);
  const out: JobDigest["normal"] = {};
  for (const { kind, seq, point, value, conditions: c } of state.readings)
    if (kind === "dcv" && counts(seq) && c.mains && !c.without?.length && !c.limiter) out[point] = { volts: value, mains: c.mains };
  return out;
}
