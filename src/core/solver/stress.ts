/** What each part bears at an operating point, beside what it is rated for. */

import type { Element } from "../circuit/circuit";
import { idealVolts, tubesAtWork, type OperatingPoint } from "./operating-point";

export interface Stress {
  part: string;
  kind: "watts" | "volts" | "plate watts" | "screen watts" | "plate volts";
  value: number;
  rated?: number;
  /** value / rated; undefined without a rating. */
  share?: number;
}

/** Resistors' watts, capacitors' volts, tubes' plate and screen watts; rectifiers and windings are left out. */
export function stresses(op: OperatingPoint): Stress[] {
  const out: Stress[] = [];
  const add = (part: string, kind: Stress["kind"], value: number, rated: number | undefined) =>
    out.push({ part, kind, value, rated, share: rated ? value / rated : undefined });
  const across = (e: Element) => idealVolts(op, e.nodes[0]!) - idealVolts(op, e.nodes[1]!);
  for (const e of op.network.circuit.elements) {
    if (e.letter === "R" && !e.name.includes("#")) add(e.name, "watts", across(e) ** 2 / e.value!, e.notes.watts);
    if (e.letter === "C") add(e.name, "volts", Math.abs(across(e)), e.notes.volts);
  }
  for (const [name, work] of tubesAtWork(op)) {
    const ratings = op.network.tubes.find((t) => t.element.name === name)!.element.tube!.ratings;
    add(name, "plate watts", work.plateWatts, ratings?.plateWatts);
    if (work.screenWatts !== undefined) add(name, "screen watts", work.screenWatts, ratings?.screenWatts);
  }
  return out;
}
