/** Payloads about capacitors: what was read off them, how they tested, a conductive board, reforming. */

import { ArrayMaxSize, ArrayMinSize, IsArray, IsBoolean, IsIn, IsInt, IsNumber, Max, Min } from "class-validator";
import { IsListOf, IsText, IsTextList, Optional } from "../../checks/accepted";
import {
  CAPACITOR_PLACES,
  CAPACITOR_TESTS,
  CASE_LEADS,
  MOST_LINES,
  REFORM_RESULTS,
  REFORM_TURNS,
  TEXT_LIMIT,
  type CapacitorPlace,
  type CapacitorTestKind,
  type CaseLead,
  type ReformResult,
  type ReformTurnKind,
} from "./words";

/** What was read off a capacitor; it counts before the circuit file. */
export class CapacitorNoted {
  @IsText(40) part!: string;
  @Optional() @IsNumber() @Min(1e-13) @Max(10) farads?: number;
  @Optional() @IsNumber() @Min(1) @Max(20000) volts?: number;
  @Optional() @IsText(60, { empty: true }) kind?: string;
  @Optional() @IsInt() @Min(1900) @Max(2100) year?: number;
  /** Temperature class, degrees Celsius; its rated ripple current in amperes. */
  @Optional() @IsNumber() @Min(20) @Max(250) celsius?: number;
  @Optional() @IsNumber() @Min(1e-4) @Max(50) ripple?: number;
  /** As printed: maker's line, series, colours. */
  @Optional() @IsText(200, { empty: true }) marking?: string;
  /** Of one that a failure makes dangerous, whether the drawing has it or not. */
  @Optional() @IsIn(CAPACITOR_PLACES) place?: CapacitorPlace;
  @Optional() @IsIn(["none", "X", "Y"]) safetyClass?: "none" | "X" | "Y";
  /** What its case is joined to, and which lug each section is on. */
  @Optional() @IsIn(CASE_LEADS) caseLead?: CaseLead;
  @Optional() @IsText(200, { empty: true }) lug?: string;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) note?: string;
}

/** One measurement of a capacitor out of circuit or with a leg lifted. */
export class CapacitorTest {
  @IsText(40) part!: string;
  @IsIn(CAPACITOR_TESTS) kind!: CapacitorTestKind;
  /** In the base unit of its kind. */
  @IsNumber() @Min(0) @Max(1e9) value!: number;
  /** Volts of a leakage test; hertz of the others. */
  @Optional() @IsNumber() @Min(0.01) @Max(20000) volts?: number;
  @Optional() @IsNumber() @Min(1) @Max(1e7) hertz?: number;
  @Optional() @IsText(1000, { empty: true }) note?: string;
}

/** One step of telling a conductive board from a leaky capacitor. */
export class BoardTest {
  /** The point of the grid, and the capacitor before it. */
  @IsText(80) grid!: string;
  @IsText(40) part!: string;
  @IsText(40) test!: string;
  @IsText(40) outcome!: string;
}

/** A strip was cleaned and dried: readings before and after it compare. */
export class BoardCleaned {
  @IsTextList(20, 80) grids!: string[];
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) how?: string;
}

export class ReformedPart {
  @IsText(40) part!: string;
  @IsNumber() @Min(1e-9) @Max(1) farads!: number;
  /** Rated volts, and those that it is to be formed to. */
  @IsNumber() @Min(1) @Max(2000) rated!: number;
  @IsNumber() @Min(1) @Max(2000) target!: number;
  /** Amperes that it may leak at the target, and the formula that says so. */
  @IsNumber() @Min(1e-9) @Max(1) limit!: number;
  @Optional() @IsText(300, { empty: true }) formula?: string;
}

/** Capacitors go on a supply through a resistor each. */
export class ReformBegun {
  @IsListOf(() => ReformedPart, 12, { least: 1 }) parts!: ReformedPart[];
  /** Ohms in series with each. */
  @IsNumber() @Min(100) @Max(1e8) ohms!: number;
  /** Volts of the supply, step by step. */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(40)
  @IsNumber({}, { each: true })
  @Min(1, { each: true })
  @Max(2000, { each: true })
  steps!: number[];
  @IsNumber() @Min(0) @Max(1440) dwellMinutes!: number;
  /** Off the amp's own parts, so that nothing of it bleeds them. */
  @IsBoolean() lifted!: boolean;
  /** Simulated seconds for one of the bench, where the tester is simulated. */
  @Optional() @IsNumber() @Min(1) @Max(10000) pace?: number;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) note?: string;
}

export class ReformPoint {
  @IsInt() @Min(1) @Max(MOST_LINES) reform!: number;
  @IsText(40) part!: string;
  /** Under voltage so far, pauses left out. */
  @IsNumber() @Min(0) @Max(1e8) seconds!: number;
  /** Volts of the supply, and across the capacitor. */
  @IsNumber() @Min(0) @Max(2000) supply!: number;
  @IsNumber() @Min(-100) @Max(2000) volts!: number;
  @IsNumber() @Min(0) @Max(10) amps!: number;
  /** Last digit of the meter's range, amperes. */
  @Optional() @IsNumber() @Min(0) @Max(1) digit?: number;
}

export class ReformTurn {
  @IsInt() @Min(1) @Max(MOST_LINES) reform!: number;
  @IsIn(REFORM_TURNS) what!: ReformTurnKind;
  /** Volts that the supply is set to by it. */
  @IsNumber() @Min(0) @Max(2000) supply!: number;
  @Optional() @IsIn(REFORM_RESULTS) result?: ReformResult;
  /** The part that a result is about; all unless given. */
  @Optional() @IsText(40) part?: string;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) why?: string;
}
