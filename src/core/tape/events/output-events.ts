/** Payloads of the output stage: bias tables, adjusters, waveforms, grid volts under drive, tubes fitted from stock, figures at the load. */

import { ArrayMaxSize, IsArray, IsIn, IsInt, IsNumber, Max, Min } from "class-validator";
import { IsListOf, IsText, IsTextList, Optional } from "../../checks/accepted";
import { CURRENT_WAYS, IDLE_SCHOOLS, SIGNAL_FIGURES, TAKEN_WHEN, TEXT_LIMIT } from "./words";
import type { CurrentWay, IdleSchool, SignalFigureKind, TakenWhen } from "./words";

export class BiasRowTaken {
  @IsText(40) tube!: string;
  @IsIn(CURRENT_WAYS) way!: CurrentWay;
  @IsNumber() @Min(0) @Max(5000) plateMilliamps!: number;
  @Optional() @IsNumber() @Min(0) @Max(2000) screenMilliamps?: number;
  /** Measured across its resistor, or the type's share. */
  @Optional() @IsIn(["measured", "type", "none"]) screenBy?: "measured" | "type" | "none";
  @Optional() @IsNumber() @Min(0) @Max(3000) plateVolts?: number;
  @Optional() @IsNumber() @Min(0) @Max(1000) plateWatts?: number;
  /** Parts of the plate rating. */
  @Optional() @IsNumber() @Min(0) @Max(100) ofRating?: number;
}

export class RailTaken {
  @IsText(80) point!: string;
  @IsNumber() @Min(-3000) @Max(3000) volts!: number;
  /** What was predicted for it before the adjuster was turned. */
  @Optional() @IsNumber() @Min(-3000) @Max(3000) predicted?: number;
}

/** The idle of an output stage, as it was found or as it was left. */
export class BiasTaken {
  /** Name of the stage's transformer. */
  @IsText(40) stage!: string;
  @IsIn(TAKEN_WHEN) when!: TakenWhen;
  @IsListOf(() => BiasRowTaken, 16, { least: 1 }) rows!: BiasRowTaken[];
  @IsListOf(() => RailTaken, 30) rails!: RailTaken[];
  @Optional() @IsIn(IDLE_SCHOOLS) school?: IdleSchool;
  @Optional() @IsNumber() @Min(0) @Max(5000) targetMilliamps?: number;
  @Optional() @IsNumber() @Min(0) @Max(500) mains?: number;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) note?: string;
}

/** What label and manual say of the idle, and which of them is gone by, with the reason. */
export class BiasFigures {
  @IsText(40) stage!: string;
  @Optional() @IsNumber() @Min(0) @Max(5000) labelMilliamps?: number;
  @Optional() @IsNumber() @Min(0) @Max(5000) manualMilliamps?: number;
  @IsIn(IDLE_SCHOOLS) chosen!: IdleSchool;
  @Optional() @IsNumber() @Min(0) @Max(5000) ownMilliamps?: number;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) reason?: string;
}

/** An adjuster was turned. */
export class Adjusted {
  @IsText(40) control!: string;
  /** Where it stands now, 0 to 1, as the model puts it; left out where nobody knows. */
  @Optional() @IsNumber() @Min(0) @Max(1) position?: number;
  @Optional() @IsText(300, { empty: true }) why?: string;
}

/** One period at the load, computed or from an oscilloscope, with its figures. */
export class WaveformTaken {
  @IsIn(TAKEN_WHEN) when!: TakenWhen;
  @IsIn(["computed", "oscilloscope"]) source!: "computed" | "oscilloscope";
  @Optional() @IsNumber() @Min(0) @Max(5000) idleMilliamps?: number;
  @Optional() @IsNumber() @Min(0) @Max(10000) watts?: number;
  /** Depth of the crossover notch and distortion, parts; volts peak of the harmonics from the first on. */
  @IsNumber() @Min(0) @Max(1) notch!: number;
  @IsNumber() @Min(0) @Max(100) distortion!: number;
  @IsArray() @ArrayMaxSize(9) @IsNumber({}, { each: true }) harmonics!: number[];
  @IsArray() @ArrayMaxSize(400) @IsNumber({}, { each: true }) @Min(-3000, { each: true }) @Max(3000, { each: true }) wave!: number[];
  @Optional() @IsText(300, { empty: true }) name?: string;
}

/** Volts at an output grid at rest, under drive beyond clip, and after it. */
export class GridRead {
  @IsText(40) tube!: string;
  @IsNumber() @Min(-500) @Max(500) rest!: number;
  @IsNumber() @Min(-500) @Max(500) driven!: number;
  @IsNumber() @Min(-500) @Max(500) after!: number;
  /** Seconds from the end of the drive to the last of them. */
  @Optional() @IsNumber() @Min(0) @Max(600) seconds?: number;
}

/** Blocking as it is, or with a remedy: what was computed of it. */
export class BlockingFound {
  @IsIn(TAKEN_WHEN) when!: TakenWhen;
  @IsText(300) what!: string;
  @IsTextList(20, 80) set!: string[];
  /** Volts by which the grid shifts; seconds until it is back, and for which the stage is cut off or nearly so. */
  @IsNumber() @Min(-500) @Max(500) shift!: number;
  @Optional() @IsNumber() @Min(0) @Max(600) recovery?: number;
  @IsNumber() @Min(0) @Max(600) deaf!: number;
  @Optional() @IsNumber() @Min(0) @Max(20000) bass?: number;
  @Optional() @IsNumber() @Min(0) @Max(10000) watts?: number;
}

/** A tube from the shop's stock went into a socket, with its last test. */
/** Which type is in a socket, as it is read off the tube or the chassis. */
export class TubeSeen {
  @IsText(40) tube!: string;
  @IsText(40) type!: string;
}

export class TubeFitted {
  @IsText(40) tube!: string;
  @IsText(40) type!: string;
  /** Its number in the stock. */
  @IsInt() @Min(1) @Max(10_000_000) number!: number;
  /** Current in parts of the sheet's tube, where the test gives it: the model's tube has it then. */
  @Optional() @IsNumber() @Min(0.05) @Max(3) strength?: number;
  @Optional() @IsText(300, { empty: true }) test?: string;
}

/** A figure at the load. */
export class SignalFigure {
  @IsIn(SIGNAL_FIGURES) kind!: SignalFigureKind;
  /** Watts, a number, volts rms, volts rms at `hertz`, none for a square wave. */
  @Optional() @IsNumber() @Min(0) @Max(1e6) value?: number;
  @Optional() @IsNumber() @Min(0) @Max(1e6) hertz?: number;
  /** Ohms of the load. */
  @Optional() @IsNumber() @Min(0) @Max(1e6) load?: number;
  /** Of a residual: decibels under full power. Of a response: decibels against 1 kHz. */
  @Optional() @IsNumber() @Min(-300) @Max(300) decibels?: number;
  @Optional() @IsText(1000, { empty: true }) note?: string;
}
