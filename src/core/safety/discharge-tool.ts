/** The discharge tool: sizing its resistor for what an amp stores, and judging one that is at hand. */

import { nearestInSeries } from "../quantity/series";
import { ratingFor, STANDARD_WATTS } from "../quantity/ratings";
import { formatDuration, formatQuantity, formatVolts } from "../quantity/format";
import { dischargePlan, type DischargePlan } from "../supply/stored-energy";
import * as texts from "../texts/safety";

/**
 * Above this many amperes copper contacts draw an arc as they touch: about 0.4 A.
 * Source: R. Holm, "Electric Contacts", minimum arcing current of copper.
 */
export const SPARK_AMPS = 0.4;
/** A wirewound resistor bears ten times its rated watts for five seconds. Usual figure of published data sheets. */
const PULSE_TIMES = 10;
const PULSE_SECONDS = 5;
/** A hand holds a clip on a charged rail for no longer than this. */
export const LONGEST_SECONDS = 120;
/** Seconds that bleeding should take where nobody asks for another time. */
export const USUAL_SECONDS = 10;

/** Most volts across one body by its watts. Usual figures of published data sheets: the maker's own counts. */
const BODY_VOLTS: readonly (readonly [watts: number, volts: number])[] = [
  [0.25, 250],
  [0.5, 350],
  [2, 500],
  [7, 750],
  [Infinity, 1000],
];

/** What a body must bear beyond the rail that it is clipped to. */
const BODY_HEADROOM = 1.1;

/** Most volts that a resistor body of so many watts bears. */
export function bodyVolts(watts: number): number {
  return BODY_VOLTS.find(([upTo]) => watts <= upTo)![1];
}

/** Watts that a body must be rated for: a tenth of the peak while the pulse is short, the average where it is not. */
export function wattsWanted(plan: Pick<DischargePlan, "peakWatts" | "averageWatts" | "seconds">): number {
  return Math.max(plan.peakWatts / PULSE_TIMES, plan.seconds > PULSE_SECONDS ? plan.averageWatts : 0);
}

export interface SizedTool {
  ohms: number;
  /** Rating to fit, from what is sold. */
  watts: number;
  /** Bodies in series so that each bears its share of the volts, and what one of them is then. */
  bodies: number;
  ohmsEach: number;
  wattsEach: number;
  plan: DischargePlan;
  /** In one line: why this value. */
  why: string;
}

/**
 * The largest E12 resistance that still bleeds `farads` from `volts` to `safeVolts` within `seconds`, but none that sparks.
 * A larger one is slower, a smaller one takes more peak watts for nothing.
 * @throws RangeError unless all four are positive.
 */
export function sizeTool(farads: number, volts: number, safeVolts: number, seconds = USUAL_SECONDS): SizedTool {
  for (const [name, x] of Object.entries({ farads, volts, safeVolts, seconds }))
    if (!(x > 0)) throw new RangeError(texts.aboveZeroWantedRead(name, x));
  const slowest = volts > safeVolts ? seconds / (farads * Math.log(volts / safeVolts)) : Infinity;
  const least = nearestInSeries(volts / SPARK_AMPS, "E12").above;
  const byTime = Number.isFinite(slowest) ? nearestInSeries(slowest, "E12").below : least;
  const ohms = Math.max(least, byTime);
  const plan = dischargePlan(farads, volts, ohms, safeVolts);
  const wanted = wattsWanted(plan);
  const watts = ratingFor(wanted, STANDARD_WATTS) ?? Math.ceil(wanted);
  let bodies = 1;
  while (BODY_HEADROOM * volts > bodies * bodyVolts(watts / bodies) && bodies < 8) bodies++;
  const each = ohms / bodies;
  return {
    ohms,
    watts,
    bodies,
    ohmsEach: bodies === 1 ? ohms : nearestInSeries(each, "E12").nearest,
    wattsEach: ratingFor(wanted / bodies, STANDARD_WATTS) ?? Math.ceil(wanted / bodies),
    plan,
    why:
      ohms > byTime || byTime === least
        ? texts.lessWouldSparkFirst(formatQuantity(plan.peakAmps, "A", 2))
        : texts.largestThrough(formatDuration(Math.ceil(seconds))),
  };
}

export interface ToolDoubt {
  /** True where it must not be used so. */
  refuse: boolean;
  says: string;
}

/** A tool that is at hand: ohms, and what is printed on its body where it can be read. */
export interface Tool {
  ohms: number;
  watts?: number;
  volts?: number;
}

/** What speaks against bleeding `farads` from `volts` to `safeVolts` with this tool; an empty list when nothing does. */
export function toolDoubts(tool: Tool, farads: number, volts: number, safeVolts: number): ToolDoubt[] {
  const plan = dischargePlan(farads, volts, tool.ohms, safeVolts);
  const doubts: ToolDoubt[] = [];
  const sized = sizeTool(farads, volts, safeVolts);
  if (plan.peakAmps > 50 * SPARK_AMPS)
    doubts.push({
      refuse: true,
      says: texts.plainShortTouchSpark(formatQuantity(plan.peakAmps, "A", 2), formatQuantity(sized.ohms, "Ω", 2)),
    });
  else if (plan.peakAmps > SPARK_AMPS)
    doubts.push({
      refuse: false,
      says: texts.sparksTouchMoreDoes(
        formatQuantity(plan.peakAmps, "A", 2),
        formatQuantity(nearestInSeries(volts / SPARK_AMPS, "E12").above, "Ω", 2),
      ),
    });
  const wanted = wattsWanted(plan);
  if (tool.watts !== undefined && wanted > tool.watts)
    doubts.push({
      refuse: wanted > 3 * tool.watts,
      says: texts.bodyTooSmallPulse(
        formatQuantity(tool.watts, "W", 2),
        formatQuantity(plan.peakWatts, "W", 2),
        formatQuantity(ratingFor(wanted, STANDARD_WATTS) ?? wanted, "W", 2),
      ),
    });
  const bears = tool.volts ?? (tool.watts === undefined ? undefined : bodyVolts(tool.watts));
  if (bears !== undefined && volts > bears)
    doubts.push({
      refuse: true,
      says: texts.bodyBearsRailHas(
        formatVolts(bears),
        tool.volts === undefined ? texts.usualFigureSize() : "",
        formatVolts(volts),
        Math.ceil(volts / bears),
      ),
    });
  if (plan.seconds > LONGEST_SECONDS)
    doubts.push({
      refuse: false,
      says: texts.slowClipCanStay(formatDuration(Math.ceil(plan.seconds)), formatVolts(safeVolts)),
    });
  return doubts;
}

/** How far a tool may be off its marking and still be the tool that was sized. */
const TOOL_TOLERANCE = 0.2;

/** Whether a tool that reads `ohms` is still what it was made as; an open one bleeds nothing and reads nothing. */
export function toolProved(marked: number, ohms: number): boolean {
  return Math.abs(ohms - marked) <= TOOL_TOLERANCE * marked;
}

/**
 * Volts that dielectric absorption can bring back to an electrolytic that stood at `volts` and was bled briefly: up to a tenth.
 * Source: usual figure for aluminium electrolytics, measured as IEC 60384-1 has it for dielectric absorption.
 */
export function rebound(volts: number): number {
  return 0.1 * Math.abs(volts);
}
