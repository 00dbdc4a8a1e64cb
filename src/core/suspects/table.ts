/** What every fault would show: each hypothesis solved once for each set of conditions, with the covariance of its points. */

import { AlterError } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import { magnitude, SmallSignal } from "../solver/small-signal";
import { compile } from "../solver/compile";
import { idlingAboveSheet } from "../solver/idle";
import { idealVolts, operatingPoint, readings, solveOperatingPoint, tubesAtWork, type OperatingPoint } from "../solver/operating-point";
import { rippleOf } from "../solver/ripple";
import { knobsOf, sensitivities, type Knob } from "../solver/tolerance";
import { isOutputTube } from "../anatomy/cathode-current";
import { solveKey, type SolveConditions } from "../expectation/modelled";
import type { Evidence } from "../diagnosis/evidence";
import { NOTHING_WRONG, type Fault } from "./fault";
import { FaultNetworks } from "./fault-networks";
import { faultsOf } from "./faults";

/** One fault at one severity: a line of the table. */
export interface Hypothesis {
  fault: Fault;
  severity: number;
  /** All changes to the netlist. */
  changes: string[];
}

/** What one hypothesis predicts under one set of conditions. */
export interface Prediction {
  converged: boolean;
  /** Volts by point number, as the meter reads them; NaN where nothing holds the point. */
  volts: Float64Array;
  /** The leak or short would burn more than its part survives: nobody measures this state. */
  impossible: boolean;
  /** Volts per one sigma of each knob: points × knobs, row-major. Worked out when it is first wanted. */
  readonly sensitivities: Float32Array;
  /** One sigma of each point by all knobs together. */
  readonly sigma: Float64Array;
  /** Covariance of the points: sensitivities times their transpose, points × points. Worked out when it is first wanted. */
  covariance?: Float64Array;
  /** What can be seen or felt: plate and screen watts by tube, and all of them together. */
  tubeWatts: Map<string, number>;
  tubeMilliamps: Map<string, number>;
  supplyWatts: number;
}

/** Volts of a point per one sigma of each knob, and of all together, for one hypothesis that settled. */
interface Sensitivities {
  sensitivities: Float32Array;
  sigma: Float64Array;
}

export const HEALTHY: Fault = { name: NOTHING_WRONG, refs: [], kind: "none", changes: () => [], grid: [1], prior: 0 };

/** All that is not on the list. */
export const UNKNOWN: Fault = {
  name: "none of the faults known here",
  refs: ["unknown"],
  kind: "unknown",
  changes: () => [],
  grid: [1],
  prior: 0,
};

/** Knobs by kind and name, numbered once for the healthy amp: a fault that takes a part out leaves its column at zero. */
interface KnobIndex {
  count: number;
  of(knob: Knob): number | undefined;
  mains: number | undefined;
}

/**
 * How much more than from tube to tube the currents of small tubes differ from the model's: at a milliampere its law is right to about
 * an eighth (published tables, see the engine's docs), and contact potential adds its share.
 */
const SMALL_TUBE_DOUBT = 1.6;

/** Pairs that are kept: a bench rarely asks for more in one hunt. */
const MOST_EXTRA = 5000;

export class FaultTable {
  readonly faults: Fault[];
  /** Nothing wrong first, then every fault at each of its severities. */
  readonly hypotheses: Hypothesis[];
  readonly points: string[];
  private readonly groups = new Map<string, Prediction[]>();
  /** The healthy answer under each set of conditions, to start others from. */
  private readonly starts = new Map<string, OperatingPoint>();
  private readonly extra = new Map<string, Float64Array | undefined>();
  private readonly gainColumns = new Map<string, Float64Array>();
  private readonly ripples = new Map<string, ReadonlyMap<string, number>>();
  private readonly networks: FaultNetworks;
  private readonly knobs: KnobIndex;
  /** Output tubes that idle where their sheet says little. */
  private readonly aboveSheet: ReadonlySet<string>;

  constructor(
    readonly circuit: Circuit,
    readonly meterOhms = 10e6,
  ) {
    this.faults = faultsOf(circuit);
    this.points = circuit.points.map((p) => p.name);
    this.hypotheses = [
      { fault: HEALTHY, severity: 1, changes: [] },
      ...this.faults.flatMap((fault) => fault.grid.map((severity) => ({ fault, severity, changes: fault.changes(severity) }))),
    ];
    this.aboveSheet = idlingAboveSheet(operatingPoint(circuit, { mains: circuit.mains?.volts }));
    this.networks = new FaultNetworks(circuit, this.aboveSheet);
    const names = new Map(knobsOf(compile(circuit)).map((k, i) => [`${k.kind} ${k.name}`, i]));
    this.knobs = { count: names.size, of: (k) => names.get(`${k.kind} ${k.name}`), mains: names.get("mains mains") };
  }

  get knobCount(): number {
    return this.knobs.count;
  }

  /** Column of the mains among the knobs; undefined without a rectifier. */
  get mainsKnob(): number | undefined {
    return this.knobs.mains;
  }

