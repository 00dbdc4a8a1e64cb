/** Payloads of noise and of faults that come and go: recordings, tests, runs under conditions, grounds, provocations, soaks. */

import { Type } from "class-transformer";
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from "class-validator";
import { BADNESS, PROVOKED_BY, PROVOKED_RESPONSES, SOUND_KINDS, TEXT_LIMIT } from "./words";
import type { Badness, ProvokedBy, ProvokedResponse, SoundKind } from "./words";
import * as texts from "../../texts/tape";

export class HeardSound {
  @IsIn(SOUND_KINDS) kind!: SoundKind;
  @IsNumber() @Min(0) @Max(1) confidence!: number;
}

/** A recording that is kept here, with what was found in it. Levels are decibels relative to a sine of full scale. */
export class RecordingTaken {
  @Matches(/^[0-9a-f]{64}$/, { message: texts.recordingStoredHere }) hash!: string;
  @IsString() @MinLength(1) @MaxLength(200) name!: string;
  @IsIn(["before", "after", "trial"]) when!: "before" | "after" | "trial";
  @IsNumber() @Min(0) @Max(100000) seconds!: number;
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(10) @ValidateNested({ each: true }) @Type(() => HeardSound) sounds!: HeardSound[];
  @IsNumber() @Min(-200) @Max(50) f1dB!: number;
  @IsNumber() @Min(-200) @Max(50) f2dB!: number;
  @IsNumber() @Min(-200) @Max(50) hissdB!: number;
  @IsNumber() @Min(-200) @Max(50) totaldB!: number;
  /** Decibels at the frequencies of `noise/curve-scale`: the curve that the report prints. */
  @IsArray() @ArrayMaxSize(400) @IsNumber({}, { each: true }) curve!: number[];
  /** Millivolts at the speaker for 0 dB, where a reference was recorded. */
  @IsOptional() @IsNumber() @Min(0) @Max(1e6) fullScaleMillivolts?: number;
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) note?: string;
}

/** One answered test of the isolation of a noise. */
export class NoiseTestDone {
  @IsString() @MinLength(1) @MaxLength(80) test!: string;
  @IsString() @MinLength(1) @MaxLength(300) what!: string;
  @IsString() @MinLength(1) @MaxLength(60) outcome!: string;
}

export class ConditionSetting {
  @IsString() @MinLength(1) @MaxLength(60) name!: string;
  @IsString() @MinLength(1) @MaxLength(60) setting!: string;
}

/** One run of the conditions matrix: every condition with its setting, and how bad it was. */
export class ConditionsRun {
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(12) @ValidateNested({ each: true }) @Type(() => ConditionSetting) settings!: ConditionSetting[];
  @IsIn(BADNESS) bad!: Badness;
  @IsOptional() @IsString() @MaxLength(1000) note?: string;
}

export class Condition {
  @IsString() @MinLength(1) @MaxLength(60) name!: string;
  @IsArray() @ArrayMinSize(2) @ArrayMaxSize(5) @IsString({ each: true }) @MaxLength(60, { each: true }) settings!: string[];
}

/** The conditions that are tried, each with its settings. */
export class ConditionsSet {
  @IsArray() @ArrayMaxSize(12) @ValidateNested({ each: true }) @Type(() => Condition) conditions!: Condition[];
}

export class GroundWire {
  @IsString() @MinLength(1) @MaxLength(60) from!: string;
  @IsString() @MinLength(1) @MaxLength(60) to!: string;
  /** Square millimetres of copper; 0 for chassis metal or a bolted joint whose ohms are given. */
  @IsNumber() @Min(0) @Max(1000) area!: number;
  /** Metres. */
  @IsNumber() @Min(0) @Max(100) length!: number;
  /** Ohms, measured; they stand for what the gauge says. */
  @IsOptional() @IsNumber() @Min(0) @Max(1e9) ohms?: number;
}

export class GroundCurrent {
  @IsString() @MinLength(1) @MaxLength(100) what!: string;
  @IsString() @MinLength(1) @MaxLength(60) from!: string;
  @IsString() @MinLength(1) @MaxLength(60) to!: string;
  /** Amperes rms. */
  @IsNumber() @Min(0) @Max(100) amps!: number;
}

/** The grounds as they are found, the whole map at once: a later one takes its place. */
export class GroundMapDrawn {
  @IsArray() @ArrayMaxSize(80) @ValidateNested({ each: true }) @Type(() => GroundWire) wires!: GroundWire[];
  @IsArray() @ArrayMaxSize(40) @ValidateNested({ each: true }) @Type(() => GroundCurrent) currents!: GroundCurrent[];
  /** Between which two points the first stage's signal stands. */
  @IsString() @MinLength(1) @MaxLength(60) inputGround!: string;
  @IsString() @MinLength(1) @MaxLength(60) stageGround!: string;
  /** Ohms of the safety bond, and whether it has a bare-metal bolt of its own. */
  @IsOptional() @IsNumber() @Min(0) @Max(1e9) bondOhms?: number;
  @IsOptional() @IsBoolean() ownBolt?: boolean;
}

/** A place that was tapped, flexed, heated or cooled, and what came of it. */
export class Provoked {
  @IsString() @MinLength(1) @MaxLength(100) place!: string;
  @IsIn(PROVOKED_BY) by!: ProvokedBy;
  @IsOptional() @IsString() @MaxLength(60) tool?: string;
  @IsIn(PROVOKED_RESPONSES) response!: ProvokedResponse;
  /** Ohms before and while, where a resistance jumped. */
  @IsOptional() @IsNumber() @Min(0) @Max(1e13) ohmsFrom?: number;
  @IsOptional() @IsNumber() @Min(0) @Max(1e13) ohmsTo?: number;
  /** Part of the picture's width and height, of a photo or of the layout. */
  @IsOptional() @IsNumber() @Min(0) @Max(1) x?: number;
  @IsOptional() @IsNumber() @Min(0) @Max(1) y?: number;
  @IsOptional() @Matches(/^[0-9a-f]{64}$/) photo?: string;
}

/** The fault showed itself, or a failure during a soak. */
export class Occurrence {
  @IsString() @MinLength(1) @MaxLength(TEXT_LIMIT) what!: string;
  @IsOptional() @IsNumber() @Min(0) @Max(100000) warmMinutes?: number;
  @IsOptional() @IsNumber() @Min(0) @Max(500) mains?: number;
  @IsOptional() @IsNumber() @Min(-40) @Max(100) celsius?: number;
  @IsOptional() @IsString() @MaxLength(300) activity?: string;
}

/** A soak begins: what it waits for, and from what was known of the fault how long it must run. */
export class SoakBegun {
  @IsString() @MinLength(1) @MaxLength(TEXT_LIMIT) fault!: string;
  /** Failures seen before the repair, within so many hours of running. */
  @IsInt() @Min(1) @Max(100000) failures!: number;
  @IsNumber() @Min(0.01) @Max(1e6) hours!: number;
  /** Minutes of power after which it used to show; 0 when it had nothing to do with warmth. */
  @IsNumber() @Min(0) @Max(100000) onsetMinutes!: number;
  /** 0.5 to 0.999. */
  @IsNumber() @Min(0.5) @Max(0.999) confidence!: number;
}

export class SoakEnded {
  @IsInt() @Min(1) soak!: number;
  @IsIn(["cured", "failed", "no fault found", "broken off"]) outcome!: "cured" | "failed" | "no fault found" | "broken off";
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) done?: string;
}
