/** The state of a job as a pure fold of its tape: the same on the server, in the browser and in tests. */

import { arrivedLate } from "./arrived-late";
import { is, type JobEvent } from "./events/event";
import type { Accessory, Brief, Claim, Complaint, DateCode, Identity, JobOpened, Photo, Reproduction } from "./events/intake-events";
import type { IsolationStep, MainsCurrent, StageDone } from "./events/bring-up-events";
import type {
  BoardCleaned,
  BoardTest,
  CapacitorNoted,
  CapacitorTest,
  ReformBegun,
  ReformPoint,
  ReformTurn,
} from "./events/capacitor-events";
import type { Inspection, PotSweepTaken, Temperature, TubeTest } from "./events/cold-check-events";
import type {
  ConditionsRun,
  ConditionsSet,
  GroundMapDrawn,
  NoiseTestDone,
  Occurrence,
  Provoked,
  RecordingTaken,
  SoakBegun,
  SoakEnded,
} from "./events/noise-events";
import type {
  Adjusted,
  BiasFigures,
  BiasTaken,
  BlockingFound,
  GridRead,
  SignalFigure,
  TubeFitted,
  WaveformTaken,
} from "./events/output-events";
import type { Conditions, Finding, Observation, PointMade, Reading } from "./events/measuring-events";
import type { Bill, BillCancelled, BillLine, Payment, Quote } from "./events/money-events";
import type { CureTest, HandedOn, Planned, PlannedEnded, PlanOrdered, TimeNoted, TimerTurned } from "./events/plan-events";
import type { Advice, Approval, Change, Returned, SafetyTest, Waiting } from "./events/work-events";
import type { SafetyTestKind } from "./events/words";

/** A payload with the line it stands on. */
export type Line<T> = T & { seq: number; at: string; who: string };

export interface TapeLine {
  event: JobEvent;
  /** False once a later effective line supersedes it: shown struck through. */
  effective: boolean;
  supersededBy?: number;
}

export interface JobState {
  lines: TapeLine[];
  /** The effective events only, in order; without those that arrived too late. */
  effective: JobEvent[];
  /** Numbers of the lines about power and charge that were stored after a later power-on: they count for nothing. */
  late: Set<number>;
  opened?: Line<JobOpened>;
  complaint?: Line<Complaint>;
  brief?: Line<Brief>;
  claims: Line<Claim>[];
  accessories: Line<Accessory>[];
  photos: Line<Photo>[];
  reproductions: Line<Reproduction>[];
  identity?: Line<Identity>;
  dateCodes: Line<DateCode>[];
  mainsVolts?: number;
  /** Line in which it was logged last, and when. */
  mainsSeq?: number;
  mainsAt?: string;
  power?: { state: "on" | "off"; at: string; seq: number; without: string[]; through?: string };
  /** Answered since the last power-on. */
  liveChecked: boolean;
  readings: Line<Reading>[];
  /** Test points that this job has besides those of the circuit file. */
  points: Line<PointMade>[];
  findings: (Line<Finding> & { closed?: string })[];
  removed: (Line<{ what: string; place?: string; colour?: string; photo?: string }> & { back?: number })[];
  biases: Line<BiasTaken>[];
  biasFigures: Line<BiasFigures>[];
  adjusted: Line<Adjusted>[];
  waveforms: Line<WaveformTaken>[];
  gridReads: Line<GridRead>[];
  blockings: Line<BlockingFound>[];
  tubesFitted: Line<TubeFitted>[];
  signalFigures: Line<SignalFigure>[];
  /** What was read off capacitors, oldest first; a later line adds to an earlier one. */
  capacitors: Line<CapacitorNoted>[];
  capacitorTests: Line<CapacitorTest>[];
  boardTests: Line<BoardTest>[];
  boardsCleaned: Line<BoardCleaned>[];
  reforms: (Line<ReformBegun> & { points: Line<ReformPoint>[]; turns: Line<ReformTurn>[] })[];
  /** Tasks as they stand now; `root` is the line that each was first planned in, by which all others name it. */
  planned: (Line<Planned> & { root: number; ended?: Line<PlannedEnded> })[];
  planOrder?: Line<PlanOrdered>;
  timers: Line<TimerTurned>[];
  times: Line<TimeNoted>[];
  changes: Line<Change>[];
  cureTests: Line<CureTest>[];
  approvals: Line<Approval>[];
  safetyTests: Map<SafetyTestKind, Line<SafetyTest>>;
  observations: Line<Observation>[];
  controlChecks: Line<{ control: string; works: boolean; note?: string }>[];
  /** By item of the list, the latest answer. */
  inspected: Map<string, Line<Inspection>>;
  /** By control in upper case, the latest. */
  sweeps: Map<string, Line<PotSweepTaken>>;
  tubeTests: Line<TubeTest>[];
  temperatures: Line<Temperature>[];
  /** By stage of the bring-up, the latest result. */
  stages: Map<string, Line<StageDone>>;
  mainsCurrents: Line<MainsCurrent>[];
  isolation: Line<IsolationStep>[];
  recordings: Line<RecordingTaken>[];
  noiseTests: Line<NoiseTestDone>[];
  conditions?: Line<ConditionsSet>;
  conditionsRuns: Line<ConditionsRun>[];
  groundMap?: Line<GroundMapDrawn>;
  provoked: Line<Provoked>[];
  occurrences: Line<Occurrence>[];
  soaks: (Line<SoakBegun> & { ended?: Line<SoakEnded> })[];
  gatesPassed: Line<{ station: string; reason: string }>[];
  waiting?: Line<Waiting>;
  /** The last hand-over from one technician to another. */
  handedOn?: Line<HandedOn>;
  quotes: Line<Quote>[];
  /** Lines that were put on the bill by hand. */
  bill: Line<BillLine>[];
  bills: (Line<Bill> & { cancelled?: Line<BillCancelled> })[];
  payments: Line<Payment>[];
  advice?: Line<Advice>;
  returned?: Line<Returned>;
  /** Line at which the archive ends that the lines before it came in; 0 for none. */
  broughtIn: number;
  /** Line up to which money that was brought in is in the books of this shop. */
  booksTaken: number;
  lastAt?: string;
}

