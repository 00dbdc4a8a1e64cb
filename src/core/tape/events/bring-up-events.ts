/** Payloads of the bring-up: stages, what the mains instrument showed, the steps of isolating a blown fuse or a short. */

import { IsIn, IsNumber, Max, Min } from "class-validator";
import { IsText, Optional } from "../../checks/accepted";
import { GLOWS, STAGE_RESULTS, type Glow, type StageResult } from "./words";

export class StageDone {
  /** "no-tubes", "output:V4". */
  @IsText(40) stage!: string;
  @IsIn(STAGE_RESULTS) result!: StageResult;
  @Optional() @IsText(1000, { empty: true }) note?: string;
}

/** Amperes at volts, as read on the mains side. */
export class MainsCurrent {
  /** Volts at the amp's own plug. */
  @IsNumber() @Min(0) @Max(500) volts!: number;
  @Optional() @IsNumber() @Min(0) @Max(50) amps?: number;
  @Optional() @IsText(40, { empty: true }) stage?: string;
  /** Watts of the lamp in series, and how it burned. */
  @Optional() @IsNumber() @Min(1) @Max(2000) lamp?: number;
  @Optional() @IsIn(GLOWS) glow?: Glow;
}

/** One step of the isolation: what was done and what came of it. */
export class IsolationStep {
  /** "power:no-tubes", "ohm:b1:0". */
  @IsText(80) test!: string;
  /** In words, so that the tape reads as a proof. */
  @IsText(300) what!: string;
  @IsText(60) outcome!: string;
  @Optional() @IsNumber() @Min(0) @Max(1e13) ohms?: number;
  @Optional() @IsNumber() @Min(0) @Max(2000) lamp?: number;
}
