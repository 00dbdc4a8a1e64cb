/** The JSON bodies that routes take, each with its class: what a class does not know is refused. */

import "reflect-metadata";
import { ArrayMaxSize, IsArray, IsBoolean, IsDefined, IsIn, IsInt, IsNumber, Matches, Max, Min } from "class-validator";
import { IsStoredHash, IsText, Optional } from "@/core/checks/accepted";
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
