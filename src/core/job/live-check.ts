/** What has to be true before live work: asked once per power-on. */

import { isLineConnected } from "../circuit/line";
import type { Circuit } from "../circuit/circuit";
import { formatVolts } from "../quantity/format";
import type { Reservoir } from "../supply/reservoirs";
import type { JobState } from "./fold";

/** The statements to be confirmed, for this amp as it stands. */
export function liveCheck(circuit: Circuit | undefined, reservoirs: readonly Reservoir[], state: Pick<JobState, "removed">): string[] {
  // Unloaded, a rail can rise to what its capacitors are rated for; the leads must bear that.
  const highest = Math.max(0, ...reservoirs.map((r) => r.ratedVolts ?? 0), ...(circuit?.points.map((p) => Math.abs(p.chart ?? 0)) ?? []));
  const off = state.removed.filter((r) => r.back === undefined).map((r) => r.what);
  return [
    "Bench and floor do not conduct",
    "Rings, watch and chain are off",
    "One hand only, the other behind the back",
    `Probe leads are rated above ${highest > 0 ? formatVolts(highest) : "the highest rail"}`,
    "A speaker or dummy load is connected",
    ...(isLineConnected(circuit) ? ["ISOLATION TRANSFORMER in the line: this chassis is connected to it"] : []),
    ...(off.length > 0 ? [`Still off the amp, and that is meant: ${off.join(", ")}`] : []),
  ];
}
