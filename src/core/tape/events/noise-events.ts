/** Payloads of noise and of faults that come and go: recordings, tests, runs under conditions, grounds, provocations, soaks. */

import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsInt, IsNumber, Max, Min } from "class-validator";
import { IsListOf, IsStoredHash, IsText, IsTextList, Optional } from "../../checks/accepted";
import { BADNESS, MOST_LINES, PROVOKED_BY, PROVOKED_RESPONSES, SOUND_KINDS, TEXT_LIMIT } from "./words";
import type { Badness, ProvokedBy, ProvokedResponse, SoundKind } from "./words";
import * as texts from "../../texts/checks";

export class HeardSound {
  @IsIn(SOUND_KINDS) kind!: SoundKind;
  @IsNumber() @Min(0) @Max(1) confidence!: number;
}

/** A recording that is kept here, with what was found in it. Levels are decibels relative to a sine of full scale. */
export class RecordingTaken {
  @IsStoredHash(texts.recordingStoredHere) hash!: string;
  @IsText(200) name!: string;
  @IsIn(["before", "after", "trial"]) when!: "before" | "after" | "trial";
  @IsNumber() @Min(0) @Max(100000) seconds!: number;
  @IsListOf(() => HeardSound, 10, { least: 1 }) sounds!: HeardSound[];
  @IsNumber() @Min(-200) @Max(50) f1dB!: number;
  @IsNumber() @Min(-200) @Max(50) f2dB!: number;
  @IsNumber() @Min(-200) @Max(50) hissdB!: number;
  @IsNumber() @Min(-200) @Max(50) totaldB!: number;
  /** Decibels at the frequencies of `noise/curve-scale`: the curve that the report prints. */
  @IsArray() @ArrayMaxSize(400) @IsNumber({}, { each: true }) @Min(-300, { each: true }) @Max(50, { each: true }) curve!: number[];
  /** Millivolts at the speaker for 0 dB, where a reference was recorded. */
  @Optional() @IsNumber() @Min(0) @Max(1e6) fullScaleMillivolts?: number;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) note?: string;
}

/** One answered test of the isolation of a noise. */
export class NoiseTestDone {
  @IsText(80) test!: string;
  @IsText(300) what!: string;
  @IsText(60) outcome!: string;
}

export class ConditionSetting {
  @IsText(60) name!: string;
  @IsText(60) setting!: string;
}

/** One run of the conditions matrix: every condition with its setting, and how bad it was. */
export class ConditionsRun {
  @IsListOf(() => ConditionSetting, 12, { least: 1 }) settings!: ConditionSetting[];
  @IsIn(BADNESS) bad!: Badness;
  @Optional() @IsText(1000, { empty: true }) note?: string;
}

export class Condition {
  @IsText(60) name!: string;
  @IsTextList(5, 60, { least: 2 }) settings!: string[];
}

/** The conditions that are tried, each with its settings. */
export class ConditionsSet {
  @IsListOf(() => Condition, 12) conditions!: Condition[];
}

export class GroundWire {
  @IsText(60) from!: string;
  @IsText(60) to!: string;
  /** Square millimetres of copper; 0 for chassis metal or a bolted joint whose ohms are given. */
  @IsNumber() @Min(0) @Max(1000) area!: number;
  /** Metres. */
  @IsNumber() @Min(0) @Max(100) length!: number;
  /** Ohms, measured; they stand for what the gauge says. */
  @Optional() @IsNumber() @Min(0) @Max(1e9) ohms?: number;
}

export class GroundCurrent {
  @IsText(100) what!: string;
  @IsText(60) from!: string;
  @IsText(60) to!: string;
  /** Amperes rms. */
  @IsNumber() @Min(0) @Max(100) amps!: number;
}

/** The grounds as they are found, the whole map at once: a later one takes its place. */
export class GroundMapDrawn {
  @IsListOf(() => GroundWire, 80) wires!: GroundWire[];
  @IsListOf(() => GroundCurrent, 40) currents!: GroundCurrent[];
  /** Between which two points the first stage's signal stands. */
  @IsText(60) inputGround!: string;
  @IsText(60) stageGround!: string;
  /** Ohms of the safety bond, and whether it has a bare-metal bolt of its own. */
  @Optional() @IsNumber() @Min(0) @Max(1e9) bondOhms?: number;
  @Optional() @IsBoolean() ownBolt?: boolean;
}

/** A place that was tapped, flexed, heated or cooled, and what came of it. */
export class Provoked {
  @IsText(100) place!: string;
  @IsIn(PROVOKED_BY) by!: ProvokedBy;
  @Optional() @IsText(60, { empty: true }) tool?: string;
  @IsIn(PROVOKED_RESPONSES) response!: ProvokedResponse;
  /** Ohms before and while, where a resistance jumped. */
  @Optional() @IsNumber() @Min(0) @Max(1e13) ohmsFrom?: number;
  @Optional() @IsNumber() @Min(0) @Max(1e13) ohmsTo?: number;
  /** Part of the picture's width and height, of a photo or of the layout. */
  @Optional() @IsNumber() @Min(0) @Max(1) x?: number;
  @Optional() @IsNumber() @Min(0) @Max(1) y?: number;
  @Optional() @IsStoredHash(texts.photoStoredHere) photo?: string;
}

/** The fault showed itself, or a failure during a soak. */
export class Occurrence {
  @IsText(TEXT_LIMIT) what!: string;
  @Optional() @IsNumber() @Min(0) @Max(100000) warmMinutes?: number;
  @Optional() @IsNumber() @Min(0) @Max(500) mains?: number;
  @Optional() @IsNumber() @Min(-40) @Max(100) celsius?: number;
  @Optional() @IsText(300, { empty: true }) activity?: string;
}

/** A soak begins: what it waits for, and from what was known of the fault how long it must run. */
export class SoakBegun {
  @IsText(TEXT_LIMIT) fault!: string;
  /** Failures seen before the repair, within so many hours of running. */
  @IsInt() @Min(1) @Max(100000) failures!: number;
  @IsNumber() @Min(0.01) @Max(1e6) hours!: number;
  /** Minutes of power after which it used to show; 0 when it had nothing to do with warmth. */
  @IsNumber() @Min(0) @Max(100000) onsetMinutes!: number;
  /** 0.5 to 0.999. */
  @IsNumber() @Min(0.5) @Max(0.999) confidence!: number;
}

export class SoakEnded {
  @IsInt() @Min(1) @Max(MOST_LINES) soak!: number;
  @IsIn(["cured", "failed", "no fault found", "broken off"]) outcome!: "cured" | "failed" | "no fault found" | "broken off";
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) done?: string;
}
