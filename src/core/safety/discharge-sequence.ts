/** Where to clip the discharge tool on, in which order, and what each place brings down: this amp's own network decides. */

import type { Circuit, Element } from "../circuit/circuit";
import { readCircuit } from "../circuit/read";
import { storedEnergy } from "../supply/stored-energy";
import { LONGEST_SECONDS } from "./discharge-tool";
import { decayOf, type Reservoir } from "../supply/reservoirs";
import * as texts from "../texts/safety";

export interface ClipOn {
  /** The reservoir that the tool is clipped to, and the nodes between which it lies. */
  reservoir: string;
  from: string;
  to: string;
  /** Volts there as the tool is clipped on. */
  volts: number;
  peakAmps: number;
  peakWatts: number;
  /** Joules that leave the amp while it is on, and over how many seconds. */
  joules: number;
  seconds: number;
  /** Reservoirs that are at or below the safe voltage after it, and were not before. */
  brings: string[];
  /** Volts of every reservoir after it, in the order given. */
  after: number[];
}

export interface DischargeSequence {
  clips: ClipOn[];
  /** Reservoirs that no place brings down within the time. */
  left: string[];
  /** The most that one clip-on asks of the tool. */
  peakAmps: number;
  peakWatts: number;
  seconds: number;
  joules: number;
}

/**
 * Clips the tool where it brings the most reservoirs down, again and again, until all are at or below `safeVolts`.
 * @param volts of each reservoir, in the order given. @param longest seconds that one place may take.
 * @throws RangeError for a tool without resistance.
 */
export function dischargeSequence(
  circuit: Circuit | undefined,
  reservoirs: readonly Reservoir[],
  volts: readonly number[],
  ohms: number,
  safeVolts: number,
  longest = LONGEST_SECONDS,
): DischargeSequence {
  if (!(ohms > 0)) throw new RangeError(texts.ohmsAboveZeroWanted(ohms));
  const amp = circuit ?? readCircuit("no circuit\n").circuit;
  const clips: ClipOn[] = [];
  let now = [...volts];
  const above = (v: readonly number[]) => reservoirs.flatMap((r, i) => (Math.abs(v[i]!) > safeVolts ? [i] : []));
  while (above(now).length > 0 && clips.length < reservoirs.length) {
    const tried = above(now).flatMap((i) => {
      const r = reservoirs[i]!;
      const ends = r.returnNode === "0" ? [["0"]] : [["0"], [r.returnNode]];
      return ends.map(([to]) => clipOn(amp, reservoirs, now, r, to!, ohms, safeVolts, longest));
    });
    const best = tried.reduce((a, b) => ((b.brings.length - a.brings.length || a.seconds - b.seconds) > 0 ? b : a));
    if (best.brings.length === 0) break;
    clips.push(best);
    now = best.after;
  }
  return {
    clips,
    left: above(now).map((i) => reservoirs[i]!.name),
    peakAmps: Math.max(0, ...clips.map((c) => c.peakAmps)),
    peakWatts: Math.max(0, ...clips.map((c) => c.peakWatts)),
    seconds: clips.reduce((sum, c) => sum + c.seconds, 0),
    joules: clips.reduce((sum, c) => sum + c.joules, 0),
  };
}

function clipOn(
  circuit: Circuit,
  reservoirs: readonly Reservoir[],
  start: readonly number[],
  at: Reservoir,
  to: string,
  ohms: number,
  safeVolts: number,
  longest: number,
): ClipOn {
  const tool: Element = { name: "R#tool", letter: "R", nodes: [at.node, to], value: ohms, params: {}, notes: {}, line: 0 };
  const decay = decayOf({ ...circuit, elements: [...circuit.elements, tool] }, [...reservoirs], [...start]);
  const high = (v: readonly number[], i: number) => Math.abs(v[i]!) > safeVolts;
  const end = decay.voltsAt(longest);
  const brought = reservoirs.flatMap((_, i) => (high(start, i) && !high(end, i) ? [i] : []));
  // The last of them to get there says how long; charge may first be handed from one to another.
  const through = (seconds: number) => {
    const v = decay.voltsAt(seconds);
    return brought.every((i) => !high(v, i));
  };
  let [low, seconds] = [0, longest];
  while (brought.length > 0 && seconds - low > Math.max(0.01, seconds * 1e-4)) {
    const middle = (low + seconds) / 2;
    if (through(middle)) seconds = middle;
    else low = middle;
  }
  const after = decay.voltsAt(seconds);
  const held = (v: readonly number[]) => reservoirs.reduce((sum, r, i) => sum + storedEnergy(r.farads, v[i]!), 0);
  // From the node to the other end: down through capacitors in series where they stand on each other.
  const volts = Math.abs(to === "0" ? toChassis(reservoirs, start, at) : start[reservoirs.indexOf(at)]!);
  return {
    reservoir: at.name,
    from: at.node,
    to,
    volts,
    peakAmps: volts / ohms,
    peakWatts: (volts * volts) / ohms,
    joules: held(start) - held(after),
    seconds,
    brings: brought.map((i) => reservoirs[i]!.name),
    after,
  };
}

/** Volts of a reservoir's node to chassis: its own, and those of what it stands on. */
function toChassis(reservoirs: readonly Reservoir[], volts: readonly number[], at: Reservoir, seen = new Set<Reservoir>()): number {
  seen.add(at);
  const own = volts[reservoirs.indexOf(at)]!;
  if (at.returnNode === "0") return own;
  const below = reservoirs.find((r) => r.node === at.returnNode && !seen.has(r));
  return own + (below ? toChassis(reservoirs, volts, below, seen) : 0);
}
