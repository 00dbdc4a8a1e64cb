/** A circuit made ready for solving: numbered unknowns, linear parts as entries, nonlinear parts as devices. */

import type { Circuit, Element } from "../circuit/circuit";
import type { PulseTrain } from "../supply/pulse-train";
import type { RectifierModel } from "../supply/rectifier";
import type { Device, TubeState } from "./devices";
import * as texts from "../texts/solver";

/** A conductance between two unknowns (−1: ground). Its value may be turned between solves. */
export interface Conductor {
  name: string;
  a: number;
  b: number;
  siemens: number;
}

/** A voltage source or a winding: an unknown current from `a` through it to `b`; v(a) − v(b) − ohms·i = volts + control. */
export interface Branch {
  name: string;
  a: number;
  b: number;
  /** Unknown number of its current. */
  index: number;
  ohms: number;
  volts: number;
  /** Subtracted from the row: gain·v(node). */
  control?: { node: number; gain: number };
}

export interface CurrentSource {
  name: string;
  a: number;
  b: number;
  amps: number;
}

export interface Capacitor {
  name: string;
  a: number;
  b: number;
  farads: number;
}

/** Henries between two branch currents; the diagonal is a winding's own. */
export interface Inductance {
  first: number;
  second: number;
  henries: number;
}

/** Pulses of a rectifier that were solved, and the average current that they were solved for. */
export interface SolvedPulses {
  amps: number;
  train: PulseTrain;
}

/** What the averaged law of a rectifier is shifted by, volts, and the pulses that it was found from. */
export interface Correction {
  shift: number;
  solved?: SolvedPulses;
}

export interface RectifierPart {
  element: Element;
  model: RectifierModel;
  a: number;
  b: number;
  correction: Correction;
  /** Its device among those of the network, and the one that gives its current pulse by pulse. */
  device: Device;
  pulsed: Device;
  /** One of two diodes about a capacitor that the winding drives: only time stepping shows what it does. */
  cascade: boolean;
}

export interface TubePart {
  element: Element;
  state: TubeState;
  /** A copy of the type's model, so that its µ can be turned. */
  model: { mu: number };
  device: Device;
}

/** A node that no linear part or rectifier ties to ground. */
export interface Island {
  node: number;
  /** Where its 1 TΩ leads: ground (−1), or the cathode beside a grid that nothing holds. */
  to: number;
  /** Nothing but grids hangs on it: no solve can say what it is at. */
  gridsOnly: boolean;
}

/** How the amp is solved: powered with averaged or pulsing rectifiers, or off and cold. */
export type Supply = "averaged" | "pulsed" | "off";

export interface NetworkOptions {
  /** Volts at the wall; the circuit's own unless given. */
  mains?: number;
  supply?: Supply;
}

export interface Network {
  circuit: Circuit;
  /** Unknowns 0 … nodes.length−1 are node voltages; branch currents follow. */
  nodes: string[];
  index: ReadonlyMap<string, number>;
  size: number;
  conductors: Conductor[];
  branches: Branch[];
  sources: CurrentSource[];
  capacitors: Capacitor[];
  inductances: Inductance[];
  devices: Device[];
  tubes: TubePart[];
  rectifiers: RectifierPart[];
  /** Phase of the mains for pulsed rectifiers, radians; whether it runs at all: in an averaged solve a winding shows its mean, nothing. */
  clock: { phase: number; running: boolean };
  /** Added to the right-hand side: what the averages of curved currents differ from the currents at the averages, where a rail swings far. */
  offset?: Float64Array;
  /** Mains hertz; 50 unless the file says otherwise. */
  hertz: number;
  /** Today's mains over the circuit's. */
  mainsRatio: number;
  /** Nodes that nothing linear ties to ground: each has 1 TΩ. */
  islands: Island[];
  supply: Supply;
  /** Which places of its matrix can be other than zero, where that was found before (`patternOf`). */
  pattern?: Uint8Array;
}

/** Scales with the mains are asked of a circuit that does not say what its windings refer to. */
export class NoMainsError extends Error {
  constructor() {
    super(texts.circuitHasNoMains2());
  }
}

/** Resistance that stands for nothing where an open part leaves a node without any. */
export const OPEN_SIEMENS = 1e-12;

/** Adds the linear part to `matrix` (size², row-major, nothing in it) and fills `rhs` (size): G x = s. */
export function assemble(network: Network, matrix: Float64Array, rhs: Float64Array, sourceScale = 1): void {
  const n = network.size;
  rhs.fill(0);
  for (const { a, b, siemens } of network.conductors) {
    if (a >= 0) matrix[a * n + a]! += siemens;
    if (b >= 0) matrix[b * n + b]! += siemens;
    if (a >= 0 && b >= 0) {
      matrix[a * n + b]! -= siemens;
      matrix[b * n + a]! -= siemens;
    }
  }
  for (const { a, b, index: k, ohms, volts, control } of network.branches) {
    if (a >= 0) {
      matrix[a * n + k]! += 1;
      matrix[k * n + a]! += 1;
    }
    if (b >= 0) {
      matrix[b * n + k]! -= 1;
      matrix[k * n + b]! -= 1;
    }
    matrix[k * n + k]! -= ohms;
    if (control && control.node >= 0) matrix[k * n + control.node]! -= control.gain;
    rhs[k]! += volts * sourceScale;
  }
  network.offset?.forEach((amps, k) => (rhs[k]! += amps * sourceScale));
  for (const { a, b, amps } of network.sources) {
    if (a >= 0) rhs[a]! -= amps * sourceScale;
    if (b >= 0) rhs[b]! += amps * sourceScale;
  }
}

/** Fills `matrix` (size²) with what multiplies dx/dt: capacitances on node rows, minus inductances on branch rows. */
export function assembleStorage(network: Network, matrix: Float64Array): void {
  const n = network.size;
  matrix.fill(0);
  for (const { a, b, farads } of network.capacitors) {
    if (a >= 0) matrix[a * n + a]! += farads;
    if (b >= 0) matrix[b * n + b]! += farads;
    if (a >= 0 && b >= 0) {
      matrix[a * n + b]! -= farads;
      matrix[b * n + a]! -= farads;
    }
  }
  for (const { first, second, henries } of network.inductances) matrix[first * n + second]! -= henries;
}
