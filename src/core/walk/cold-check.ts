/** Resistances of the cold amp: what each reading should be in circuit, and what one that is not says. Ohms. */

import { formatQuantity } from "../quantity/format";
import type { Verdict } from "./expectation";

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
    if (check.group === "heaters") return { verdict: far ? "out" : "watch", why: far ? "open" : "high: a poor pin or contact" };
    if (check.group === "windings")
      return { verdict: far ? "out" : "watch", why: far ? "open winding" : `above ${expected}: a poor joint, or another transformer` };
    if (check.group === "supply") return { verdict: "watch", why: `above ${expected}: a bleeder or load has gone high or open` };
    return {
      verdict: "out",
      why: far ? "open: no path beside it explains less" : `gone high: ${expected} expected with all that lies beside it`,
    };
  }
  if (check.group === "windings")
    return { verdict: ohms < 0.5 * check.low ? "out" : "watch", why: "low: shorted turns, or another transformer" };
  if (check.group === "heaters") return { verdict: "watch", why: "low: warm still, or another type" };
  if (check.group === "supply")
    return {
      verdict: ohms < 0.1 * check.low ? "out" : "watch",
      why:
        ohms < 100
          ? "a short on this rail: no power before it is found"
          : `below ${expected}: a leaky electrolytic or a short behind a dropper`,
    };
  return {
    verdict: ohms < 0.5 * check.low ? "out" : "watch",
    why: `below ${expected}: the part has gone low, or something beside it leaks${check.beside.length > 0 ? ` (${check.beside.slice(0, 3).join(", ")})` : ""}; lift a leg to tell`,
  };
}

/** Halves of a winding are made alike: this much apart is usual, the other shorted turns. */
const HALVES_WATCH = 0.1;
const HALVES_OUT = 0.25;

/** Two halves of one winding. @param made ratio of the first to the second as the file has them; inner and outer half differ. */
export function judgeHalves(first: number, second: number, made = 1): { verdict: Verdict; why: string } {
  if (!(first < OVERLOAD) || !(second < OVERLOAD)) return { verdict: "out", why: "a half is open" };
  const apart = first / second / made;
  const off = 1 - Math.min(apart, 1 / apart);
  if (off <= HALVES_WATCH) return { verdict: "in", why: "" };
  const lower = apart < 1 ? "first" : "second";
  return {
    verdict: off > HALVES_OUT ? "out" : "watch",
    why: `the ${lower} half reads ${Math.round(off * 100)} % low against the other: ${off > HALVES_OUT ? "shorted turns" : "measure again, warm and cold"}`,
  };
}
