/** Payloads of the intake station. */

import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
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
} from "class-validator";
import { STATION_IDS, type StationId } from "../stations";
import { TEXT_LIMIT, WHEN, BRIEF_AIMS, type BriefAim } from "./words";
import * as texts from "../../texts/tape";

export class JobOpened {
  @IsString() @MinLength(1) @MaxLength(200) owner!: string;
  @IsString() @MinLength(1) @MaxLength(200) amp!: string;
  @IsOptional() @IsString() @MaxLength(200) contact?: string;
}

export class Complaint {
  @IsString() @MinLength(1) @MaxLength(TEXT_LIMIT) words!: string;
  @IsArray() @ArrayUnique() @IsIn(WHEN, { each: true }) when!: string[];
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) use?: string;
}

export class Brief {
  /** Most important first. */
  @IsArray() @ArrayUnique() @ArrayMaxSize(4) @IsIn(BRIEF_AIMS, { each: true }) order!: BriefAim[];
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) mustNotChange?: string;
  /** In the shop's currency. */
  @IsOptional() @IsNumber() @Min(0) @Max(1e7) spendingLimit?: number;
  @IsOptional() @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: texts.dateYyyyMmDd }) dueDate?: string;
}

/** What an earlier technician is said to have done: to be checked, not a fact. */
export class Claim {
  @IsString() @MinLength(1) @MaxLength(TEXT_LIMIT) text!: string;
  @IsOptional() @IsInt() @Min(1920) @Max(2100) year?: number;
}

export class Accessory {
  @IsString() @MinLength(1) @MaxLength(200) name!: string;
  @IsIn(["here", "left at home"]) state!: "here" | "left at home";
  /** What to bridge to run without it. */
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) bridge?: string;
}

export class Photo {
  @Matches(/^[0-9a-f]{64}$/, { message: texts.photoStoredHere }) hash!: string;
  @IsString() @MaxLength(300) caption!: string;
  @IsIn(STATION_IDS) station!: StationId;
  @IsOptional() @IsString() @MaxLength(200) place?: string;
}

export class Reproduction {
  @IsIn(["yes", "no", "sometimes"]) reproduced!: "yes" | "no" | "sometimes";
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) settings?: string;
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) instrument?: string;
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) conditions?: string;
  /** Before the work, or the same test again at the end. */
  @IsIn(["intake", "prove"]) run!: "intake" | "prove";
}

export class Identity {
  @IsOptional() @IsString() @MaxLength(200) maker?: string;
  @IsOptional() @IsString() @MaxLength(200) model?: string;
  @IsOptional() @IsString() @MaxLength(200) revision?: string;
  @IsOptional() @IsString() @MaxLength(200) serial?: string;
}

export class DateCode {
  /** The part that carries it: "volume pot", "mains transformer". */
  @IsString() @MinLength(1) @MaxLength(200) place!: string;
  @IsString() @MinLength(1) @MaxLength(60) code!: string;
}
