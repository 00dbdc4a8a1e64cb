/** The operating point: every node's direct voltage, the tubes' currents and watts, and what no solve can tell. */

import type { Network, NetworkOptions } from "./network";
import { compile } from "./compile";
import { newton, solveNewton, type Aid } from "./newton";
import { workspaceOf, type Workspace } from "./workspace";
import { beginCorrections, correctRectifiers } from "./reservoir";
import type { Circuit, TestPoint } from "../circuit/circuit";
import * as texts from "../texts/solver";

export interface TubePointOfWork {
  type: string;
  /** Volts relative to the cathode, milliamperes, watts. */
  plateVolts: number;
  gridVolts: number;
  screenVolts?: number;
  plateMilliamps: number;
  screenMilliamps?: number;
  gridMicroamps: number;
  plateWatts: number;
  screenWatts?: number;
}

export interface OperatingPoint {
  network: Network;
  converged: boolean;
  /** Newton iterations of all attempts. */
  iterations: number;
  aid: Aid;
  /** The unknowns: node volts, then branch amperes. */
  x: Float64Array;
  /** Nodes that would not settle, worst first; empty when converged. */
  unsettled: string[];
  /** Nodes that nothing determines: an open part has left them floating. */
  undetermined: string[];
  /** What could not be reckoned with, one sentence each: the answer is only roughly right there. */
  doubts: string[];
}

/** Above this many ohms at a node, a leak that nobody knows decides its voltage. */
const UNDETERMINED_OHMS = 1e10;

/**
 * Solves a compiled network.
 * @param start unknowns to begin from: the last answer, when little has changed.
 * @param near an amp solved before that differs in little: its order of elimination, and what was found for its rectifiers' pulses, are taken over where they fit.
 */
export function solveOperatingPoint(
  network: Network,
  start?: Float64Array,
  work = workspaceOf(network),
  near?: OperatingPoint,
): OperatingPoint {
  const x = start && start.length === network.size ? start.slice() : new Float64Array(network.size);
  const known = near?.network.rectifiers;
  beginCorrections(network, known);
  if (near) work.lu.adopt(workspaceOf(near.network).lu);
  const solved = solveNewton(work, x);
  let { converged, iterations } = solved;
  let doubts: string[] = [];
  if (converged && network.supply === "averaged") {
    const again = correctRectifiers(network, work, x, known);
    iterations += again.iterations;
    converged = again.converged;
    doubts = again.doubts;
  }
  const name = (k: number) =>
    k < network.nodes.length ? network.nodes[k]! : (network.branches[k - network.nodes.length]?.name ?? "").toLowerCase();
  return {
    network,
    converged,
    iterations: iterations,
    aid: solved.aid,
    x,
    unsettled: converged ? [] : [name(solved.worst)],
    undetermined: converged ? undeterminedNodes(network, work, x) : [],
    doubts,
  };
}

/** Compiles and solves. */
export function operatingPoint(circuit: Circuit, options: NetworkOptions = {}, start?: Float64Array): OperatingPoint {
  return solveOperatingPoint(compile(circuit, options), start);
}

/** Leaves the factors of the Jacobian at `x` in `work.lu`. */
export function factorAt(work: Workspace, x: Float64Array): boolean {
  work.assemble();
  work.begin();
  work.stamp(x, false);
  return work.lu.factor() < 0;
}

function undeterminedNodes(network: Network, work: Workspace, x: Float64Array): string[] {
  if (network.islands.length === 0) return [];
  if (!factorAt(work, x)) return network.islands.map((i) => network.nodes[i.node]!);
  const column = new Float64Array(network.size);
  return network.islands.flatMap(({ node, gridsOnly }) => {
    column.fill(0);
    column[node] = 1;
    work.lu.solve(column);
    return gridsOnly || column[node]! > UNDETERMINED_OHMS ? [network.nodes[node]!] : [];
  });
}

/** Volts of a node by name, without a meter; 0 for ground. @throws RangeError for a node that the network does not have. */
export function idealVolts(op: Pick<OperatingPoint, "network" | "x">, node: string): number {
  if (node === "0" || node === "gnd") return 0;
  const k = op.network.index.get(node);
  if (k === undefined) throw new RangeError(texts.noNode(node));
  return op.x[k]!;
}

/** Each tube's currents, volts and watts. */
export function tubesAtWork(op: OperatingPoint): Map<string, TubePointOfWork> {
  const out = new Map<string, TubePointOfWork>();
  const i = new Float64Array(4);
  const g = new Float64Array(16);
  for (const { element, device } of op.network.tubes) {
    const v = Float64Array.from(device.at, (k) => (k < 0 ? 0 : op.x[k]!));
    device.evaluate(v, i, g);
    const k = v.length - 1;
    const cathode = v[k]!;
    const pentode = k === 3;
    const plateVolts = v[0]! - cathode;
    const screenVolts = pentode ? v[1]! - cathode : undefined;
    out.set(element.name, {
      type: element.type!,
      plateVolts,
      gridVolts: v[k - 1]! - cathode,
      screenVolts,
      plateMilliamps: i[0]! * 1e3,
      screenMilliamps: pentode ? i[1]! * 1e3 : undefined,
      gridMicroamps: i[k - 1]! * 1e6,
      plateWatts: i[0]! * plateVolts,
      screenWatts: pentode ? i[1]! * screenVolts! : undefined,
    });
  }
  return out;
}