/** Which lines stand: a line falls when a later line that itself stands supersedes it. Undoing an undo restores. */
export function tapeLines(events: JobEvent[]): TapeLine[] {
  const by = new Map<number, number>();
  const lines: TapeLine[] = [];
  for (let i = events.length - 1; i >= 0; i--) {
    const event = events[i]!;
    const supersededBy = by.get(event.seq);
    const effective = supersededBy === undefined;
    if (effective && event.supersedes !== undefined) by.set(event.supersedes, event.seq);
    lines.push({ event, effective, supersededBy });
  }
  return lines.reverse();
}

/** Folds a tape, in order of `seq`, to the job's state. */
export function foldJob(events: JobEvent[]): JobState {
  const lines = tapeLines(events);
  const standing = lines.filter((l) => l.effective && l.event.type !== "undo").map((l) => l.event);
  const late = arrivedLate(standing);
  const effective = standing.filter((e) => !late.has(e.seq));
  const state: JobState = {
    lines,
    effective,
    late,
    claims: [],
    accessories: [],
    photos: [],
    reproductions: [],
    dateCodes: [],
    liveChecked: false,
    readings: [],
    points: [],
    findings: [],
    removed: [],
    biases: [],
    biasFigures: [],
    adjusted: [],
    waveforms: [],
    gridReads: [],
    blockings: [],
    tubesFitted: [],
    signalFigures: [],
    capacitors: [],
    capacitorTests: [],
    boardTests: [],
    boardsCleaned: [],
    reforms: [],
    planned: [],
    timers: [],
    times: [],
    changes: [],
    cureTests: [],
    approvals: [],
    safetyTests: new Map(),
    observations: [],
    controlChecks: [],
    inspected: new Map(),
    sweeps: new Map(),
    tubeTests: [],
    temperatures: [],
    stages: new Map(),
    mainsCurrents: [],
    isolation: [],
    recordings: [],
    noiseTests: [],
    conditionsRuns: [],
    provoked: [],
    occurrences: [],
    soaks: [],
    gatesPassed: [],
    quotes: [],
    bill: [],
    bills: [],
    payments: [],
    broughtIn: 0,
    booksTaken: 0,
    lastAt: events.at(-1)?.at,
  };
  for (const e of effective) apply(state, e);
  return state;
}

