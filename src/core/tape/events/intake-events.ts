/** Payloads of the intake station. */

import { ArrayMaxSize, ArrayUnique, IsArray, IsIn, IsInt, IsNumber, Max, Min } from "class-validator";
import { IsDay, IsStoredHash, IsText, Optional } from "../../checks/accepted";
import { STATION_IDS, type StationId } from "../stations";
import { TEXT_LIMIT, WHEN, BRIEF_AIMS, type BriefAim } from "./words";
import * as texts from "../../texts/checks";

export class JobOpened {
  @IsText(200) owner!: string;
  @IsText(200) amp!: string;
  @Optional() @IsText(200, { empty: true }) contact?: string;
}

export class Complaint {
  @IsText(TEXT_LIMIT) words!: string;
  @IsArray() @ArrayUnique() @IsIn(WHEN, { each: true }) when!: string[];
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) use?: string;
}

export class Brief {
  /** Most important first. */
  @IsArray() @ArrayUnique() @ArrayMaxSize(4) @IsIn(BRIEF_AIMS, { each: true }) order!: BriefAim[];
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) mustNotChange?: string;
  /** In the shop's currency. */
  @Optional() @IsNumber() @Min(0) @Max(1e7) spendingLimit?: number;
  @Optional() @IsDay() dueDate?: string;
}

/** What an earlier technician is said to have done: to be checked, not a fact. */
export class Claim {
  @IsText(TEXT_LIMIT) text!: string;
  @Optional() @IsInt() @Min(1920) @Max(2100) year?: number;
}

export class Accessory {
  @IsText(200) name!: string;
  @IsIn(["here", "left at home"]) state!: "here" | "left at home";
  /** What to bridge to run without it. */
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) bridge?: string;
}

export class Photo {
  @IsStoredHash(texts.photoStoredHere) hash!: string;
  @IsText(300, { empty: true }) caption!: string;
  @IsIn(STATION_IDS) station!: StationId;
  @Optional() @IsText(200, { empty: true }) place?: string;
}

export class Reproduction {
  @IsIn(["yes", "no", "sometimes"]) reproduced!: "yes" | "no" | "sometimes";
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) settings?: string;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) instrument?: string;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) conditions?: string;
  /** Before the work, or the same test again at the end. */
  @IsIn(["intake", "prove"]) run!: "intake" | "prove";
}

export class Identity {
  @Optional() @IsText(200, { empty: true }) maker?: string;
  @Optional() @IsText(200, { empty: true }) model?: string;
  @Optional() @IsText(200, { empty: true }) revision?: string;
  @Optional() @IsText(200, { empty: true }) serial?: string;
}

export class DateCode {
  /** The part that carries it: "volume pot", "mains transformer". */
  @IsText(200) place!: string;
  @IsText(60) code!: string;
}
