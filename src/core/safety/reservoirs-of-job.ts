/** The reservoirs that a job has to prove: those of its circuit, those that were in it while it was live, and those that were named. */

import type { Circuit } from "../circuit/circuit";
import type { Reservoir } from "../supply/reservoirs";
import { is, type JobEvent } from "../tape/events/event";
import * as texts from "../texts/safety";

/** Farads of one that only a reading has named: as large as they usually come, so that the estimate errs high. */
const UNKNOWN_FARADS = 100e-6;

/** The reservoir that a capacitor belongs to: others may lie across the same two nodes. */
export const reservoirOf = (reservoirs: readonly Reservoir[], part: string): Reservoir | undefined =>
  reservoirs.find((r) => [r.name, ...r.parts].some((p) => p.toLowerCase() === part.trim().toLowerCase()));

/** What was lifted off its amp for reforming is discharged by nothing of it: a place of its own in what is reckoned. */
export const apart = (reservoirs: readonly Reservoir[], lifted: { has(name: string): boolean }): Reservoir[] =>
  reservoirs.map((r) => (lifted.has(r.name) ? { ...r, node: `lifted:${r.name}`, returnNode: "0" } : r));

/** Number of the reservoir that a test point, a part or a node stands for; −1 for none. */
export function placeOf(reservoirs: readonly Reservoir[], place: string, circuit: Circuit | undefined): number {
  const own = reservoirOf(reservoirs, place);
  if (own) return reservoirs.indexOf(own);
  const wanted = place.trim().toLowerCase();
  const node = circuit?.points.find((p) => p.name.toLowerCase() === wanted)?.node;
  return node === undefined ? -1 : reservoirs.findIndex((r) => (r.stood ?? r.node) === node && r.returnNode === "0");
}

/**
 * All reservoirs of a job.
 * @param events those that stand. @param earlier reservoirs of the circuit as it was at times since the amp was last live.
 * @param safeVolts above them a reading makes a reservoir of a name that nobody knows.
 */
export function jobReservoirs(
  events: readonly JobEvent[],
  fromCircuit: Reservoir[],
  earlier: readonly Reservoir[] = [],
  safeVolts = Infinity,
): Reservoir[] {
  const out = [...fromCircuit];
  const known = (name: string) => reservoirOf(out, name) !== undefined;
  for (const r of earlier) {
    if (known(r.name)) continue;
    // Two at one place cannot be told apart by what the resistors do to them: it has a place of its own.
    out.push({ ...r, parts: [r.name], node: `was:${r.name}`, returnNode: "0", stood: r.node, label: texts.wasInAmpLive() });
  }
  const byHand = (name: string, farads: number, volts: number | undefined, label: string) => {
    const before = out.findIndex((r) => r.node === `hand:${name.toLowerCase()}`);
    if (before < 0 && known(name)) return;
    const named = {
      name,
      parts: [name],
      node: `hand:${name.toLowerCase()}`,
      returnNode: "0",
      farads,
      ratedVolts: volts || undefined,
      label,
    };
    if (before < 0) out.push(named);
    else out[before] = named;
  };
  for (const e of events) {
    if (is(e, "reservoir")) byHand(e.payload.name, e.payload.farads, e.payload.volts, texts.namedHand());
    // A capacitor on a bench supply holds a charge wherever it lies.
    else if (is(e, "reform-begun")) for (const p of e.payload.parts) byHand(p.part, p.farads, p.rated, texts.namedHand());
    else if (is(e, "discharge-reading") && Math.abs(e.payload.volts) > safeVolts && !known(e.payload.reservoir))
      byHand(e.payload.reservoir.trim(), UNKNOWN_FARADS, Math.abs(e.payload.volts), texts.readInReadingOnly());
  }
  return out;
}
