/** Payloads of work, approval, safety tests and return. */

import {
  ArrayMaxSize,
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
} from "class-validator";
import { TEXT_LIMIT, OLD_PART_PLACES, SAFETY_TESTS, type OldPartPlace, type SafetyTestKind } from "./words";
import * as texts from "../../texts/tape";

export class Change {
  /** "C6", "V4", "mains cord". */
  @IsString() @MinLength(1) @MaxLength(100) position!: string;
  @IsIn(["replacement", "experiment", "repair"]) kind!: "replacement" | "experiment" | "repair";
  @IsOptional() @IsString() @MaxLength(300) oldPart?: string;
  @IsOptional() @IsString() @MaxLength(300) oldMeasured?: string;
  @IsString() @MinLength(1) @MaxLength(300) newPart!: string;
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) reason?: string;
  @IsBoolean() reversible!: boolean;
  @IsOptional() @IsIn(OLD_PART_PLACES) oldWent?: OldPartPlace;
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) fixing?: string;
  /** Of an experiment. */
  @IsOptional() @IsIn(["open", "kept", "reverted"]) outcome?: "open" | "kept" | "reverted";
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) result?: string;
  /** Of an experiment: what is expected of it, what it does to the circuit in the engine's words, how it was before and after. */
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) hypothesis?: string;
  @IsOptional() @IsArray() @ArrayMaxSize(20) @IsString({ each: true }) @MaxLength(80, { each: true }) set?: string[];
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) before?: string;
  @IsOptional() @IsString() @MaxLength(TEXT_LIMIT) after?: string;
}

export class Approval {
  @IsString() @MinLength(1) @MaxLength(TEXT_LIMIT) what!: string;
  @IsIn(["asked", "yes", "no"]) answer!: "asked" | "yes" | "no";
  @IsOptional() @IsNumber() @Min(0) @Max(1e7) cost?: number;
  /** The line that asked, when this is its answer. */
  @IsOptional() @IsInt() @Min(1) asks?: number;
}

export class SafetyTest {
  @IsIn(SAFETY_TESTS) test!: SafetyTestKind;
  /** Ohms, ohms, amperes or amperes, by test; none for what is looked at. */
  @IsOptional() @IsNumber() @Min(0) @Max(1e13) value?: number;
  /** The limit that it was held against, in the same unit: kept, because settings change. */
  @IsOptional() @IsNumber() @Min(0) limit?: number;
  @IsBoolean() passed!: boolean;
  @IsOptional() @IsString() @MaxLength(1000) note?: string;
}

export class Waiting {
  @IsIn(["you", "owner", "part", "soak", "collection"]) on!: "you" | "owner" | "part" | "soak" | "collection";
  @IsOptional() @IsString() @MaxLength(300) what?: string;
  @IsOptional() @Matches(/^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2})?$/) until?: string;
}

export class BillLine {
  @IsString() @MinLength(1) @MaxLength(300) text!: string;
  @IsNumber() @Min(-1e6) @Max(1e6) amount!: number;
  @IsIn(["labour", "parts", "other"]) kind!: "labour" | "parts" | "other";
}

export class Advice {
  @IsString() @MaxLength(TEXT_LIMIT) text!: string;
  @IsOptional() @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: texts.dateYyyyMmDd }) nextService?: string;
}

export class Returned {
  @IsString() @MinLength(1) @MaxLength(200) to!: string;
  @IsBoolean() oldPartsHanded!: boolean;
}

export class Undo {
  @IsOptional() @IsString() @MaxLength(300) what?: string;
}
