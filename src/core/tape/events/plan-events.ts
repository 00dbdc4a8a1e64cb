/** Payloads of the plan of a job: its tasks, their order, the time that they take. */

import { ArrayMaxSize, ArrayUnique, IsArray, IsBoolean, IsIn, IsInt, IsNumber, Max, Min } from "class-validator";
import { IsListOf, IsText, IsTextList, Optional } from "../../checks/accepted";
import {
  MOST_LINES,
  MOST_MONEY,
  PART_STATES,
  PLANNED_FROM,
  TEXT_LIMIT,
  WORK_PHASES,
  type PartState,
  type PlannedFrom,
  type WorkPhase,
} from "./words";

/** Minutes of a year of bench days: more is a slip. */
const MOST_MINUTES = 100_000;

/** A part that a task needs. */
export class PlannedPart {
  @IsText(200) text!: string;
  @IsInt() @Min(1) @Max(1000) pieces!: number;
  /** What one costs the shop, without its margin. */
  @Optional() @IsNumber() @Min(0) @Max(MOST_MONEY) cost?: number;
  /** Number in the shop's stock of parts. */
  @Optional() @IsInt() @Min(1) @Max(1e9) stock?: number;
  @IsIn(PART_STATES) state!: PartState;
}

/** A task. It is known by the line that it was first planned in; a correction supersedes that line. */
export class Planned {
  /** "C6", "V4", "mains cord". */
  @IsText(100) position!: string;
  @IsText(300) what!: string;
  @IsIn(WORK_PHASES) phase!: WorkPhase;
  @IsIn(PLANNED_FROM) from!: PlannedFrom;
  /** The line that it comes from: a finding, a test. */
  @Optional() @IsInt() @Min(1) @Max(MOST_LINES) source?: number;
  @Optional() @IsInt() @Min(0) @Max(MOST_MINUTES) minutes?: number;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) reason?: string;
  /** What has to come off before it is reached: "chassis out", "turret board up". */
  @Optional() @IsTextList(10, 100) reach?: string[];
  /** Tasks that have to be done before, each by the line that it was first planned in. */
  @Optional() @IsArray() @ArrayMaxSize(50) @ArrayUnique() @IsInt({ each: true }) @Min(1, { each: true }) needs?: number[];
  @Optional() @IsListOf(() => PlannedPart, 50) parts?: PlannedPart[];
  /** Agreed for the whole task, in place of labour by the hour. */
  @Optional() @IsNumber() @Min(0) @Max(MOST_MONEY) fixedPrice?: number;
  @IsBoolean() reversible!: boolean;
}

/** A task that is no change of a part is done, or one is not going to be done. */
export class PlannedEnded {
  @IsInt() @Min(1) @Max(MOST_LINES) planned!: number;
  @IsIn(["done", "left out"]) how!: "done" | "left out";
  /** Of a task that was planned with parts and done without: none of them was fitted. */
  @Optional() @IsBoolean() nothingChanged?: boolean;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) why?: string;
}

/** The tasks in the order in which they are to be done, each by the line that it was first planned in. */
export class PlanOrdered {
  @IsArray() @ArrayMaxSize(500) @ArrayUnique() @IsInt({ each: true }) @Min(1, { each: true }) order!: number[];
}

/** The clock of a task starts or stops. One that is started while another runs stops that one. */
export class TimerTurned {
  @IsIn(["started", "stopped"]) turn!: "started" | "stopped";
  /** Of which task; none for work that is on no plan. */
  @Optional() @IsInt() @Min(1) @Max(MOST_LINES) planned?: number;
  @Optional() @IsText(200, { empty: true }) what?: string;
}

/** Minutes that no timer ran for, or, below zero, that it ran for nothing. */
export class TimeNoted {
  @IsInt() @Min(-MOST_MINUTES) @Max(MOST_MINUTES) minutes!: number;
  @Optional() @IsInt() @Min(1) @Max(MOST_LINES) planned?: number;
  @Optional() @IsText(200, { empty: true }) what?: string;
}

/** One step of finding out which of several changes cured it: what was put back or fitted again, and what came of it. */
export class CureTest {
  /** The changes that came in before it worked, each by the line that it was first logged in. */
  @IsArray() @ArrayMaxSize(12) @ArrayUnique() @IsInt({ each: true }) @Min(1, { each: true }) among!: number[];
  /** Those of them that were out of the amp in this test. */
  @IsArray() @ArrayMaxSize(12) @ArrayUnique() @IsInt({ each: true }) @Min(1, { each: true }) out!: number[];
  @IsIn(["fault is back", "still cured"]) result!: "fault is back" | "still cured";
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) note?: string;
}

/** The job goes to another technician, with its state in a paragraph. */
export class HandedOn {
  @IsText(12) to!: string;
  @IsText(TEXT_LIMIT) says!: string;
}
