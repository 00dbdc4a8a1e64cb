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
  const i = new Float64Array(4);
  const g = new Float64Array(16);
  for (const device of op.network.devices) {
    const e = op.network.circuit.elements.find((x) => x.name === device.name);
    const limit = e?.type === "ZENER" ? e.params.pmax : e?.type === "NMOS" ? e.params.vmax : undefined;
    if (e?.type !== "ZENER" && e?.type !== "NMOS") continue;
    const v = Float64Array.from(device.at, (k) => (k < 0 ? 0 : op.x[k]!));
    device.evaluate(v, i, g);
    if (e.type === "ZENER") add(e.name, "watts", Math.abs((v[0]! - v[1]!) * i[0]!), typeof limit === "number" ? limit : undefined);
    else add(e.name, "volts", Math.abs(v[0]! - v[2]!), typeof limit === "number" ? limit : undefined);
  }
  for (const [name, work] of tubesAtWork(op)) {
    const ratings = op.network.tubes.find((t) => t.element.name === name)!.element.tube!.ratings;
    add(name, "plate watts", work.plateWatts, ratings?.plateWatts);
    if (work.screenWatts !== undefined) add(name, "screen watts", work.screenWatts, ratings?.screenWatts);
  }
  return out;
}
