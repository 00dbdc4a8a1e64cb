/** Payloads of the look and the cold checks. */

import { Type } from "class-transformer";
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsNumber,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from "class-validator";
import { SWAP_RESULTS, TEST_METHODS, type SwapResult, type TestMethod } from "../../tubes/judge-test";
import { INSPECTION_RESULTS, TOUCHES, type InspectionResult, type Touch } from "./words";

/** An item of the inspection list, answered. */
export class Inspection {
  @IsString() @MinLength(1) @MaxLength(60) item!: string;
  /** What was looked at, in words, so that the tape reads without the list. */
  @IsString() @MinLength(1) @MaxLength(300) what!: string;
  @IsIn(INSPECTION_RESULTS) result!: InspectionResult;
}

export class PotTurn {
  /** Part of the turn, 0 to 1. */
  @IsNumber() @Min(0) @Max(1) turn!: number;
  @IsNumber() @Min(0) @Max(1e9) ohms!: number;
}

/** A control measured from its start to the wiper along the turn. */
export class PotSweepTaken {
  @IsString() @MinLength(1) @MaxLength(80) pot!: string;
  /** Ohms from end to end. */
  @IsNumber() @Min(1) @Max(1e9) total!: number;
  @IsArray() @ArrayMinSize(3) @ArrayMaxSize(60) @ValidateNested({ each: true }) @Type(() => PotTurn) points!: PotTurn[];
}

export class TubeTest {
  @IsString() @MinLength(1) @MaxLength(40) tube!: string;
  @IsIn(TEST_METHODS) method!: TestMethod;
  /** Percent of new. */
  @IsOptional() @IsNumber() @Min(0) @Max(250) percent?: number;
  /** mA/V. */
  @IsOptional() @IsNumber() @Min(0) @Max(60) gm?: number;
  /** Electrodes that touch; empty when tested and none do. */
  @IsOptional() @IsString() @MaxLength(100) shorts?: string;
  @IsOptional() @IsIn(SWAP_RESULTS) swap?: SwapResult;
  @IsOptional() @IsString() @MaxLength(300) note?: string;
}

/** How hot a tube or part is: by thermometer, or by a finger that is held near and never on a live part. */
export class Temperature {
  @IsString() @MinLength(1) @MaxLength(80) place!: string;
  @IsOptional() @IsNumber() @Min(-20) @Max(500) celsius?: number;
  @IsOptional() @IsIn(TOUCHES) touch?: Touch;
  @IsOptional() @IsNumber() @Min(0) @Max(100000) warmMinutes?: number;
}
