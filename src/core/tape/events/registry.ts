/** Every type of event with the class of its payload. */

import type * as bench from "./measuring-events";
import type * as bringUp from "./bring-up-events";
import type * as capacitor from "./capacitor-events";
import type * as cold from "./cold-check-events";
import type * as intake from "./intake-events";
import type * as money from "./money-events";
import type * as noise from "./noise-events";
import type * as output from "./output-events";
import type * as plan from "./plan-events";
import type * as power from "./power-events";
import type * as work from "./work-events";

export interface Payloads {
  "job-opened": intake.JobOpened;
  complaint: intake.Complaint;
  brief: intake.Brief;
  claim: intake.Claim;
  accessory: intake.Accessory;
  photo: intake.Photo;
  reproduction: intake.Reproduction;
  identity: intake.Identity;
  "date-code": intake.DateCode;
  mains: power.Mains;
  power: power.Power;
  "live-check": power.LiveCheck;
  "meter-check": power.MeterCheck;
  reservoir: power.NamedReservoir;
  "discharge-reading": power.DischargeReading;
  clip: power.Clip;
  "taken-in": power.TakenIn;
  "circuit-given": power.CircuitGiven;
  "brought-in": power.BroughtIn;
  "books-taken": power.BooksTaken;
  "gate-passed": power.GatePassed;
  reading: bench.Reading;
  point: bench.PointMade;
  finding: bench.Finding;
  "finding-closed": bench.FindingClosed;
  note: bench.Note;
  removed: bench.Removed;
  "put-back": bench.PutBack;
  observation: bench.Observation;
  "control-check": bench.ControlCheck;
  "tool-check": power.ToolCheck;
  "reservoir-unread": power.ReservoirUnread;
  "still-live": power.StillLive;
  inspection: cold.Inspection;
  "pot-sweep": cold.PotSweepTaken;
  "tube-test": cold.TubeTest;
  temperature: cold.Temperature;
  stage: bringUp.StageDone;
  "mains-current": bringUp.MainsCurrent;
  "isolation-step": bringUp.IsolationStep;
  recording: noise.RecordingTaken;
  "noise-test": noise.NoiseTestDone;
  conditions: noise.ConditionsSet;
  "conditions-run": noise.ConditionsRun;
  "ground-map": noise.GroundMapDrawn;
  provoked: noise.Provoked;
  occurrence: noise.Occurrence;
  "soak-begun": noise.SoakBegun;
  "soak-ended": noise.SoakEnded;
  bias: output.BiasTaken;
  "bias-figures": output.BiasFigures;
  adjusted: output.Adjusted;
  waveform: output.WaveformTaken;
  "grid-read": output.GridRead;
  blocking: output.BlockingFound;
  "tube-seen": output.TubeSeen;
  "tube-fitted": output.TubeFitted;
  "signal-figure": output.SignalFigure;
  capacitor: capacitor.CapacitorNoted;
  "capacitor-test": capacitor.CapacitorTest;
  "board-test": capacitor.BoardTest;
  "board-cleaned": capacitor.BoardCleaned;
  "reform-begun": capacitor.ReformBegun;
  "reform-point": capacitor.ReformPoint;
  "reform-turn": capacitor.ReformTurn;
  planned: plan.Planned;
  "planned-ended": plan.PlannedEnded;
  "plan-order": plan.PlanOrdered;
  timer: plan.TimerTurned;
  time: plan.TimeNoted;
  change: work.Change;
  "cure-test": plan.CureTest;
  approval: work.Approval;
  "safety-test": work.SafetyTest;
  waiting: work.Waiting;
  "handed-on": plan.HandedOn;
  quote: money.Quote;
  "bill-line": money.BillLine;
  bill: money.Bill;
  "bill-cancelled": money.BillCancelled;
  payment: money.Payment;
  advice: work.Advice;
  returned: work.Returned;
  undo: work.Undo;
  unreadable: Unreadable;
}

/** What stands for a stored line that does not pass the checks of today. Never sent by anybody: the reader of the tape makes it. */
export interface Unreadable {
  /** The type under which it was logged. */
  type: string;
  why: string;
}

export type EventType = keyof Payloads;
/** Types that can be logged. */
export type LoggedType = Exclude<EventType, "unreadable">;
