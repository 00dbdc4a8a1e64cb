/** What a shop sets for itself. Every limit is conservative until the shop says otherwise. */

import { Type } from "class-transformer";
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsNumber,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from "class-validator";

export class SafetyLimits {
  /** Earth bond, ohms at most, plug pin to bare chassis. */
  @IsNumber() @Min(0.001) @Max(10) earthBondOhms!: number;
  /** Insulation, ohms at least, mains conductors to chassis at 500 V. */
  @IsNumber() @Min(1e4) @Max(1e12) insulationOhms!: number;
  /** Leakage to earth, amperes at most. */
  @IsNumber() @Min(1e-6) @Max(0.01) leakageAmps!: number;
}

export class Settings {
  @IsString() @MinLength(1) @MaxLength(200) shopName!: string;
  @IsString() @MaxLength(500) shopAddress!: string;
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(30)
  @IsString({ each: true })
  @Matches(/^[\p{L}.\- ]{1,12}$/u, { each: true, message: "initials of 1 to 12 letters" })
  technicians!: string[];
  @IsNumber() @Min(1) @Max(60) safeVolts!: number;
  @IsNumber() @Min(0.1) @Max(24) proofHours!: number;
  @IsNumber() @Min(90) @Max(260) mainsVolts!: number;
  @IsIn([".", ","]) decimal!: "." | ",";
  @IsIn(["tube", "valve"]) tubeWord!: "tube" | "valve";
  @IsIn(["mains", "line"]) mainsWord!: "mains" | "line";
  @IsString() @MaxLength(5) currency!: string;
  @ValidateNested() @Type(() => SafetyLimits) limits!: SafetyLimits;
}
