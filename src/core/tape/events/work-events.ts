/** Payloads of work, approval, safety tests and return. */

import { ArrayMaxSize, ArrayUnique, IsArray, IsBoolean, IsIn, IsInt, IsNumber, Max, Min } from "class-validator";
import { IsDay, IsDayOrTime, IsListOf, IsStoredHash, IsText, IsTextList, Optional } from "../../checks/accepted";
import * as texts from "../../texts/checks";
import {
  ANSWERED_BY,
  FIXINGS,
  MOST_LINES,
  MOST_MONEY,
  OLD_PART_PLACES,
  OPTION_AIMS,
  OWNER_ANSWERS,
  PART_SOURCES,
  SAFETY_TESTS,
  TEXT_LIMIT,
  type AnsweredBy,
  type Fixing,
  type OldPartPlace,
  type OptionAim,
  type OwnerAnswer,
  type PartSource,
  type SafetyTestKind,
} from "./words";

export class Change {
  /** "C6", "V4", "mains cord". */
  @IsText(100) position!: string;
  @IsIn(["replacement", "experiment", "repair"]) kind!: "replacement" | "experiment" | "repair";
  @Optional() @IsText(300, { empty: true }) oldPart?: string;
  @Optional() @IsText(300, { empty: true }) oldMeasured?: string;
  @IsText(300) newPart!: string;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) reason?: string;
  @IsBoolean() reversible!: boolean;
  @Optional() @IsIn(OLD_PART_PLACES) oldWent?: OldPartPlace;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) fixing?: string;
  /** What was seen to when it was fixed. */
  @Optional() @IsArray() @ArrayUnique() @IsIn(FIXINGS, { each: true }) fixings?: Fixing[];
  @Optional() @IsIn(PART_SOURCES) source?: PartSource;
  /** Number in the shop's stock of parts. */
  @Optional() @IsInt() @Min(1) @Max(1e9) stock?: number;
  /** Pieces that leave that drawer with this line; one unless given, none where another section of the same can took it. */
  @Optional() @IsInt() @Min(0) @Max(100) pieces?: number;
  /** Date code, lot, or what is printed on it. */
  @Optional() @IsText(100, { empty: true }) batch?: string;
  /** What the part costs the shop, without its margin. */
  @Optional() @IsNumber() @Min(0) @Max(MOST_MONEY) cost?: number;
  @Optional() @IsInt() @Min(0) @Max(100_000) minutes?: number;
  @Optional() @IsStoredHash(texts.photoStoredHere) photoBefore?: string;
  @Optional() @IsStoredHash(texts.photoStoredHere) photoAfter?: string;
  /** The task that it fulfils, by the line that it was first planned in. */
  @Optional() @IsInt() @Min(1) @Max(MOST_LINES) planned?: number;
  /** Why it was done beyond what the owner agreed to. */
  @Optional() @IsText(TEXT_LIMIT) unagreed?: string;
  /** Of an experiment; "reverted" of any change: it was put back. */
  @Optional() @IsIn(["open", "kept", "reverted"]) outcome?: "open" | "kept" | "reverted";
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) result?: string;
  /** What it does to the circuit, in the engine's words: the new part's value and ratings, or what an experiment alters. */
  @Optional() @IsTextList(20, 80) set?: string[];
  /** What was checked before it was soldered, one sentence each, and which of it did not pass. */
  @Optional() @IsTextList(30, 300) checks?: string[];
  /** Of an experiment: what is expected of it, how it was before and after. */
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) hypothesis?: string;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) before?: string;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) after?: string;
}

/** One of several ways that a question offers. */
export class ApprovalOption {
  @IsText(100) name!: string;
  @Optional() @IsIn(OPTION_AIMS) aim?: OptionAim;
  @Optional() @IsNumber() @Min(0) @Max(MOST_MONEY) cost?: number;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) consequence?: string;
}

/** A question to the owner, or an answer to one or to a quote. The last answer stands. */
export class Approval {
  @IsText(TEXT_LIMIT) what!: string;
  @IsIn(OWNER_ANSWERS) answer!: OwnerAnswer;
  @Optional() @IsNumber() @Min(0) @Max(MOST_MONEY) cost?: number;
  /** The line that asked (a question or a quote), when this is its answer. */
  @Optional() @IsInt() @Min(1) @Max(MOST_LINES) asks?: number;
  /** Of a question: what it means for the owner, in their words. */
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) consequence?: string;
  /** Of a question: lines of the tape that show why: a reading, a finding, a waveform, a recording, a photo. */
  @Optional() @IsArray() @ArrayMaxSize(20) @ArrayUnique() @IsInt({ each: true }) @Min(1, { each: true }) evidence?: number[];
  @Optional() @IsListOf(() => ApprovalOption, 5) options?: ApprovalOption[];
  /** Of a question: the tasks that it is about, each by the line that it was first planned in. */
  @Optional() @IsArray() @ArrayMaxSize(100) @ArrayUnique() @IsInt({ each: true }) @Min(1, { each: true }) planned?: number[];
  /** Of an answer: which option was chosen, from 0. */
  @Optional() @IsInt() @Min(0) @Max(4) option?: number;
  /** Of the answer "part": the tasks, or of a quote the places of its lines from 0, that are declined. */
  @Optional() @IsArray() @ArrayMaxSize(200) @ArrayUnique() @IsInt({ each: true }) @Min(0, { each: true }) declined?: number[];
  /** Of an answer: the day, how it came, and who gave it. */
  @Optional() @IsDay() on?: string;
  @Optional() @IsIn(ANSWERED_BY) by?: AnsweredBy;
  @Optional() @IsText(200, { empty: true }) said?: string;
}

export class SafetyTest {
  @IsIn(SAFETY_TESTS) test!: SafetyTestKind;
  /** Ohms, ohms, amperes or amperes, by test; none for what is looked at. */
  @Optional() @IsNumber() @Min(0) @Max(1e13) value?: number;
  /** The limit that it was held against, in the same unit: kept, because settings change. */
  @Optional() @IsNumber() @Min(0) @Max(1e13) limit?: number;
  @IsBoolean() passed!: boolean;
  @Optional() @IsText(1000, { empty: true }) note?: string;
}

export class Waiting {
  @IsIn(["you", "owner", "part", "soak", "collection"]) on!: "you" | "owner" | "part" | "soak" | "collection";
  @Optional() @IsText(300, { empty: true }) what?: string;
  @Optional() @IsDayOrTime() until?: string;
  /** Of a part: its number in the shop's stock. */
  @Optional() @IsInt() @Min(1) @Max(1e9) stock?: number;
}

export class Advice {
  @IsText(TEXT_LIMIT, { empty: true }) text!: string;
  @Optional() @IsDay() nextService?: string;
}

export class Returned {
  @IsText(200) to!: string;
  @IsBoolean() oldPartsHanded!: boolean;
}

export class Undo {
  @Optional() @IsText(300, { empty: true }) what?: string;
}
