/** What has to be true before live work: asked once per power-on. */

import { isLineConnected } from "../circuit/mains-connection";
import type { Circuit } from "../circuit/circuit";
import { formatVolts } from "../quantity/format";
import type { Reservoir } from "../supply/reservoirs";
import type { JobState } from "../tape/fold";
import * as texts from "../texts/safety";

/** The statements to be confirmed, for this amp as it stands. */
export function liveCheck(circuit: Circuit | undefined, reservoirs: readonly Reservoir[], state: Pick<JobState, "removed">): string[] {
  // Unloaded, a rail can rise to what its capacitors are rated for; the leads must bear that.
  const highest = Math.max(0, ...reservoirs.map((r) => r.ratedVolts ?? 0), ...(circuit?.points.map((p) => Math.abs(p.chart ?? 0)) ?? []));
  const off = state.removed.filter((r) => r.back === undefined).map((r) => r.what);
  return [
    texts.benchFloorDoNot(),
    texts.ringsWatchChainOff(),
    texts.oneHandOnlyOther(),
    texts.probeLeadsRatedAbove(highest > 0 ? formatVolts(highest) : texts.highestRail()),
    texts.speakerDummyLoadConnected(),
    ...(isLineConnected(circuit) ? [isolationStatement()] : []),
    ...(off.length > 0 ? [texts.stillOffAmpMeant(off.join(", "))] : []),
  ];
}

/** The statement that a line-connected set is behind its isolation transformer: asked at each power-on. */
export const isolationStatement = (): string => texts.isolationTransformerLineChassis();