/** Share of its own resistance to the meter's above which a node's loaded voltage is solved, not scaled. */
const HIGH_NODE = 0.01;

/**
 * What a meter of `meterOhms` to ground reads at each point: the meter loads that point alone.
 * @returns volts by point name. An operating point that did not converge gives NaN.
 */
export function readings(
  op: OperatingPoint,
  points: readonly TestPoint[],
  meterOhms = 10e6,
  work = workspaceOf(op.network),
): Map<string, number> {
  const { network, x } = op;
  const out = new Map<string, number>();
  if (!op.converged || !factorAt(work, x)) {
    for (const p of points) out.set(p.name, NaN);
    return out;
  }
  work.keepFactors();
  const column = new Float64Array(network.size);
  const high: { point: TestPoint; node: number; ohms: number; response: Float64Array }[] = [];
  for (const point of points) {
    const node = point.node === "0" ? -1 : (network.index.get(point.node) ?? -1);
    if (node < 0) {
      out.set(point.name, 0);
      continue;
    }
    column.fill(0);
    column[node] = 1;
    work.lu.solve(column);
    const ohms = column[node]!;
    if (Number.isFinite(meterOhms) && ohms > HIGH_NODE * meterOhms) high.push({ point, node, ohms, response: column.slice() });
    else out.set(point.name, x[node]! / (1 + ohms / meterOhms));
  }
  // Where the meter pulls the point far, the tube answers: solved with the meter in the network.
  for (const { point, node, ...as } of high) out.set(point.name, loadedVolts(network, work, x, node, as, meterOhms));
  return out;
}

/** Up to this share of its own resistance to the meter's a node's loaded voltage may be scaled where it cannot be solved: right to a hundredth. */
const SCALED_NODE = 0.1;
/** Parts of the meter's load that are put on one after the other where all at once does not settle. */
const LOADS = [0.01, 0.03, 0.1, 0.3, 1];

/** A meter reading is solved to a ten-millionth: the square of what the last iteration moved is all that is left. */
const LOOSE = 1000;

/**
 * @param ohms of the node, as it stands without the meter. @param response of all unknowns to one ampere into the node.
 * @returns NaN where the amp does not settle with the meter on.
 */
function loadedVolts(
  network: Network,
  work: Workspace,
  x: Float64Array,
  node: number,
  { ohms, response }: { ohms: number; response: Float64Array },
  meterOhms: number,
): number {
  const chord = loadedByChord(work, x, node, { ohms, response }, meterOhms);
  if (chord !== undefined) return chord;
  const meter = { name: "", a: node, b: -1, siemens: 1 / meterOhms };
  // As the linear amp would stand with the meter on: near enough for most.
  const amps = x[node]! / (meterOhms + ohms);
  const loaded = x.map((v, k) => v - amps * response[k]!);
  const solve = () => newton(work, loaded, { iterations: 40, loose: LOOSE }).converged;
  network.conductors.push(meter);
  let ok = solve();
  if (!ok) {
    loaded.set(x);
    ok = LOADS.every((part) => ((meter.siemens = part / meterOhms), solve()));
  }
  if (!ok) {
    loaded.set(x);
    ok = solveNewton(work, loaded).converged;
  }
  network.conductors.pop();
  // The next point is read by this meter alone: it must not stay in the linear part.
  work.assemble();
  if (ok) return loaded[node]!;
  return ohms <= SCALED_NODE * meterOhms ? x[node]! / (1 + ohms / meterOhms) : NaN;
}

/** Chord steps from the linear answer: where the amp is nearly linear under the meter's load one or two are enough. */
const MOST_CHORDS = 3;
/** Volts, and part of the value, within which a reading stands. */
const READS = 1e-6;

/**
 * The same without factoring anew: the factors at `x`, the meter put in by the Sherman–Morrison formula, the currents taken where the
 * amp really stands. @returns undefined where that does not end at once.
 */
function loadedByChord(
  work: Workspace,
  x: Float64Array,
  node: number,
  { ohms, response }: { ohms: number; response: Float64Array },
  meterOhms: number,
): number | undefined {
  const { factors } = work;
  if (!factors) return undefined;
  const amps = x[node]! / (meterOhms + ohms);
  const loaded = x.map((v, k) => v - amps * response[k]!);
  const off = new Float64Array(x.length);
  for (let step = 0; step < MOST_CHORDS; step++) {
    work.residual(loaded, off);
    off[node]! += loaded[node]! / meterOhms;
    factors(off);
    const share = off[node]! / (meterOhms + ohms);
    let worst = 0;
    for (let k = 0; k < off.length; k++) {
      const change = off[k]! - share * response[k]!;
      loaded[k]! -= change;
      worst = Math.max(worst, Math.abs(change) / (READS * (1 + Math.abs(loaded[k]!))));
    }
    if (worst <= 1) return loaded[node]!;
    if (!Number.isFinite(worst)) return undefined;
  }
  return undefined;
}
