/** Checks a payload against the class of its type. Loads class-validator, so the browser leaves this file alone. */

import { classErrors, show, type FieldError } from "../../checks/class-errors";
import { readingProblem } from "../reading-limits";
import * as bench from "./measuring-events";
import * as bringUp from "./bring-up-events";
import * as capacitor from "./capacitor-events";
import * as cold from "./cold-check-events";
import * as intake from "./intake-events";
import * as money from "./money-events";
import * as noise from "./noise-events";
import * as output from "./output-events";
import * as plan from "./plan-events";
import * as power from "./power-events";
import type { LoggedType, Payloads } from "./registry";
import * as work from "./work-events";
import * as texts from "../../texts/tape";

const CLASSES: { [T in LoggedType]: new () => Payloads[T] } = {
  "job-opened": intake.JobOpened,
  complaint: intake.Complaint,
  brief: intake.Brief,
  claim: intake.Claim,
  accessory: intake.Accessory,
  photo: intake.Photo,
  reproduction: intake.Reproduction,
  identity: intake.Identity,
  "date-code": intake.DateCode,
  mains: power.Mains,
  power: power.Power,
  "live-check": power.LiveCheck,
  "meter-check": power.MeterCheck,
  reservoir: power.NamedReservoir,
  "discharge-reading": power.DischargeReading,
  clip: power.Clip,
  "taken-in": power.TakenIn,
  "circuit-given": power.CircuitGiven,
  "brought-in": power.BroughtIn,
  "books-taken": power.BooksTaken,
  "gate-passed": power.GatePassed,
  reading: bench.Reading,
  point: bench.PointMade,
  finding: bench.Finding,
  "finding-closed": bench.FindingClosed,
  note: bench.Note,
  removed: bench.Removed,
  "put-back": bench.PutBack,
  observation: bench.Observation,
  "control-check": bench.ControlCheck,
  "tool-check": power.ToolCheck,
  "reservoir-unread": power.ReservoirUnread,
  "still-live": power.StillLive,
  inspection: cold.Inspection,
  "pot-sweep": cold.PotSweepTaken,
  "tube-test": cold.TubeTest,
  temperature: cold.Temperature,
  stage: bringUp.StageDone,
  "mains-current": bringUp.MainsCurrent,
  "isolation-step": bringUp.IsolationStep,
  recording: noise.RecordingTaken,
  "noise-test": noise.NoiseTestDone,
  conditions: noise.ConditionsSet,
  "conditions-run": noise.ConditionsRun,
  "ground-map": noise.GroundMapDrawn,
  provoked: noise.Provoked,
  occurrence: noise.Occurrence,
  "soak-begun": noise.SoakBegun,
  "soak-ended": noise.SoakEnded,
  bias: output.BiasTaken,
  "bias-figures": output.BiasFigures,
  adjusted: output.Adjusted,
  waveform: output.WaveformTaken,
  "grid-read": output.GridRead,
  blocking: output.BlockingFound,
  "tube-seen": output.TubeSeen,
  "tube-fitted": output.TubeFitted,
  "signal-figure": output.SignalFigure,
  capacitor: capacitor.CapacitorNoted,
  "capacitor-test": capacitor.CapacitorTest,
  "board-test": capacitor.BoardTest,
  "board-cleaned": capacitor.BoardCleaned,
  "reform-begun": capacitor.ReformBegun,
  "reform-point": capacitor.ReformPoint,
  "reform-turn": capacitor.ReformTurn,
  planned: plan.Planned,
  "planned-ended": plan.PlannedEnded,
  "plan-order": plan.PlanOrdered,
  timer: plan.TimerTurned,
  time: plan.TimeNoted,
  change: work.Change,
  "cure-test": plan.CureTest,
  approval: work.Approval,
  "safety-test": work.SafetyTest,
  waiting: work.Waiting,
  "handed-on": plan.HandedOn,
  quote: money.Quote,
  "bill-line": money.BillLine,
  bill: money.Bill,
  "bill-cancelled": money.BillCancelled,
  payment: money.Payment,
  advice: work.Advice,
  returned: work.Returned,
  undo: work.Undo,
};

export const EVENT_TYPES = Object.keys(CLASSES) as LoggedType[];

/** An empty list when the payload is sound; else one plain sentence for each field that is not. */
export function payloadErrors(type: unknown, payload: unknown): FieldError[] {
  const shape = typeof type === "string" && Object.hasOwn(CLASSES, type) ? CLASSES[type as LoggedType] : undefined;
  if (!shape) return [{ field: "type", message: texts.readAccepted(show(type), EVENT_TYPES.join(", ")) }];
  if (typeof payload !== "object" || payload === null || Array.isArray(payload))
    return [{ field: "payload", message: texts.objectWanted() }];
  const found = classErrors(shape, payload);
  if (found.length > 0) return found;
  if (type === "reading") found.push(...readingErrors(payload as bench.Reading));
  if (type === "quote") for (const option of (payload as money.Quote).options) found.push(...sumErrors(option));
  if (type === "bill") found.push(...sumErrors(payload as money.Bill));
  return found;
}

/** A sum that is not that of its lines: no owner is to be asked for it. */
function sumErrors({ lines, sum }: Pick<money.Bill, "lines" | "sum">): FieldError[] {
  const near = (a: number, b: number) => Math.abs(a - b) < 1e-4;
  const all = lines.reduce((s, l) => s + l.amount, 0);
  const taxes = sum.taxes.reduce((s, t) => s + t.amount, 0);
  if (!near(all, sum.included ? sum.net + taxes : sum.net)) return [{ field: "sum", message: texts.linesNotTheSum(all, sum.net, taxes) }];
  if (!near(sum.net + taxes + sum.rounding, sum.total)) return [{ field: "sum", message: texts.totalNotTheSum(sum.total) }];
  return [];
}

/** What no meter on a tube amp can show. */
function readingErrors(reading: bench.Reading): FieldError[] {
  const problem = readingProblem(reading.kind, reading.value);
  return problem ? [{ field: "value", message: problem }] : [];
}