function apply(s: JobState, e: JobEvent): void {
  const where = { seq: e.seq, at: e.at, who: e.who };
  if (is(e, "job-opened")) s.opened = { ...e.payload, ...where };
  else if (is(e, "complaint")) s.complaint = { ...e.payload, ...where };
  else if (is(e, "brief")) s.brief = { ...e.payload, ...where };
  else if (is(e, "claim")) s.claims.push({ ...e.payload, ...where });
  else if (is(e, "accessory")) s.accessories.push({ ...e.payload, ...where });
  else if (is(e, "photo")) s.photos.push({ ...e.payload, ...where });
  else if (is(e, "reproduction")) s.reproductions.push({ ...e.payload, ...where });
  else if (is(e, "identity")) s.identity = { ...e.payload, ...where };
  else if (is(e, "date-code")) s.dateCodes.push({ ...e.payload, ...where });
  else if (is(e, "mains")) {
    s.mainsVolts = e.payload.volts;
    s.mainsSeq = e.seq;
    s.mainsAt = e.at;
  } else if (is(e, "power")) {
    // Fitting or pulling tubes is done with the power off, so each power-on says what is in.
    if (e.payload.state === "on" && s.power?.state !== "on") s.liveChecked = false;
    s.power = { state: e.payload.state, at: e.at, seq: e.seq, without: e.payload.without ?? [], through: e.payload.through };
  } else if (is(e, "live-check")) s.liveChecked = true;
  else if (is(e, "reading")) s.readings.push({ ...e.payload, ...where });
  else if (is(e, "point")) s.points.push({ ...e.payload, ...where });
  else if (is(e, "finding")) s.findings.push({ ...e.payload, ...where });
  else if (is(e, "finding-closed")) {
    const finding = s.findings.find((f) => f.seq === e.payload.finding);
    if (finding) finding.closed = e.payload.how;
  } else if (is(e, "removed")) s.removed.push({ ...e.payload, ...where });
  else if (is(e, "put-back")) {
    const removed = s.removed.find((r) => r.seq === e.payload.removed);
    if (removed) removed.back = e.seq;
  } else if (is(e, "bias")) s.biases.push({ ...e.payload, ...where });
  else if (is(e, "bias-figures")) s.biasFigures.push({ ...e.payload, ...where });
  else if (is(e, "adjusted")) s.adjusted.push({ ...e.payload, ...where });
  else if (is(e, "waveform")) s.waveforms.push({ ...e.payload, ...where });
  else if (is(e, "grid-read")) s.gridReads.push({ ...e.payload, ...where });
  else if (is(e, "blocking")) s.blockings.push({ ...e.payload, ...where });
  else if (is(e, "tube-fitted")) s.tubesFitted.push({ ...e.payload, ...where });
  else if (is(e, "signal-figure")) s.signalFigures.push({ ...e.payload, ...where });
  else if (is(e, "capacitor")) s.capacitors.push({ ...e.payload, ...where });
  else if (is(e, "capacitor-test")) s.capacitorTests.push({ ...e.payload, ...where });
  else if (is(e, "board-test")) s.boardTests.push({ ...e.payload, ...where });
  else if (is(e, "board-cleaned")) s.boardsCleaned.push({ ...e.payload, ...where });
  else if (is(e, "reform-begun")) s.reforms.push({ ...e.payload, ...where, points: [], turns: [] });
  else if (is(e, "reform-point")) s.reforms.find((r) => r.seq === e.payload.reform)?.points.push({ ...e.payload, ...where });
  else if (is(e, "reform-turn")) s.reforms.find((r) => r.seq === e.payload.reform)?.turns.push({ ...e.payload, ...where });
  else if (is(e, "planned")) s.planned.push({ ...e.payload, ...where, root: rootOf(s, e.seq) });
  else if (is(e, "planned-ended")) {
    const task = s.planned.find((p) => p.root === e.payload.planned);
    if (task) task.ended = { ...e.payload, ...where };
  } else if (is(e, "plan-order")) s.planOrder = { ...e.payload, ...where };
  else if (is(e, "timer")) s.timers.push({ ...e.payload, ...where });
  else if (is(e, "time")) s.times.push({ ...e.payload, ...where });
  else if (is(e, "cure-test")) s.cureTests.push({ ...e.payload, ...where });
  else if (is(e, "change")) s.changes.push({ ...e.payload, ...where });
  else if (is(e, "approval")) s.approvals.push({ ...e.payload, ...where });
  else if (is(e, "safety-test")) s.safetyTests.set(e.payload.test, { ...e.payload, ...where });
  else if (is(e, "observation")) s.observations.push({ ...e.payload, ...where });
  else if (is(e, "control-check")) {
    s.controlChecks = [...s.controlChecks.filter((c) => c.control !== e.payload.control), { ...e.payload, ...where }];
  } else if (is(e, "inspection")) s.inspected.set(e.payload.item, { ...e.payload, ...where });
  else if (is(e, "pot-sweep")) s.sweeps.set(e.payload.pot.toUpperCase(), { ...e.payload, ...where });
  else if (is(e, "tube-test")) s.tubeTests.push({ ...e.payload, ...where });
  else if (is(e, "temperature")) s.temperatures.push({ ...e.payload, ...where });
  else if (is(e, "stage")) s.stages.set(e.payload.stage, { ...e.payload, ...where });
  else if (is(e, "mains-current")) s.mainsCurrents.push({ ...e.payload, ...where });
  else if (is(e, "isolation-step")) s.isolation.push({ ...e.payload, ...where });
  else if (is(e, "recording")) s.recordings.push({ ...e.payload, ...where });
  else if (is(e, "noise-test")) s.noiseTests.push({ ...e.payload, ...where });
  else if (is(e, "conditions")) s.conditions = { ...e.payload, ...where };
  else if (is(e, "conditions-run")) s.conditionsRuns.push({ ...e.payload, ...where });
  else if (is(e, "ground-map")) s.groundMap = { ...e.payload, ...where };
  else if (is(e, "provoked")) s.provoked.push({ ...e.payload, ...where });
  else if (is(e, "occurrence")) s.occurrences.push({ ...e.payload, ...where });
  else if (is(e, "soak-begun")) s.soaks.push({ ...e.payload, ...where });
  else if (is(e, "soak-ended")) {
    const soak = s.soaks.find((x) => x.seq === e.payload.soak);
    if (soak) soak.ended = { ...e.payload, ...where };
  } else if (is(e, "gate-passed")) s.gatesPassed.push({ ...e.payload, ...where });
  else if (is(e, "waiting")) s.waiting = { ...e.payload, ...where };
  else if (is(e, "handed-on")) s.handedOn = { ...e.payload, ...where };
  else if (is(e, "quote")) s.quotes.push({ ...e.payload, ...where });
  else if (is(e, "bill")) s.bills.push({ ...e.payload, ...where });
  else if (is(e, "bill-cancelled")) {
    const bill = s.bills.find((b) => b.seq === e.payload.bill);
    if (bill) bill.cancelled = { ...e.payload, ...where };
  } else if (is(e, "payment")) s.payments.push({ ...e.payload, ...where });
  else if (is(e, "bill-line")) s.bill.push({ ...e.payload, ...where });
  else if (is(e, "advice")) s.advice = { ...e.payload, ...where };
  else if (is(e, "returned")) s.returned = { ...e.payload, ...where };
  else if (is(e, "taken-in")) s.returned = undefined;
  else if (is(e, "brought-in")) s.broughtIn = e.seq;
  else if (is(e, "books-taken")) s.booksTaken = e.seq;
}