  /** Is this set of conditions solved already? */
  has(conditions: SolveConditions): boolean {
    return this.groups.has(solveKey(conditions));
  }

  /** All hypotheses under these conditions, solved at the first call. @param progress told 0 to 1; answers false to stop. */
  shown(conditions: SolveConditions, progress?: (part: number) => boolean): Prediction[] {
    const key = solveKey(conditions);
    const known = this.groups.get(key);
    if (known) return known;
    const out: Prediction[] = [];
    let start: OperatingPoint | undefined;
    for (const h of this.hypotheses) {
      const shown = this.solve(h, conditions, start);
      start ??= shown.op;
      out.push(shown.shown);
      if (progress && out.length % 25 === 0 && !progress(out.length / this.hypotheses.length)) throw new TableStopped();
    }
    this.groups.set(key, out);
    if (start) this.starts.set(key, start);
    return out;
  }

  /**
   * Volts by point number of what is not in the table: two faults at once. Kept, since the same pairs lead from reading to reading.
   * Undefined when it does not settle, or when the changes do not go together.
   */
  voltsOf(changes: string[], conditions: SolveConditions): Float64Array | undefined {
    const key = `${changes.join(" ")} | ${solveKey(conditions)}`;
    if (!this.extra.has(key)) {
      if (this.extra.size > MOST_EXTRA) this.extra.clear();
      this.extra.set(key, this.solveVolts(changes, conditions));
    }
    return this.extra.get(key);
  }

  /** Ohms from node to node with these changes, power off, settled; Infinity where nothing is left to measure. Kept. */
  ohmsOf(changes: string[], a: string, b: string): number {
    return this.networks.ohms(changes, a, b);
  }

  private solveVolts(changes: string[], conditions: SolveConditions): Float64Array | undefined {
    let network;
    try {
      network = this.networks.network(changes, conditions);
    } catch (error) {
      if (error instanceof AlterError) return undefined;
      throw error;
    }
    const healthy = this.starts.get(solveKey(conditions));
    const work = this.networks.workFor(network);
    const op = solveOperatingPoint(network, healthy && startLike(healthy, network), work, healthy);
    if (!op.converged) return undefined;
    const read = readings(op, this.circuit.points, this.meterOhms, work);
    return Float64Array.from(this.points, (p) => read.get(p)!);
  }

  private solve(h: Hypothesis, conditions: SolveConditions, healthy?: OperatingPoint): { shown: Prediction; op?: OperatingPoint } {
    const network = this.networks.network(h.changes, conditions);
    const work = this.networks.workFor(network);
    const op = solveOperatingPoint(network, healthy && startLike(healthy, network), work, healthy);
    const count = this.points.length;
    // What is kept of the solve, so that its sensitivities can be worked out later: few hypotheses are ever looked at closely.
    const { x } = op;
    const shifts = network.rectifiers.map((r) => r.correction.shift);
    const { offset } = network;
    let worked: Sensitivities | undefined;
    const workedOut = () =>
      (worked ??= op.converged ? this.sensitivitiesOf(h, conditions, x, shifts, offset, shown.volts) : this.noSensitivities());
    const shown: Prediction = {
      converged: op.converged,
      impossible: false,
      volts: new Float64Array(count).fill(NaN),
      get sensitivities() {
        return workedOut().sensitivities;
      },
      get sigma() {
        return workedOut().sigma;
      },
      tubeWatts: new Map(),
      tubeMilliamps: new Map(),
      supplyWatts: 0,
    };
    if (!op.converged) return { shown };
    const read = readings(op, this.circuit.points, this.meterOhms, work);
    this.points.forEach((p, i) => (shown.volts[i] = read.get(p)!));
    for (const [name, work] of tubesAtWork(op)) {
      shown.tubeWatts.set(name, work.plateWatts + (work.screenWatts ?? 0));
      shown.tubeMilliamps.set(name, work.plateMilliamps + (work.screenMilliamps ?? 0));
    }
    shown.supplyWatts = [...shown.tubeWatts.values()].reduce((a, b) => a + b, 0);
    const limit = h.fault.mostWatts;
    if (limit) {
      const [a, b] = limit.nodes.map((n) => (network.index.has(n) ? idealVolts(op, n) : 0)) as [number, number];
      shown.impossible = (a - b) ** 2 / h.severity > limit.watts;
    }
    return { shown, op };
  }

  private noSensitivities(): Sensitivities {
    const count = this.points.length;
    return { sensitivities: new Float32Array(count * this.knobs.count), sigma: new Float64Array(count) };
  }

