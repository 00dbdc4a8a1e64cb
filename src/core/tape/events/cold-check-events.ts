/** Payloads of the look and the cold checks. */

import { IsIn, IsNumber, Max, Min } from "class-validator";
import { IsListOf, IsText, Optional } from "../../checks/accepted";
import { SWAP_RESULTS, TEST_METHODS, type SwapResult, type TestMethod } from "../../tubes/judge-test";
import { INSPECTION_RESULTS, TOUCHES, type InspectionResult, type Touch } from "./words";

/** An item of the inspection list, answered. */
export class Inspection {
  @IsText(60) item!: string;
  /** What was looked at, in words, so that the tape reads without the list. */
  @IsText(300) what!: string;
  @IsIn(INSPECTION_RESULTS) result!: InspectionResult;
}

export class PotTurn {
  /** Part of the turn, 0 to 1. */
  @IsNumber() @Min(0) @Max(1) turn!: number;
  @IsNumber() @Min(0) @Max(1e9) ohms!: number;
}

/** A control measured from its start to the wiper along the turn. */
export class PotSweepTaken {
  @IsText(80) pot!: string;
  /** Ohms from end to end. */
  @IsNumber() @Min(1) @Max(1e9) total!: number;
  @IsListOf(() => PotTurn, 60, { least: 3 }) points!: PotTurn[];
}

export class TubeTest {
  @IsText(40) tube!: string;
  @IsIn(TEST_METHODS) method!: TestMethod;
  /** Percent of new. */
  @Optional() @IsNumber() @Min(0) @Max(250) percent?: number;
  /** mA/V. */
  @Optional() @IsNumber() @Min(0) @Max(60) gm?: number;
  /** Electrodes that touch; empty when tested and none do. */
  @Optional() @IsText(100, { empty: true }) shorts?: string;
  @Optional() @IsIn(SWAP_RESULTS) swap?: SwapResult;
  @Optional() @IsText(300, { empty: true }) note?: string;
}

/** How hot a tube or part is: by thermometer, or by a finger that is held near and never on a live part. */
export class Temperature {
  @IsText(80) place!: string;
  @Optional() @IsNumber() @Min(-20) @Max(500) celsius?: number;
  @Optional() @IsIn(TOUCHES) touch?: Touch;
  @Optional() @IsNumber() @Min(0) @Max(100000) warmMinutes?: number;
}
