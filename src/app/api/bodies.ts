/** The JSON bodies that routes take, each with its class: what a class does not know is refused. */

import "reflect-metadata";
import { ArrayMaxSize, IsArray, IsBoolean, IsDefined, IsIn, IsInt, IsNumber, Matches, Max, Min } from "class-validator";
import { IsA, IsStoredHash, IsText, Optional } from "@/core/checks/accepted";
import { classErrors } from "@/core/checks/class-errors";
import { ROLES, type Role } from "@/core/shop/people";
import { UserError } from "@/server/errors";
import { MOST_AT_ONCE, type IncomingEvent } from "@/server/incoming";
import { readJson } from "./respond";

/** The most that is stored of one circuit file. */
const MOST_NETLIST = 1_000_000;
const MOST_NUMBER = 999_999_999;

export class NewJobBody {
  @IsText(12) who!: string;
  @Optional() @IsText(200, { empty: true }) owner?: string;
  @Optional() @IsText(200, { empty: true }) contact?: string;
  /** Where the name is known with another contact: whether it is the same person. */
  @Optional() @IsBoolean() sameOwner?: boolean;
  @Optional() @IsText(200, { empty: true }) amp?: string;
  @Optional() @IsText(200, { empty: true }) serial?: string;
  @Optional() @IsText(200, { empty: true }) maker?: string;
  @Optional() @IsInt() @Min(1) @Max(MOST_NUMBER) modelId?: number;
  @Optional() @IsText(MOST_NETLIST, { empty: true }) netlist?: string;
  @Optional() @IsText(4000, { empty: true }) complaint?: string;
}

export class CircuitBody {
  @IsText(12) who!: string;
  @Optional() @IsText(MOST_NETLIST) netlist?: string;
  @Optional() @IsInt() @Min(1) @Max(MOST_NUMBER) modelId?: number;
}

export class ModelBody {
  @IsText(MOST_NETLIST) netlist!: string;
}

export class PlaceBody {
  @IsText(12) who!: string;
  @IsText(40) point!: string;
  @IsStoredHash("the hash of a photo is wanted") hash!: string;
  @IsNumber() @Min(0) @Max(1) x!: number;
  @IsNumber() @Min(0) @Max(1) y!: number;
}

export class UnmarkBody {
  @IsText(40) point!: string;
}

export class EventsBody {
  /** Checked one by one when they are appended. */
  @IsDefined() events!: IncomingEvent[];
}

/** A reading as a script or bridge sends it. */
export interface SentReading extends Record<string, unknown> {
  id?: string;
  at?: string;
  conditions?: object;
}

export class ReadingsBody {
  @Optional() @IsText(12) who?: string;
  @IsArray() @ArrayMaxSize(MOST_AT_ONCE) readings!: SentReading[];
}

const INITIALS = /^[\p{L}.\- ]{1,12}$/u;
const INITIALS_WANTED = { message: "initials of 1 to 12 letters are wanted" };
/** Short enough for argon2 to be quick with, long enough for any sentence. */
const MOST_PASSPHRASE = 200;
const LEAST_PASSPHRASE = 10;

export class SessionBody {
  @Matches(INITIALS, INITIALS_WANTED) initials!: string;
  @IsText(MOST_PASSPHRASE) passphrase!: string;
}

export class FirstOwnerBody {
  /** As the terminal shows it. */
  @IsText(100) code!: string;
  @Matches(INITIALS, INITIALS_WANTED) initials!: string;
  @IsText(200) name!: string;
  @IsText(MOST_PASSPHRASE, { least: LEAST_PASSPHRASE }) passphrase!: string;
}

export class PersonBody {
  @Matches(INITIALS, INITIALS_WANTED) initials!: string;
  @IsText(200) name!: string;
  @IsIn(ROLES) role!: Role;
  @IsText(MOST_PASSPHRASE, { least: LEAST_PASSPHRASE }) passphrase!: string;
}

export class PersonChangeBody {
  @Optional() @IsText(200) name?: string;
  @Optional() @IsIn(ROLES) role?: Role;
  @Optional() @IsBoolean() active?: boolean;
  @Optional() @IsText(MOST_PASSPHRASE, { least: LEAST_PASSPHRASE }) passphrase?: string;
}

