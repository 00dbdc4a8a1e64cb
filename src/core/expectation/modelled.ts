/**
 * Expected voltages from the solved circuit. The solving is done elsewhere (a worker, the server) and looked up here by
 * its conditions, so that no screen waits for it: until it is there the scaled chart stands in.
 */

import { isRectifier } from "../circuit/special-parts";
import type { Circuit, Element, TestPoint } from "../circuit/circuit";
import type { Conditions } from "../tape/events/measuring-events";
import { figure } from "../language/language";
import { formatVolts } from "../quantity/format";
import { chartScaled, type Expectation, type ExpectationSource } from "./expectation";
import * as texts from "../texts/expectation";

/** What a solve depends on, besides the circuit. */
export interface SolveConditions {
  /** Volts at the wall; the circuit's own when not known. */
  mains?: number;
  /** Tubes that are out. */
  without: string[];
  /** Switches and controls that stand elsewhere than in the file: "S1=open", "P1=0.7". */
  set: string[];
}

export interface SolvedPoint {
  volts: number;
  /** 2.5 % and 97.5 % of what amps of this circuit show. */
  low: number;
  high: number;
  /** Volts between the extremes, where the amp swings (tremolo); `volts` is the mean then. */
  swing?: number;
  /** The band reaches far down: output tubes idle 10 to 25 % under the sheet's tube at screen volts far above the sheet's. */
  wide?: true;
}

export interface Solved {
  points: Record<string, SolvedPoint>;
  converged: boolean;
  /** Nodes that would not settle. */
  unsettled: string[];
  /** Points that an open circuit leaves floating. */
  undetermined: string[];
  /** The amp swings about its operating point too fast to be followed. */
  violent: boolean;
  /** What could not be reckoned with, a sentence each. */
  doubts?: string[];
}

export type SolvedLookup = (conditions: SolveConditions) => Solved | undefined;

/** One text for equal conditions: the key of a cache. */
export function solveKey({ mains, without, set }: SolveConditions): string {
  return [mains ?? "", [...without].sort().join(","), [...set].sort().join(",")].join("|").toLowerCase();
}

/** A switch or control by name at the start of a word, with its state after `=` or a space. */
const SETTING = /\b([a-z]\w*)\s*(?:=|\s)\s*(open|closed|[12]|0?[.,]\d+|0|1[.,]0)\b/gi;

/** Reads `S1 open`, `P1=0.7` out of what was noted of switches and controls; anything else says nothing to the model. */
export function settingsIn(circuit: Circuit, ...texts: (string | undefined)[]): string[] {
  const found = new Map<string, string>();
  for (const [, name = "", state = ""] of texts.join("; ").matchAll(SETTING)) {
    const e = circuit.elements.find((x) => x.name === name.toUpperCase());
    const stands = state.toLowerCase().replace(",", ".");
    if (e && accepts(e, stands)) found.set(e.name, `${e.name}=${stands}`);
  }
  return [...found.values()].sort();
}

function accepts(e: Element, state: string): boolean {
  if (e.type === "SW") return state === "open" || state === "closed";
  if (e.type === "SW2") return state === "1" || state === "2";
  return e.type === "POT" && Number(state) >= 0 && Number(state) <= 1;
}

/** The conditions of a reading as the solver takes them. */
export function solveConditions(circuit: Circuit, conditions: Conditions): SolveConditions {
  const mains = conditions.mains ?? circuit.mains?.volts;
  return {
    ...(circuit.mains && mains !== undefined ? { mains: Math.round(mains * 10) / 10 } : {}),
    without: [...(conditions.without ?? [])].sort(),
    set: settingsIn(circuit, conditions.switches, conditions.controls),
  };
}

/** Whether there is anything to solve: a rectifier or a source. */
export function canSolve(circuit: Circuit): boolean {
  return circuit.elements.some((e) => e.letter === "V" || e.letter === "I" || isRectifier(e.type));
}

/** Where the expected values of a circuit come from, one sentence for a screen or a report. */
export function expectedFrom(circuit: Circuit): string {
  if (!canSolve(circuit)) return texts.fromChart();
  return circuit.facts.settled ? texts.fromSettled(circuit.facts.settled) : texts.fromAlone();
}

/** Half the least width of a band: a meter's accuracy, and volts that contact potential and offset make of nothing. */
const METER_PART = 0.015;
const METER_VOLTS = 0.02;
const ZERO_VOLTS = 0.3;

export function modelled(circuit: Circuit, lookup: SolvedLookup): ExpectationSource {
  const chart = chartScaled(circuit);
  if (!canSolve(circuit)) return chart;
  return {
    basis: "model",
    expect(point, conditions) {
      const printed = chart.expect(point, conditions);
      if (conditions.limiter) return { none: texts.supplyVoltageBehindLamp() };
      const solved = lookup(solveConditions(circuit, conditions));
      const instead = (why: string) =>
        "none" in printed ? { none: `${why}; ${printed.none}` } : { ...printed, note: `${printed.note}; ${why}` };
      if (!solved) return instead(texts.circuitBeingSolved());
      if (!solved.converged) return instead(texts.modelDoesNotSettle(solved.unsettled[0] ?? "?"));
      if (solved.violent) return instead(texts.modelOscillates());
      const at = solved.points[point.name];
      if (!at) return instead(texts.modelHasNoSuch());
      if (solved.undetermined.includes(point.name)) return { none: texts.nothingHoldsPointPart() };
      return expectationOf(circuit, point, at, conditions, printed, solved.doubts);
    },
  };
}

function expectationOf(
  circuit: Circuit,
  point: TestPoint,
  at: SolvedPoint,
  conditions: Conditions,
  printed: Expectation | { none: string },
  doubts: readonly string[] = [],
): Expectation {
  const least = Math.max(METER_PART * Math.abs(at.volts), Math.abs(at.volts) < ZERO_VOLTS ? ZERO_VOLTS : METER_VOLTS);
  // A cathode of a few hundred millivolts is a current reading, not a zero.
  const small = Math.abs(at.volts) < ZERO_VOLTS && at.high - at.low > 0.1 * Math.abs(at.volts) && Math.abs(at.volts) > 0.05;
  const half = small ? METER_VOLTS : least;
  const low = Math.min(at.low, at.volts - half);
  const high = Math.max(at.high, at.volts + half);
  const mains = conditions.mains ?? circuit.mains?.volts;
  const swing = at.swing ? texts.meanSwing(formatVolts(at.swing)) : "";
  const wide = at.wide ? texts.wideBelowSinceReal() : "";
  const out: Expectation = {
    ...(at.wide ? { wide: true as const } : {}),
    volts: at.volts,
    low,
    high,
    basis: "model",
    note: texts.circuitSolved(
      circuit.facts.settled ? texts.settledOn(circuit.facts.settled) : texts.alone(),
      mains === undefined ? "" : ` at ${figure(mains)}\u00a0V`,
      conditions.without?.length ? texts.without(conditions.without.join(", ")) : "",
      swing,
      wide,
      doubts.map((d) => `; ${d}`).join(""),
    ),
  };
  if ("none" in printed) return out;
  // Out of the model's band by more than the chart's own tolerance: two sources that cannot both be right.
  const slack = (printed.high - printed.low) / 2;
  const disagrees = printed.volts > high + slack || printed.volts < low - slack;
  return { ...out, chart: { volts: printed.volts, disagrees } };
}
