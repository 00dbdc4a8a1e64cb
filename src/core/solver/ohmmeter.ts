/** What an ohmmeter shows between two nodes of the dead amp: tubes cold, sources off, junctions as they are. */

import { fixed } from "../language/language";
import type { Circuit } from "../circuit/circuit";
import { nodeName } from "../circuit/annotations";
import { compile } from "./compile";
import type { Conductor } from "./network";
import { newton, solveNewton } from "./newton";
import { Workspace, workspaceOf } from "./workspace";
import { transient } from "./transient";
import * as texts from "../texts/solver";

export interface OhmmeterOptions {
  /** Open-circuit volts between the probes; red positive. Digital meters test with less than a junction wants. */
  testVolts?: number;
  /** Ohms inside the meter: with `testVolts`, how fast a capacitor is charged. */
  sourceOhms?: number;
  /** Seconds after touching at which "now" is read; 0 leaves the charging out, and `ohms` is the settled reading. */
  seconds?: number;
  /** Volts still stored in any reservoir; above 0.2 V a reading means nothing. */
  storedVolts?: number;
}

export interface OhmReading {
  /** Reading `seconds` after touching, capacitors still charging. */
  ohms: number;
  /** Reading once nothing moves any more. */
  settled: number;
  testVolts: number;
  polarity: string;
}

const MOST_STORED_VOLTS = 0.2;
/** Above this a meter shows overload: the path is through insulation. */
const OPEN_OHMS = 1e10;

export class StoredChargeError extends Error {
  constructor(volts: number) {
    super(texts.reservoirStillHoldsOhmmeter(fixed(volts, 1)));
  }
}

/**
 * Resistance from `red` to `black`.
 * @param network the circuit as a network with the power off, where it was made already; the meter stays in it.
 * @param used buffers of a network of its size.
 * @throws RangeError for a node that is not in the circuit; StoredChargeError while charge is stored.
 */
export function ohmmeter(
  circuit: Circuit,
  red: string,
  black: string,
  options: OhmmeterOptions = {},
  network = compile(circuit, { supply: "off" }),
  used?: Workspace,
): OhmReading {
  const { testVolts = 0.3, sourceOhms = 100e3, seconds = 2, storedVolts = 0 } = options;
  if (Math.abs(storedVolts) > MOST_STORED_VOLTS) throw new StoredChargeError(storedVolts);
  const at = (name: string) => {
    const node = nodeName(name);
    if (node === "0") return -1;
    const k = network.index.get(node);
    if (k === undefined) throw new RangeError(texts.noNode(name));
    return k;
  };
  const a = at(red);
  const b = at(black);
  if (a === b) return { ohms: 0, settled: 0, testVolts, polarity: texts.redBlack(red, black) };
  // The meter is a source behind its own resistance: as a current and a conductance it adds no unknown.
  const meter: Conductor = { name: "", a, b, siemens: 1 / sourceOhms };
  network.conductors.push(meter);
  network.sources.push({ name: "", a: b, b: a, amps: testVolts / sourceOhms });
  // It may join two nodes that nothing joined before.
  network.pattern = undefined;
  const work = used ? new Workspace(network, used) : workspaceOf(network);
  const x = new Float64Array(network.size);
  const volts = (v: Float64Array) => (a < 0 ? 0 : v[a]!) - (b < 0 ? 0 : v[b]!);
  const shown = (v: number) => {
    const amps = (testVolts - v) / sourceOhms;
    const ohms = v / amps;
    return !(ohms >= 0) ? Infinity : ohms > OPEN_OHMS ? Infinity : ohms;
  };
  if (!newton(work, x).converged) solveNewton(work, x);
  const settled = shown(volts(x));
  if (network.capacitors.length === 0 || seconds === 0) return { ohms: settled, settled, testVolts, polarity: texts.redBlack(red, black) };
  const start = new Float64Array(network.size);
  const run = transient(network, { start, stop: seconds, tolerance: 1e-3, keep: [] });
  return { ohms: shown(volts(run.end)), settled, testVolts, polarity: texts.redBlack(red, black) };
}
