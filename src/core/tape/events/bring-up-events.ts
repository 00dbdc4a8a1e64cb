/** Payloads of the bring-up: stages, what the mains instrument showed, the steps of isolating a blown fuse or a short. */

import { IsIn, IsNumber, IsOptional, IsString, Max, MaxLength, Min, MinLength } from "class-validator";
import { GLOWS, STAGE_RESULTS, type Glow, type StageResult } from "./words";

export class StageDone {
  /** "no-tubes", "output:V4". */
  @IsString() @MinLength(1) @MaxLength(40) stage!: string;
  @IsIn(STAGE_RESULTS) result!: StageResult;
  @IsOptional() @IsString() @MaxLength(1000) note?: string;
}

/** Amperes at volts, as read on the mains side. */
export class MainsCurrent {
  /** Volts at the amp's own plug. */
  @IsNumber() @Min(0) @Max(500) volts!: number;
  @IsOptional() @IsNumber() @Min(0) @Max(50) amps?: number;
  @IsOptional() @IsString() @MaxLength(40) stage?: string;
  /** Watts of the lamp in series, and how it burned. */
  @IsOptional() @IsNumber() @Min(1) @Max(2000) lamp?: number;
  @IsOptional() @IsIn(GLOWS) glow?: Glow;
}

/** One step of the isolation: what was done and what came of it. */
export class IsolationStep {
  /** "power:no-tubes", "ohm:b1:0". */
  @IsString() @MinLength(1) @MaxLength(80) test!: string;
  /** In words, so that the tape reads as a proof. */
  @IsString() @MinLength(1) @MaxLength(300) what!: string;
  @IsString() @MinLength(1) @MaxLength(60) outcome!: string;
  @IsOptional() @IsNumber() @Min(0) @Max(1e13) ohms?: number;
  @IsOptional() @IsNumber() @Min(0) @Max(2000) lamp?: number;
}
