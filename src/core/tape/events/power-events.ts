/** Payloads about the amp's energy: power, the proof that it is dead, gates. */

import { IsBoolean, IsIn, IsNumber, Max, Min } from "class-validator";
import { IsText, IsTextList, Optional } from "../../checks/accepted";
import { STATION_IDS, type StationId } from "../stations";
import { MOST_VOLTS } from "./words";

export class Mains {
  @IsNumber() @Min(0) @Max(500) volts!: number;
}

export class Power {
  @IsIn(["on", "off"]) state!: "on" | "off";
  /** Off with the plug in is still a charged amp that one switch makes live. */
  @Optional() @IsIn(["in", "out"]) plug?: "in" | "out";
  @Optional() @IsIn(["straight", "lamp", "variable", "lamp and variable"]) through?: string;
  @Optional() @IsTextList(40, 20) without?: string[];
  /** Through the isolation transformer as well: a set with one side of the line on its chassis needs it at every powered step. */
  @Optional() @IsBoolean() isolated?: boolean;
}

/** The short check before live work, answered once per power-on. */
export class LiveCheck {
  @IsTextList(40, 200) confirmed!: string[];
}

export class MeterCheck {
  /** The known source: "9 V battery", "calibrator". */
  @IsText(200) source!: string;
  @IsNumber() @Min(-MOST_VOLTS) @Max(MOST_VOLTS) expected!: number;
  @IsNumber() @Min(-MOST_VOLTS) @Max(MOST_VOLTS) read!: number;
  /** Which meter, where the bench has several: the same one has to be proved before and after. */
  @Optional() @IsText(60) meter?: string;
}

/** A reservoir named by hand, where the amp has no circuit. */
export class NamedReservoir {
  @IsText(40) name!: string;
  @IsNumber() @Min(1e-9) @Max(1) farads!: number;
  @IsNumber() @Min(0) @Max(MOST_VOLTS) volts!: number;
}

export class DischargeReading {
  @IsText(40) reservoir!: string;
  @IsNumber() @Min(-MOST_VOLTS) @Max(MOST_VOLTS) volts!: number;
}

/** The discharge tool is clipped on and stays, or comes off: while it is on, what it discharges cannot charge. */
export class Clip {
  @IsText(40) reservoir!: string;
  @IsIn(["on", "off"]) state!: "on" | "off";
}

/** An amp that went back is here again. */
export class TakenIn {
  @IsText(1000, { least: 3 }) why!: string;
}

/**
 * All lines before this one came from elsewhere, in an archive: their initials are what it claims, its money is in nobody's books here, and
 * how its amp stood is not known. Written by the server.
 */
export class BroughtIn {
  @IsText(200) from!: string;
}

/** The owner of the shop takes the money of the lines that were brought in into the books. */
export class BooksTaken {
  @IsText(1000, { least: 3 }) why!: string;
}

/** The job has another circuit from here on: its reservoirs are not those that were read. Written by the server with the change itself. */
export class CircuitGiven {
  /** Of the model; none where the circuit was taken away. */
  @Optional() @IsText(200) name?: string;
}

export class GatePassed {
  @IsIn(STATION_IDS) station!: StationId;
  @IsText(1000, { least: 3 }) reason!: string;
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
  @IsText(40) reservoir!: string;
  @IsText(1000, { least: 3 }) reason!: string;
}

/** After an absence somebody looked, and the amp was still on. */
export class StillLive {
  /** Seconds for which nobody watched. */
  @IsNumber() @Min(0) @Max(1e9) away!: number;
}
