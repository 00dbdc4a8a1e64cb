/** Payloads of measuring and finding. */

import { Type } from "class-transformer";
import {
  IsArray,
  IsBoolean,
  IsIn,
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
import { STATION_IDS, type StationId } from "../stations";
import { TEXT_LIMIT, READING_KINDS, SEVERITIES, type ReadingKind, type Severity } from "./words";

/** The circumstances that a reading holds under. */
export class Conditions {
  @IsOptional() @IsNumber() @Min(0) @Max(500) mains?: number;
  /** Tubes that were out. */
  @IsOptional() @IsArray() @IsString({ each: true }) @MaxLength(20, { each: true }) without?: string[];
  @IsOptional() @IsString() @MaxLength(300) switches?: string;
  @IsOptional() @IsString() @MaxLength(300) controls?: string;
  @IsOptional() @IsString() @MaxLength(60) limiter?: string;
  /** Minutes since power on. */
  @IsOptional() @IsNumber() @Min(0) @Max(100000) warmMinutes?: number;
}

export class Reading {
  /** A test point, a part ("R7") or two nodes ("a:b"). */
  @IsString() @MinLength(1) @MaxLength(80) point!: string;
  @IsIn(READING_KINDS) kind!: ReadingKind;
  @IsNumber() @Min(-1e12) @Max(1e12) value!: number;
  /** Digits that were read, so that it is shown with as many. */
  @IsOptional() @IsNumber() @Min(1) @Max(12) digits?: number;
  @ValidateNested() @Type(() => Conditions) conditions!: Conditions;
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) note?: string;
}

export class Finding {
  @IsIn(STATION_IDS) station!: StationId;
  @IsString() @MinLength(1) @MaxLength(200) place!: string;
  @IsString() @MinLength(1) @MaxLength(TEXT_LIMIT) text!: string;
  @IsIn(SEVERITIES) severity!: Severity;
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) action?: string;
  /** Does the brief cover the action, or has the owner to be asked? */
  @IsIn(["allowed", "ask"]) brief!: "allowed" | "ask";
  @IsOptional() @IsArray() @Matches(/^[0-9a-f]{64}$/, { each: true }) photos?: string[];
}

export class FindingClosed {
  @IsNumber() @Min(1) finding!: number;
  @IsString() @MinLength(1) @MaxLength(1000) how!: string;
}

export class Note {
  @IsString() @MinLength(1) @MaxLength(TEXT_LIMIT) text!: string;
  @IsOptional() @IsIn(STATION_IDS) station?: StationId;
}

/** Something taken off the amp, to be put back before Prove. */
export class Removed {
  @IsString() @MinLength(1) @MaxLength(200) what!: string;
  @IsOptional() @IsString() @MaxLength(200) place?: string;
  @IsOptional() @IsString() @MaxLength(100) colour?: string;
  @IsOptional() @Matches(/^[0-9a-f]{64}$/) photo?: string;
}

export class PutBack {
  @IsNumber() @Min(1) removed!: number;
}

/** Something seen, heard or felt, by the name that the suspects know it by: "V4 cold", "limiter bright". */
export class Observation {
  @IsString() @MinLength(1) @MaxLength(80) name!: string;
  @ValidateNested() @Type(() => Conditions) conditions!: Conditions;
}

export class ControlCheck {
  @IsString() @MinLength(1) @MaxLength(100) control!: string;
  @IsBoolean() works!: boolean;
  @IsOptional() @IsString() @MaxLength(1000) note?: string;
}
