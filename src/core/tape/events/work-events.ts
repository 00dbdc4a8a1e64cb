/** Payloads of work, approval, safety tests and return. */

import { IsBoolean, IsIn, IsInt, IsNumber, Max, Min } from "class-validator";
import { IsDay, IsDayOrTime, IsText, IsTextList, Optional } from "../../checks/accepted";
import { MOST_LINES, TEXT_LIMIT, OLD_PART_PLACES, SAFETY_TESTS, type OldPartPlace, type SafetyTestKind } from "./words";

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
  /** Of an experiment. */
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

export class Approval {
  @IsText(TEXT_LIMIT) what!: string;
  @IsIn(["asked", "yes", "no"]) answer!: "asked" | "yes" | "no";
  @Optional() @IsNumber() @Min(0) @Max(1e7) cost?: number;
  /** The line that asked, when this is its answer. */
  @Optional() @IsInt() @Min(1) @Max(MOST_LINES) asks?: number;
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
}

export class BillLine {
  @IsText(300) text!: string;
  @IsNumber() @Min(-1e6) @Max(1e6) amount!: number;
  @IsIn(["labour", "parts", "other"]) kind!: "labour" | "parts" | "other";
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