/** The last time that the amp was put on before a line of the tape, with the tubes that were out. */
export function lastPowerOn(state: Pick<JobState, "effective">, before = Infinity): JobEvent<"power"> | undefined {
  return powerOns(state).findLast((e) => e.seq < before);
}

/** Every time that the amp was put on in this job. */
export function powerOns(state: Pick<JobState, "effective">): JobEvent<"power">[] {
  return state.effective.filter((e): e is JobEvent<"power"> => is(e, "power") && e.payload.state === "on");
}

/** The line that a line goes back to by its corrections: a task keeps that number through all of them. */
export function rootOf(state: Pick<JobState, "lines">, seq: number): number {
  // Lines that another bench stores at this moment may still be missing here: then the place is not the number.
  const there = state.lines[seq - 1]?.event;
  const before = there?.seq === seq ? there : state.lines.find((l) => l.event.seq === seq)?.event;
  return before?.supersedes === undefined ? seq : rootOf(state, before.supersedes);
}

/** Whether a change is in the amp: a part that was fitted or is being tried, and was not put back. */
export const isIn = (change: Pick<Change, "outcome">): boolean => change.outcome !== "reverted";

/** Whether a change is in the amp to stay: an experiment only once it was kept. */
export const isFitted = (change: Pick<Change, "kind" | "outcome">): boolean =>
  isIn(change) && (change.kind !== "experiment" || change.outcome === "kept");

/** The conditions that a reading taken at `at` (milliseconds) would have. */
export function conditionsNow(state: JobState, at: number): Conditions {
  const on = state.power?.state === "on" ? state.power : undefined;
  const conditions: Conditions = {};
  if (state.mainsVolts !== undefined) conditions.mains = state.mainsVolts;
  if (on?.without.length) conditions.without = on.without;
  // A variable transformer sets the mains that is read at the amp; only a lamp drops volts that nobody reads.
  if (on?.through?.includes("lamp")) conditions.limiter = on.through;
  if (on) conditions.warmMinutes = Math.max(0, Math.round((at - Date.parse(on.at)) / 60000));
  return conditions;
}

/** The last standing reading of a point and kind. */
export function latestReading(state: JobState, point: string, kind: Reading["kind"] = "dcv"): Line<Reading> | undefined {
  const name = point.toLowerCase();
  return state.readings.findLast((r) => r.kind === kind && r.point.toLowerCase() === name);
}
