/** What a shop sets for itself. Every limit is conservative until the shop says otherwise. */

import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsInt,
  IsNumber,
  IsTimeZone,
  Matches,
  Max,
  Min,
  ValidateIf,
} from "class-validator";
import { IsA, IsText } from "../checks/accepted";
import { CAPACITOR_SCHOOLS, type CapacitorSchool } from "./capacitor-school";
import { MoneySettings } from "./money-settings-class";

export class SafetyLimits {
  /** Earth bond, ohms at most, plug pin to bare chassis. */
  @IsNumber() @Min(0.001) @Max(10) earthBondOhms!: number;
  /** Insulation, ohms at least, mains conductors to chassis at 500 V. */
  @IsNumber() @Min(1e4) @Max(1e12) insulationOhms!: number;
  /** Leakage to earth, amperes at most. */
  @IsNumber() @Min(1e-6) @Max(0.01) leakageAmps!: number;
}

/** Backups that a running shop makes by itself, once a day. */
export class Backups {
  /** Where; nothing for the folder "backups" of the data folder. */
  @IsText(500, { empty: true }) folder!: string;
  /** How many are kept; none are made when it is 0. */
  @IsInt() @Min(0) @Max(365) keep!: number;
}

export class Settings {
  @IsText(200) shopName!: string;
  @IsText(500, { empty: true }) shopAddress!: string;
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(30)
  @ArrayUnique()
  @Matches(/^[\p{L}.\- ]{1,12}$/u, { each: true, message: "initials of 1 to 12 letters" })
  technicians!: string[];
  @IsNumber() @Min(1) @Max(60) safeVolts!: number;
  @IsNumber() @Min(0.1) @Max(24) proofHours!: number;
  /** Minutes for which a meter that was proved on a known source counts as proved. */
  @IsNumber() @Min(1) @Max(240) meterMinutes!: number;
  /** Name of the shop's own source for proving a meter, of whatever volts; none where there is only the rule of nine volts. */
  @IsText(100, { empty: true }) meterSource!: string;
  @IsNumber() @Min(90) @Max(260) mainsVolts!: number;
  /** Of the shop, "Europe/Oslo": the day on its bills, quotes and books. Nothing for that of the server. */
  @ValidateIf((_, zone) => zone !== "")
  @IsTimeZone({ message: "a time zone such as Europe/Oslo, America/New_York or UTC is wanted" })
  timeZone!: string;
  @IsIn([".", ","]) decimal!: "." | ",";
  @IsIn(["tube", "valve"]) tubeWord!: "tube" | "valve";
  @IsIn(["mains", "line"]) mainsWord!: "mains" | "line";
  /** How parts are drawn: resistors as boxes or as zigzags. */
  @IsIn(["boxes", "zigzags"]) symbols!: "boxes" | "zigzags";
  /** What is done with old electrolytics when nothing speaks against it. */
  @IsIn(CAPACITOR_SCHOOLS) capacitorSchool!: CapacitorSchool;
  @IsText(5, { empty: true }) currency!: string;
  @IsA(() => MoneySettings) money!: MoneySettings;
  @IsA(() => SafetyLimits) limits!: SafetyLimits;
  @IsA(() => Backups) backups!: Backups;
}
