/** Resistances of the cold amp: what each reading should be in circuit, and what one that is not says. Ohms. */

import type { Circuit } from "../circuit/circuit";

import { formatQuantity } from "../quantity/format";
import type { Verdict } from "../expectation/expectation";
import * as texts from "../texts/cold";

export const COLD_GROUPS = ["supply", "windings", "resistors", "heaters"] as const;
export type ColdGroup = (typeof COLD_GROUPS)[number];

export interface ColdCheck {
  /** As it is logged: "R9", "b1:0", "V3.heater", "HT.1". */
  point: string;
  group: ColdGroup;
  label: string;
  /** The place in two words, for the probe: "C1 +", "R9", "V3 heater". */
  place: string;
  /** The other half of the same winding is the check that follows. */
  firstHalf?: boolean;
  /** Where the probes go, and what has to be out. */
  where: string;
  /** Of the part alone, one leg lifted. */
  marked?: number;
  /** In circuit, settled: nominal, and the range that tolerances make of it. Infinity where nothing conducts. */
  expected: number;
  low: number;
  high: number;
  /** Two seconds after touching, where a capacitor is still charging. */
  soon?: number;
  /** Parts that lie beside it and pull the reading down. */
  beside: string[];
}

/** A meter of the bench on its ohms range, and its leads. */
const METER = 0.015;
const LEADS = 0.3;
/** Above this a meter shows overload. */
const OVERLOAD = 40e6;
const OPEN_TIMES = 20;

export function judgeCold(check: ColdCheck, ohms: number): { verdict: Verdict; why: string } {
  const low = check.low * (1 - METER) - LEADS;
  const high = check.high * (1 + METER) + LEADS;
  const over = !(ohms < OVERLOAD);
  if (over && !(check.expected < OVERLOAD)) return { verdict: "in", why: "" };
  if (ohms >= low && ohms <= high) return { verdict: "in", why: "" };
  const expected = formatQuantity(check.expected, "Ω", 3);
  if (ohms > high || over) {
    const far = over || ohms > OPEN_TIMES * check.high;
    if (check.group === "heaters") return { verdict: far ? "out" : "watch", why: far ? "open" : texts.highPoorPinContact() };
    if (check.group === "windings")
      return { verdict: far ? "out" : "watch", why: far ? texts.openWinding() : texts.abovePoorJointAnother(expected) };
    if (check.group === "supply") return { verdict: "watch", why: texts.aboveBleederLoadHas(expected) };
    return {
      verdict: "out",
      why: far ? texts.openNoPathBeside() : texts.goneHighExpectedAll(expected),
    };
  }
  if (check.group === "windings") return { verdict: ohms < 0.5 * check.low ? "out" : "watch", why: texts.lowShortedTurnsAnother() };
  if (check.group === "heaters") return { verdict: "watch", why: texts.lowWarmStillAnother() };
  if (check.group === "supply")
    return {
      verdict: ohms < 0.1 * check.low ? "out" : "watch",
      why: ohms < 100 ? texts.shortRailNoPower() : texts.belowLeakyElectrolyticShort(expected),
    };
  return {
    verdict: ohms < 0.5 * check.low ? "out" : "watch",
    why: texts.belowPartHasGone(expected, check.beside.length > 0 ? ` (${check.beside.slice(0, 3).join(", ")})` : ""),
  };
}

/** Halves of a winding are made alike: this much apart is usual, the other shorted turns. */
const HALVES_WATCH = 0.1;
const HALVES_OUT = 0.25;

/** Two halves of one winding. @param made ratio of the first to the second as the file has them; inner and outer half differ. */
export function judgeHalves(first: number, second: number, made = 1): { verdict: Verdict; why: string } {
  if (!(first < OVERLOAD) || !(second < OVERLOAD)) return { verdict: "out", why: texts.halfOpen() };
  const apart = first / second / made;
  const off = 1 - Math.min(apart, 1 / apart);
  if (off <= HALVES_WATCH) return { verdict: "in", why: "" };
  const lower = apart < 1 ? "first" : "second";
  return {
    verdict: off > HALVES_OUT ? "out" : "watch",
    why: texts.halfReadsLowAgainst(lower, Math.round(off * 100), off > HALVES_OUT ? "shorted turns" : texts.measureAgainWarmCold()),
  };
}

/** Under which name a check's place is marked on a photo: the test point on its first node, where there is one, else its own. @example "b1:0" // "B1" */
export function markNameOf(circuit: Pick<Circuit, "points">, point: string): string {
  const [node, other] = point.split(":");
  return (other !== undefined && circuit.points.find((p) => p.node === node)?.name) || point;
}
