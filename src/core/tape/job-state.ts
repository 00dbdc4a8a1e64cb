/** What a job's tape amounts to: the state that its lines make, and how it stands before the first. */

import type { JobEvent } from "./events/event";
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
  TubeSeen,
  WaveformTaken,
} from "./events/output-events";
import type { Finding, Observation, PointMade, Reading } from "./events/measuring-events";
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
  /** Types that were read off the tubes, where no circuit says them. */
  tubesSeen: Line<TubeSeen>[];
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

/** A job of which no line says anything yet. */
export const untold = (): Omit<JobState, "lines" | "effective" | "late"> => ({
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
  tubesSeen: [],
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
});
