/** Payloads about the amp's energy: power, the proof that it is dead, gates. */

import { IsArray, IsBoolean, IsIn, IsNumber, IsOptional, IsString, Max, MaxLength, Min, MinLength } from "class-validator";
import { STATION_IDS, type StationId } from "../stations";
import { MOST_VOLTS } from "./words";

export class Mains {
  @IsNumber() @Min(0) @Max(500) volts!: number;
}

export class Power {
  @IsIn(["on", "off"]) state!: "on" | "off";
  /** Off with the plug in is still a charged amp that one switch makes live. */
  @IsOptional() @IsIn(["in", "out"]) plug?: "in" | "out";
  @IsOptional() @IsIn(["straight", "lamp", "variable", "lamp and variable"]) through?: string;
  @IsOptional() @IsArray() @IsString({ each: true }) @MaxLength(20, { each: true }) without?: string[];
}

/** The short check before live work, answered once per power-on. */
export class LiveCheck {
  @IsArray() @IsString({ each: true }) @MaxLength(200, { each: true }) confirmed!: string[];
}

export class MeterCheck {
  /** The known source: "9 V battery", "calibrator". */
  @IsString() @MinLength(1) @MaxLength(200) source!: string;
  @IsNumber() @Min(-MOST_VOLTS) @Max(MOST_VOLTS) expected!: number;
  @IsNumber() @Min(-MOST_VOLTS) @Max(MOST_VOLTS) read!: number;
}

/** A reservoir named by hand, where the amp has no circuit. */
export class NamedReservoir {
  @IsString() @MinLength(1) @MaxLength(40) name!: string;
  @IsNumber() @Min(1e-9) @Max(1) farads!: number;
  @IsNumber() @Min(0) @Max(MOST_VOLTS) volts!: number;
}

export class DischargeReading {
  @IsString() @MinLength(1) @MaxLength(40) reservoir!: string;
  @IsNumber() @Min(-MOST_VOLTS) @Max(MOST_VOLTS) volts!: number;
}

export class GatePassed {
  @IsIn(STATION_IDS) station!: StationId;
  @IsString() @MinLength(3) @MaxLength(1000) reason!: string;
  @IsBoolean() understood!: boolean;
}

/** The discharge tool measured across its clips: an open one bleeds nothing. */
export class ToolCheck {
  /** Ohms that it was made with, and that the meter shows. */
  @IsNumber() @Min(1) @Max(1e7) marked!: number;
  @IsNumber() @Min(0) @Max(1e12) read!: number;
}

/** A reservoir whose terminals cannot be reached: it stays unproven, and the tape says why. */
export class ReservoirUnread {
  @IsString() @MinLength(1) @MaxLength(40) reservoir!: string;
  @IsString() @MinLength(3) @MaxLength(1000) reason!: string;
}

/** After an absence somebody looked, and the amp was still on. */
export class StillLive {
  /** Seconds for which nobody watched. */
  @IsNumber() @Min(0) @Max(1e9) away!: number;
}
