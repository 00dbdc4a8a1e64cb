/**
 * What a test point should show today. One interface, so that a solved model can stand where the scaled chart
 * stands now without any screen knowing.
 */

import type { Circuit, TestPoint } from "../circuit/circuit";
import type { Conditions } from "../tape/events/measuring-events";
import { formatVolts } from "../quantity/format";
import * as texts from "../texts/expectation";
import { roleOf, type Role } from "../anatomy/points";

export interface Expectation {
  volts: number;
  low: number;
  high: number;
  basis: "chart" | "model";
  /** The band reaches far down: the tube idles where its sheet says little. */
  wide?: true;
  /** One line for the screen: where the figure comes from. */
  note: string;
  /** The printed chart scaled to today, beside a solved figure; `disagrees` when both cannot be right. */
  chart?: { volts: number; disagrees: boolean };
}

export interface ExpectationSource {
  basis: Expectation["basis"];
  /** Undefined with a reason when this source has nothing to say under these conditions. */
  expect(point: TestPoint, conditions: Conditions): Expectation | { none: string };
}

/** Half-width of the band by what the point is: resistor and tube spread of the day, as charts allow it. */
const BAND: Record<Role, number> = { rail: 0.1, bias: 0.1, plate: 0.15, screen: 0.12, cathode: 0.2, grid: 0.12, other: 0.2 };
/** A point that belongs at zero may show this much from contact potential and meter offset. */
const ZERO_BAND = 0.3;

/** Below this part of the chart's mains nothing is in proportion any more. */
const LEAST_RATIO = 0.8;

/**
 * The printed chart times the ratio of today's mains to the chart's.
 * Rails follow the mains nearly in proportion and everything that hangs on them does too, to first order.
 */
export function chartScaled(circuit: Circuit): ExpectationSource {
  return {
    basis: "chart",
    expect(point, conditions) {
      if (point.chart === undefined) return { none: texts.chartHasNoFigure() };
      if (conditions.without?.length) return { none: texts.chartAllTubes(conditions.without.join(", ")) };
      if (conditions.limiter) return { none: texts.chartBehindLamp() };
      const chartMains = circuit.chart?.mains ?? circuit.mains?.volts;
      const mains = conditions.mains ?? chartMains;
      const ratio = chartMains && mains ? mains / chartMains : 1;
      if (ratio < LEAST_RATIO) return { none: texts.chartTooLow(mains) };
      const volts = point.chart * ratio;
      const half = point.chart === 0 ? ZERO_BAND : Math.abs(volts) * (point.tol ?? BAND[roleOf(circuit, point)]);
      const note =
        chartMains && mains && mains !== chartMains
          ? texts.chartScaledTo(formatVolts(point.chart), chartMains, mains)
          : texts.chart(formatVolts(point.chart));
      return { volts, low: volts - half, high: volts + half, basis: "chart", note };
    },
  };
}

export type Verdict = "in" | "watch" | "out" | "none";

export const VERDICT_WORD: Record<Verdict, string> = { in: "in band", watch: "watch", out: "out", none: "not taken" };

/** In the band; within half a band outside it (watch); further out. */
export function verdictOf(volts: number, expected: Expectation): Verdict {
  const reach = ((expected.high - expected.low) / 2) * 0.5;
  if (volts >= expected.low && volts <= expected.high) return "in";
  if (volts >= expected.low - reach && volts <= expected.high + reach) return "watch";
  return "out";
}

/** Bench meter ranges, full scale volts. */
const RANGES = [0.2, 2, 20, 200, 1000];

/** The manual range to set before the probe goes there: the least that holds twice what is expected. */
export function meterRange(volts: number): string {
  const range = fullScale(volts);
  if (range === undefined) return "auto range";
  return range < 1 ? `${range * 1000} mV DC` : `${range} V DC`;
}

/** Where nothing is expected anything may be: the meter chooses. */
const NOTHING_VOLTS = 0.3;

/** Full scale of that range, volts; undefined where the meter is left to choose. */
export function fullScale(volts: number): number | undefined {
  if (Math.abs(volts) < NOTHING_VOLTS) return undefined;
  return RANGES.find((r) => r >= Math.abs(volts) * 1.3) ?? 1000;
}