export class TokenBody {
  @IsText(60) bench!: string;
}

/** Reads a JSON body and checks it whole. @throws UserError 400 or 422 with one sentence a field. */
export async function readBody<T extends object>(request: Request, shape: new () => T): Promise<T> {
  const body = await readJson(request);
  if (typeof body !== "object" || body === null || Array.isArray(body))
    throw new UserError(400, `The request is ${JSON.stringify(body).slice(0, 40)}; an object is wanted.`);
  const details = classErrors(shape, body);
  if (details.length > 0) throw new UserError(422, details[0]!.message, details);
  return body as T;
}

export class StockTubeBody {
  @IsText(12) who!: string;
  @IsText(40) type!: string;
  @IsText(100) place!: string;
  @Optional() @IsText(300, { empty: true }) note?: string;
}

export class StockTestBody {
  @IsText(12) who!: string;
  @IsNumber() @Min(0) @Max(2000) milliamps!: number;
  @Optional() @IsNumber() @Min(0) @Max(100) gm?: number;
  @IsNumber() @Min(1) @Max(2000) plateVolts!: number;
  @Optional() @IsNumber() @Min(1) @Max(2000) screenVolts?: number;
  @IsNumber() @Min(-300) @Max(50) gridVolts!: number;
  @Optional() @IsText(100, { empty: true }) shorts?: string;
  @Optional() @IsText(300, { empty: true }) note?: string;
}

export class StockMoveBody {
  @IsText(12) who!: string;
  @IsText(100) place!: string;
}

export class StockPartBody {
  @IsText(12) who!: string;
  @IsIn(["C", "R"]) letter!: "C" | "R";
  @IsNumber() @Min(1e-13) @Max(1e9) value!: number;
  @IsNumber() @Min(0.01) @Max(20000) rating!: number;
  @IsText(60) kind!: string;
  @Optional() @IsNumber() @Min(20) @Max(250) celsius?: number;
  @Optional() @IsNumber() @Min(1) @Max(1e6) hours?: number;
  @Optional() @IsNumber() @Min(1e-4) @Max(50) ripple?: number;
  @Optional() @IsNumber() @Min(0.5) @Max(500) diameter?: number;
  @Optional() @IsNumber() @Min(0.5) @Max(500) length?: number;
  @Optional() @IsText(40, { empty: true }) mounting?: string;
  @Optional() @IsIn(["X", "Y"]) safetyClass?: "X" | "Y";
  @Optional()
  @IsArray()
  @ArrayMaxSize(6)
  @IsNumber({}, { each: true })
  @Min(1e-13, { each: true })
  @Max(1, { each: true })
  sections?: number[];
  @Optional() @IsNumber() @Min(0) @Max(1e6) price?: number;
  @Optional() @IsText(100, { empty: true }) place?: string;
  @IsInt() @Min(0) @Max(100000) pieces!: number;
}

export class PiecesBody {
  @IsText(12) who!: string;
  /** Below zero for pieces that were taken. */
  @IsInt() @Min(-100000) @Max(100000) pieces!: number;
  @Optional() @IsText(300, { empty: true }) why?: string;
}

export class MinimumBody {
  @IsText(12) who!: string;
  @IsInt() @Min(0) @Max(100000) minimum!: number;
}

export class EvidenceBody {
  @Optional() @IsInt() @Min(1) @Max(1e9) job?: number;
  @Optional() @IsInt() @Min(1) @Max(1e6) line?: number;
  @IsText(300) text!: string;
}

export class BadNameBody {
  @IsText(12) who!: string;
  @IsIn(["C", "R", "L", "V"]) letter!: "C" | "R" | "L" | "V";
  @IsText(100) words!: string;
  @Optional() @IsInt() @Min(1900) @Max(2100) fromYear?: number;
  @Optional() @IsInt() @Min(1900) @Max(2100) toYear?: number;
  @IsText(100) does!: string;
  @IsA(() => EvidenceBody) evidence!: EvidenceBody;
}

export class MoreEvidenceBody extends EvidenceBody {
  @IsText(12) who!: string;
  /** The name no longer stands, for the reason in the text. */
  @Optional() @IsBoolean() withdraws?: boolean;
}
