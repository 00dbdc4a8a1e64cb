/** A reforming as the tape has it: what is on, since when, how far, what is doubtful about its clock. Days, midnight and summer time do not matter: times are UTC. */

import type { JobState } from "../tape/fold";
import type { ReformedPart } from "../tape/events/capacitor-events";
import type { ReformResult } from "../tape/events/words";
import { judgeReform, type ReformReading, type ReformVerdict } from "./reform-judge";
import { storedEnergy } from "../supply/stored-energy";
import * as texts from "../texts/capacitor";

export type RunState = "running" | "paused" | "ended";

export interface PartRun {
  part: ReformedPart;
  readings: ReformReading[];
  /** Of the step that is on. */
  step: ReformReading[];
  /** Worked out when it is first asked for: most ask only whether a run is on. */
  readonly verdict: ReformVerdict;
  /** What was settled for this part, on the tape. */
  result?: ReformResult;
  /** What of its readings cannot be believed. */
  doubts: string[];
  /** What is as it should be, and good to know. */
  notes: string[];
}

export interface ReformRun {
  seq: number;
  begun: JobState["reforms"][number];
  state: RunState;
  /** Volts that the supply stands at; 0 while paused. */
  supply: number;
  /** The step that is on, or that goes on after a pause. */
  step: number;
  /** Seconds under voltage, pauses left out, when the step began. */
  stepBegan: number;
  parts: PartRun[];
  /** How it was paused and gone on with. */
  stretches: { from: string; to?: string }[];
}

type Stands = "on" | "off";

/** Seconds under voltage from the begin to `now`, milliseconds since 1970: of the bench's clock times the pace of a simulated tester. */
export function secondsUnder(begun: JobState["reforms"][number], now: number): number {
  let sum = 0;
  let since: number | undefined = Date.parse(begun.at);
  for (const turn of begun.turns) {
    const at = Date.parse(turn.at);
    const next: Stands = turn.what === "step" || turn.what === "resumed" ? "on" : "off";
    if (next === "off" && since !== undefined && turn.part === undefined) {
      sum += Math.max(0, at - since);
      since = undefined;
    } else if (next === "on") since ??= at;
  }
  if (since !== undefined) sum += Math.max(0, now - since);
  return (sum / 1000) * (begun.pace ?? 1);
}

/** A clock that stood: readings that differ though it did not go on. */
const SAME_SECOND = 0.5;

export function reformRuns(state: Pick<JobState, "reforms">): ReformRun[] {
  return state.reforms.map((begun): ReformRun => {
    let stands: RunState = "running";
    let supply = begun.steps[0]!;
    let stepBegan = 0;
    const stretches: ReformRun["stretches"] = [{ from: begun.at }];
    const results = new Map<string, ReformResult>();
    for (const turn of begun.turns) {
      if (turn.result && turn.part) results.set(turn.part, turn.result);
      if (turn.what === "ended" && turn.part) continue;
      if (turn.what === "step" || turn.what === "resumed") {
        if (stands !== "running") stretches.push({ from: turn.at });
        stands = "running";
        supply = turn.supply;
        stepBegan = secondsUnder({ ...begun, turns: begun.turns.filter((t) => t.seq <= turn.seq) }, Date.parse(turn.at));
      } else {
        if (stands === "running") stretches.at(-1)!.to = turn.at;
        stands = turn.what;
      }
    }
    const on = stands === "running";
    return {
      seq: begun.seq,
      begun,
      state: stands,
      supply: on ? supply : 0,
      step: supply,
      stepBegan,
      stretches,
      parts: begun.parts.map((part): PartRun => {
        const { readings, doubts, notes } = soundReadings(begun.points.filter((p) => p.part === part.part));
        const step = readings.filter((r) => r.seconds >= stepBegan - SAME_SECOND && Math.abs(r.supply - supply) < 1);
        let verdict: ReformVerdict | undefined;
        const result = results.get(part.part);
        return {
          part,
          readings,
          step,
          get verdict() {
            return (verdict ??= judgeReform({
              points: step,
              began: stepBegan,
              farads: part.farads,
              ohms: begun.ohms,
              supply,
              target: part.target,
              limit: part.limit,
              dwellSeconds: begun.dwellMinutes * 60,
              heldBefore: Math.max(0, ...readings.filter((r) => r.seconds < stepBegan).map((r) => r.volts)),
            }));
          },
          doubts,
          notes,
          ...(result ? { result } : {}),
        };
      }),
    };
  });
}

/** Readings whose clock goes on; those at a clock that stood or went back are left out, and that is said. */
function soundReadings(points: readonly (ReformReading & { at: string })[]): Pick<PartRun, "readings" | "doubts" | "notes"> {
  const readings: ReformReading[] = [];
  let [stood, back, ranges] = [0, 0, 0];
  for (const p of points) {
    const before = readings.at(-1);
    if (before && p.seconds < before.seconds - SAME_SECOND) back++;
    else if (before && p.seconds - before.seconds < SAME_SECOND) stood++;
    else {
      if (before?.digit !== undefined && p.digit !== undefined && p.digit !== before.digit) ranges++;
      readings.push(p);
    }
  }
  return {
    readings,
    doubts: [...(stood > 0 ? [texts.clockStood(stood)] : []), ...(back > 0 ? [texts.clockWentBack(back)] : [])],
    notes: ranges > 0 ? [texts.rangeChanged(ranges)] : [],
  };
}

/** Joules that the capacitors of a run hold at its supply, none of them sunk by its leakage. */
export const joulesOf = (run: Pick<ReformRun, "begun" | "step">): number =>
  run.begun.parts.reduce((s, p) => s + storedEnergy(p.farads, Math.min(run.step, p.target)), 0);

/** The run that is on or paused, the last one. */
export const openRun = (runs: readonly ReformRun[]): ReformRun | undefined => runs.findLast((r) => r.state !== "ended");

/** What a run came to for a part, the last word counting. */
export function reformedTo(runs: readonly ReformRun[], part: string): ReformResult | undefined {
  return runs.flatMap((r) => r.parts.filter((p) => p.part.part === part && p.result).map((p) => p.result)).at(-1);
}
