/** Payloads of measuring and finding. */

import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsInt, IsNumber, Matches, Max, Min } from "class-validator";
import { IsA, IsStoredHash, IsText, IsTextList, Optional } from "../../checks/accepted";
import { STATION_IDS, type StationId } from "../stations";
import { MOST_LINES, TEXT_LIMIT, READING_KINDS, SEVERITIES, type ReadingKind, type Severity } from "./words";
import * as texts from "../../texts/checks";

/** The circumstances that a reading holds under. */
export class Conditions {
  @Optional() @IsNumber() @Min(0) @Max(500) mains?: number;
  /** Tubes that were out. */
  @Optional() @IsTextList(40, 20) without?: string[];
  @Optional() @IsText(300, { empty: true }) switches?: string;
  @Optional() @IsText(300, { empty: true }) controls?: string;
  @Optional() @IsText(60, { empty: true }) limiter?: string;
  /** A tone at the input: volts rms and hertz. */
  @Optional() @IsNumber() @Min(0) @Max(1000) toneVolts?: number;
  @Optional() @IsNumber() @Min(0) @Max(1e6) toneHertz?: number;
  /** Minutes since power on. */
  @Optional() @IsNumber() @Min(0) @Max(100000) warmMinutes?: number;
}

export class Reading {
  /** A test point, a part ("R7") or two nodes ("a:b"). */
  @IsText(80) point!: string;
  @IsIn(READING_KINDS) kind!: ReadingKind;
  @IsNumber() @Min(-1e12) @Max(1e12) value!: number;
  /** Digits that were read, so that it is shown with as many. */
  @Optional() @IsInt() @Min(1) @Max(12) digits?: number;
  @IsA(() => Conditions) conditions!: Conditions;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) note?: string;
}

/** A node of the circuit that is measured in this job though the file has no test point there. */
export class PointMade {
  @Matches(/^[A-Za-z][\w.+-]{0,39}$/, { message: "a name of up to 40 letters, digits and points, such as V2.g" }) name!: string;
  @IsText(80) node!: string;
  @IsText(200) label!: string;
}

export class Finding {
  @IsIn(STATION_IDS) station!: StationId;
  @IsText(200) place!: string;
  @IsText(TEXT_LIMIT) text!: string;
  @IsIn(SEVERITIES) severity!: Severity;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) action?: string;
  /** Does the brief cover the action, or has the owner to be asked? */
  @IsIn(["allowed", "ask"]) brief!: "allowed" | "ask";
  @Optional() @IsArray() @ArrayMaxSize(40) @IsStoredHash(texts.photoStoredHere, { each: true }) photos?: string[];
}

export class FindingClosed {
  @IsInt() @Min(1) @Max(MOST_LINES) finding!: number;
  @IsText(1000) how!: string;
}

export class Note {
  @IsText(TEXT_LIMIT) text!: string;
  @Optional() @IsIn(STATION_IDS) station?: StationId;
}

/** Something taken off the amp, to be put back before Prove. */
export class Removed {
  @IsText(200) what!: string;
  @Optional() @IsText(200, { empty: true }) place?: string;
  @Optional() @IsText(100, { empty: true }) colour?: string;
  @Optional() @IsStoredHash(texts.photoStoredHere) photo?: string;
}

export class PutBack {
  @IsInt() @Min(1) @Max(MOST_LINES) removed!: number;
}

/** Something seen, heard or felt, by the name that the suspects know it by: "V4 cold", "limiter bright". */
export class Observation {
  @IsText(80) name!: string;
  @IsA(() => Conditions) conditions!: Conditions;
}

export class ControlCheck {
  @IsText(100) control!: string;
  @IsBoolean() works!: boolean;
  @Optional() @IsText(1000, { empty: true }) note?: string;
}
