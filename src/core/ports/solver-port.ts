/** What screens ask of the solver, wherever it runs. No solver code is imported here: no screen carries it. */

import type { GroundMapDrawn } from "../tape/events/noise-events";
import type { JobNoise } from "../noise/job-noise";
import type { NoiseAnswer } from "../noise/noise-answer";
import type { Response } from "../signal/response";
import type { SolveConditions, Solved } from "../expectation/modelled";
import type { Evidence } from "../diagnosis/evidence";
import type { MainsKnown } from "../suspects/mains-known";
import type { PartHistory } from "../suspects/history";
import type { NextMeasurement } from "../suspects/next";
import type { Suspect } from "../suspects/rank";
import type { StageOptions } from "../bring-up/stages";
import type { Answer, Isolation } from "../diagnosis/isolate";
import type { ColdCheck } from "../cold/cold-check";
import type { BringUpPrediction, LiveMove } from "../bring-up/predict-stages";
import type { Solution } from "../expectation/solution";
import type { Given, Measured } from "../settle/given";
import type { Settled } from "../settle/settle";
import type { FitRow } from "../tubes/fit";
import type { SheetData } from "../tubes/sheet-points";

export interface FittedType {
  /** The `*@tube` line for the circuit file. */
  line: string;
  rows: FitRow[];
  doubts: string[];
}

/** What the suspects' screen shows. */
export interface SuspectsAnswer {
  suspects: Suspect[];
  notYetTestable: { fault: string; test: string }[];
  next: NextMeasurement[];
  recheck: string[];
  slips: Record<string, string>;
  standsAlone: string[];
  circuitDoubtful: boolean;
  /** The evidence in the order of each suspect's `predicted`. */
  evidence: Evidence[];
  /** Milliseconds of the ranking, the fault table left out. */
  ms: number;
}

/** What the readings say, so that a noise and they count as one. */
export interface ReadToo {
  evidence: Evidence[];
  history?: PartHistory;
  mains?: MainsKnown;
}

/** Every call rejects with an Error whose message can be shown. */
export interface SolverPort {
  /** Bands of every point; `progress` is told 0 to 1. */
  expected(netlist: string, conditions: SolveConditions, progress?: (part: number) => void): Promise<Solved>;
  solve(netlist: string, conditions: SolveConditions): Promise<Solution>;
  /** Fits what is not known well of a model to figures that are known to be right. */
  settle(netlist: string, given: Given[], measured: Measured[], progress?: (part: number) => void): Promise<Settled>;
  /** Fits a tube type to points of its sheet. */
  fit(data: SheetData): Promise<FittedType>;
  /** Ranks the faults that explain the evidence; the fault table is solved at the first call and kept. */
  suspects(
    netlist: string,
    evidence: Evidence[],
    conditions: SolveConditions,
    history: PartHistory | undefined,
    mains: MainsKnown,
    progress?: (part: number) => void,
  ): Promise<SuspectsAnswer>;
  /** Every stage of a bring-up at the wall's volts, behind a lamp of `lamp` watts (0: none). */
  bringUp(
    netlist: string,
    wall: number,
    lamp: number,
    options: StageOptions,
    progress?: (part: number) => void,
  ): Promise<BringUpPrediction>;
  /** Switches and controls that must not be moved with the power on. */
  notLive(netlist: string, wall: number): Promise<LiveMove[]>;
  /** The resistance list of the cold amp. */
  cold(netlist: string, progress?: (part: number) => void): Promise<ColdCheck[]>;
  /** What the answers leave of the causes of a blown fuse; what each cause would show is solved at the first call and kept. */
  isolate(
    netlist: string,
    bench: { wall: number; lamp: number; fuse?: number },
    answers: Answer[],
    progress?: (part: number) => void,
  ): Promise<Isolation>;
  /** Where a noise enters, by what was answered; solved at the first call for a circuit and kept. */
  enters(
    netlist: string,
    mains: number,
    noise: JobNoise,
    read: ReadToo | undefined,
    progress?: (part: number) => void,
  ): Promise<NoiseAnswer>;
  /** Response, feedback, hum and hiss as the circuit stands and with changes. */
  response(netlist: string, mains: number | undefined, changes: string[]): Promise<Response>;
  /** A ground map to begin with. */
  grounds(netlist: string | undefined, mains: number | undefined): Promise<GroundMapDrawn>;
  /** Gives up what is under way; its promises reject with SolverCancelled. */
  cancel(): void;
}

export class SolverCancelled extends Error {
  constructor() {
    super("the solve was cancelled");
  }
}