  private sensitivitiesOf(
    h: Hypothesis,
    conditions: SolveConditions,
    x: Float64Array,
    shifts: readonly number[],
    offset: Float64Array | undefined,
    volts: Float64Array,
  ): Sensitivities {
    const network = this.networks.network(h.changes, conditions);
    network.rectifiers.forEach((r, k) => (r.correction.shift = shifts[k]!));
    network.offset = offset;
    const { sensitivities: table, sigma } = this.noSensitivities();
    const count = this.points.length;
    const knobs = knobsOf(network, this.aboveSheet);
    const rows = sensitivities(
      { network, x },
      this.circuit.points.map((p) => p.node),
      knobs,
      this.networks.workFor(network),
    );
    const columns = knobs.map((k) => this.knobs.of(k));
    const output = new Set(network.tubes.flatMap((t) => (isOutputTube(t.element) ? [t.element.name] : [])));
    rows.forEach((row, i) => {
      // The meter's loading divides the spread as it divides the volts.
      const node = this.circuit.points[i]!.node;
      const ideal = network.index.has(node) ? idealVolts({ network, x }, node) : 0;
      // What nothing holds has no loading that could be said.
      const loaded = Math.abs(ideal) > 1e-6 && Number.isFinite(volts[i]!) ? Math.min(1, Math.abs(volts[i]! / ideal)) : 1;
      row.forEach((s, k) => {
        const column = columns[k];
        const knob = knobs[k]!;
        const sigma = knob.sigma * (knob.kind === "tube current" ? (output.has(knob.name) ? 1 : SMALL_TUBE_DOUBT) : 1);
        if (column !== undefined) table[i * this.knobs.count + column] = s * sigma * loaded;
      });
    });
    for (let i = 0; i < count; i++) {
      let square = 0;
      for (let k = i * this.knobs.count; k < (i + 1) * this.knobs.count; k++) square += table[k]! ** 2;
      sigma[i] = Math.sqrt(square);
    }
    return { sensitivities: table, sigma };
  }

  /** Ripple of every node under a hypothesis, volts rms; solved at the first call, empty where it does not settle. */
  ripple(line: number, conditions: SolveConditions): ReadonlyMap<string, number> {
    const h = this.hypotheses[line]!;
    const key = `${line} | ${solveKey(conditions)}`;
    let out = this.ripples.get(key);
    if (!out) {
      const network = this.networks.network(h.changes, conditions);
      const healthy = this.starts.get(solveKey(conditions));
      const op = solveOperatingPoint(network, healthy && startLike(healthy, network));
      this.ripples.set(key, (out = op.converged ? rippleOf(op) : new Map()));
    }
    return out;
  }

  /** Gain from the input to the speaker over all hypotheses; solved at the first call. */
  gains(conditions: SolveConditions): Float64Array {
    const key = solveKey(conditions);
    let out = this.gainColumns.get(key);
    if (!out) {
      out = Float64Array.from(this.hypotheses, (h) => {
        const op = solveOperatingPoint(compile(this.networks.altered(h.changes, conditions), { mains: conditions.mains }));
        return op.converged ? gainOf(op) : NaN;
      });
      this.gainColumns.set(key, out);
    }
    return out;
  }

  /** AC volts rms at a point for a drive, over all hypotheses: solved anew, since it needs each operating point. */
  acColumn(point: string, drive: NonNullable<Evidence["drive"]>, conditions: SolveConditions): Float64Array {
    const node = this.circuit.points.find((p) => p.name === point)!.node;
    return Float64Array.from(this.hypotheses, (h) => {
      const network = compile(this.networks.altered(h.changes, conditions), { mains: conditions.mains });
      const op = solveOperatingPoint(network);
      const [a, b] = [network.index.get(drive.input), network.index.get(node)];
      if (!op.converged || a === undefined || b === undefined) return NaN;
      return magnitude(new SmallSignal(op).drive(a, drive.level, drive.hertz)[b]!);
    });
  }
}

/** Volts² that points share through the knobs, points × points, row-major; kept with what is shown. */
export function covarianceOf(shown: Prediction, knobs: number): Float64Array {
  if (shown.covariance) return shown.covariance;
  const n = shown.volts.length;
  const { sensitivities } = shown;
  const out = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = 0;
      for (let k = 0, a = i * knobs, b = j * knobs; k < knobs; k++) sum += sensitivities[a + k]! * sensitivities[b + k]!;
      out[i * n + j] = out[j * n + i] = sum;
    }
  return (shown.covariance = out);
}

/** The table was stopped before it was whole; nothing of it is kept. */
export class TableStopped extends Error {}

/** Gain from the first stage's input to the speaker at 1 kHz; 0 where there is none. */
function gainOf(op: OperatingPoint): number {
  const { stages } = op.network.circuit;
  const a = stages[0] && op.network.index.get(stages[0].in);
  const b = op.network.index.get("out") ?? (stages.length ? op.network.index.get(stages.at(-1)!.out) : undefined);
  if (a === undefined || b === undefined) return 0;
  try {
    return magnitude(new SmallSignal(op).drive(a, 1, 1000)[b]!);
  } catch (error) {
    // A node that only a capacitor holds has no small-signal answer: nothing comes through.
    if (error instanceof RangeError) return 0;
    throw error;
  }
}

/** The healthy answer as a start for an altered network: nodes by name. */
function startLike(healthy: OperatingPoint, network: OperatingPoint["network"]): Float64Array {
  const x = new Float64Array(network.size);
  network.nodes.forEach((name, k) => {
    const from = healthy.network.index.get(name);
    if (from !== undefined) x[k] = healthy.x[from]!;
  });
  return x;
}
