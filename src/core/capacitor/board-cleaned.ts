/** What cleaning a board has done to the volts on its grids, and what is left to ask the owner for. */

import type { Circuit } from "../circuit/circuit";
import { gridLeakOf, couplings } from "../anatomy/couplings";
import type { JobState } from "../tape/fold";
import { leakFromGrid, SHIFT_SEEN } from "./coupling-leak";

export interface GridCleaned {
  /** Point of the grid. */
  grid: string;
  before?: number;
  after?: number;
  /** Ohms from the source of the volts to the grid, before and after. */
  ohmsBefore?: number;
  ohmsAfter?: number;
  /** Still more than a tube's own spread hides: rewiring off the board is what is left. */
  left: boolean;
}

export interface StripGrid {
  /** Point of the grid, and its node. */
  point: string;
  node: string;
  part: string;
  tube?: string;
  /** Ohms to what the grid rests at. */
  leakOhms: number;
  /** The node that the volts come from. */
  source: string;
}

/** Grids that a coupling capacitor feeds, and the node on its other side; those whose point can be read. */
export function stripGrids(circuit: Circuit): StripGrid[] {
  return couplings(circuit).flatMap((c): StripGrid[] => {
    const leak = gridLeakOf(circuit, c);
    const point = leak && circuit.points.find((p) => p.node === leak.node);
    if (!leak || !point) return [];
    const tube = circuit.elements.find((e) => e.tube && e.nodes.at(-2) === leak.node)?.name;
    return [
      {
        point: point.name,
        node: leak.node,
        part: c.name,
        leakOhms: leak.ohms,
        source: c.nodes.find((n) => n !== leak.node)!,
        ...(tube ? { tube } : {}),
      },
    ];
  });
}

/**
 * @param volts what stands at a node, by which the leak's ohms are reckoned. @param rest what a grid rests at without a leak.
 * @returns nothing before a board was cleaned.
 */
export function gridsCleaned(
  circuit: Circuit,
  state: Pick<JobState, "readings" | "boardsCleaned">,
  volts: (node: string) => number | undefined,
  rest: (node: string) => number,
): GridCleaned[] {
  const cleaned = state.boardsCleaned.at(-1);
  if (!cleaned) return [];
  const first = state.boardsCleaned.find((b) => b.grids.some((g) => cleaned.grids.includes(g)))!;
  const grids = stripGrids(circuit);
  return cleaned.grids.map((grid): GridCleaned => {
    const own = state.readings.filter((r) => r.kind === "dcv" && r.point.toLowerCase() === grid.toLowerCase());
    const before = own.findLast((r) => r.seq < first.seq)?.value;
    const after = own.findLast((r) => r.seq > cleaned.seq)?.value;
    const known = grids.find((g) => g.point.toLowerCase() === grid.toLowerCase());
    const source = known && volts(known.source);
    const ohmsOf = (read: number | undefined) =>
      known && source !== undefined && read !== undefined && read >= rest(known.node) && read < source
        ? leakFromGrid(source, known.leakOhms, read, undefined, rest(known.node)).ohms
        : undefined;
    const rise = after === undefined ? 0 : after - (known ? rest(known.node) : 0);
    return { grid, before, after, ohmsBefore: ohmsOf(before), ohmsAfter: ohmsOf(after), left: rise > SHIFT_SEEN };
  });
}
