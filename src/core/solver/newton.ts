/** Newton's method on a network: devices linearised about held voltages, with aids that always end. */

import type { Circuit } from "../circuit/circuit";
import { ComplexLu } from "../numeric/complex-lu";
import { Lu } from "../numeric/lu";
import { patternOf, placesOf } from "./pattern";
import { assemble, assembleStorage, type Network } from "./network";

/** Buffers for one network, used again from solve to solve. */
export class Workspace {
  readonly lu: Lu;
  readonly linear: Float64Array;
  readonly rhs: Float64Array;
  readonly b: Float64Array;
  /** Places of the matrix that can be other than zero, row-major. */
  readonly places: Int32Array;
  /** For the same network at one frequency. */
  readonly complex: ComplexLu;
  private readonly pattern: Uint8Array;
  /** Factors that were kept. */
  factors?: (b: Float64Array) => void;
  private stored: Float64Array | undefined;
  /** Terminal volts at which each device was last evaluated. */
  readonly held: Float64Array[];
  private readonly v = new Float64Array(4);
  private readonly i = new Float64Array(4);
  private readonly g = new Float64Array(16);

  /** @param used buffers of another network of the same size that is done with: its room, and its order of elimination, are taken over. */
  constructor(
    readonly network: Network,
    used?: Workspace,
  ) {
    const n = network.size;
    const pattern = (network.pattern ??= patternOf(network));
    this.pattern = pattern;
    if (used && used.pattern === pattern) {
      ({ lu: this.lu, complex: this.complex, linear: this.linear, rhs: this.rhs, b: this.b, places: this.places } = used);
    } else if (used && used.network.size === n) {
      ({ lu: this.lu, complex: this.complex, linear: this.linear, rhs: this.rhs, b: this.b } = used);
      const { a } = this.lu;
      const { re, im } = this.complex;
      this.places = placesOf(pattern);
      for (const place of used.places) a[place] = this.linear[place] = re[place] = im[place] = 0;
      this.lu.become(pattern);
      this.complex.become(pattern);
    } else {
      this.lu = new Lu(n, pattern);
      this.complex = new ComplexLu(n, pattern);
      this.linear = new Float64Array(n * n);
      this.rhs = new Float64Array(n);
      this.b = new Float64Array(n);
      this.places = placesOf(pattern);
    }
    this.held = network.devices.map((d) => new Float64Array(d.at.length));
  }

  /** Takes the linear part anew, after a conductor or a source was turned. */
  assemble(sourceScale = 1): void {
    for (const place of this.places) this.linear[place] = 0;
    assemble(this.network, this.linear, this.rhs, sourceScale);
  }

  /** Puts the linear part into `lu.a` and the sources into `b`: what devices are added to. */
  begin(): void {
    const { places, linear, lu } = this;
    const { a } = lu;
    for (let k = 0; k < places.length; k++) a[places[k]!] = linear[places[k]!]!;
    this.b.set(this.rhs);
  }

  /** What multiplies dx/dt (`assembleStorage`) at each of `places`. */
  get storage(): Float64Array {
    if (!this.stored) {
      const whole = new Float64Array(this.network.size ** 2);
      assembleStorage(this.network, whole);
      this.stored = Float64Array.from(this.places, (place) => whole[place]!);
    }
    return this.stored;
  }

  hold(x: Float64Array): void {
    this.network.devices.forEach((d, k) => d.at.forEach((node, t) => (this.held[k]![t] = node < 0 ? 0 : x[node]!)));
  }

  /**
   * Adds every device to the matrix in `lu.a` and to `b`, linearised about its held voltages near `x`.
   * @param limiting false takes the voltages as they are. @returns true when a device was held back.
   */
  stamp(x: Float64Array, limiting: boolean, scale = 1): boolean {
    const { network, lu, b, v, i, g } = this;
    const n = network.size;
    const a = lu.a;
    let heldBack = false;
    for (let k = 0; k < network.devices.length; k++) {
      const device = network.devices[k]!;
      const { at } = device;
      const m = at.length;
      const held = this.held[k]!;
      for (let t = 0; t < m; t++) v[t] = at[t]! < 0 ? 0 : x[at[t]!]!;
      if (limiting && device.limit?.(v, held)) heldBack = true;
      for (let t = 0; t < m; t++) held[t] = v[t]!;
      device.evaluate(v, i, g);
      for (let r = 0; r < m; r++) {
        const row = at[r]!;
        if (row < 0) continue;
        let current = i[r]!;
        for (let c = 0; c < m; c++) {
          const slope = g[r * m + c]!;
          current -= slope * v[c]!;
          const column = at[c]!;
          if (column >= 0) a[row * n + column]! += slope * scale;
        }
        b[row]! -= current * scale;
      }
    }
    return heldBack;
  }

  /** The factors as they are now, to be solved with whatever is factored meanwhile. */
  keepFactors(): void {
    this.factors = this.lu.kept();
  }

  /** How far `x` is from balance: the current out of each node, the volts of each branch, of the network that was assembled last. */
  residual(x: Float64Array, into: Float64Array): void {
    const { places, linear, rhs } = this;
    const n = rhs.length;
    for (let k = 0; k < n; k++) into[k] = -rhs[k]!;
    for (let k = 0; k < places.length; k++) {
      const place = places[k]!;
      const entry = linear[place]!;
      if (entry !== 0) into[(place / n) | 0]! += entry * x[place % n]!;
    }
    this.addCurrents(x, into);
  }

  /** Sum of the device currents out of each node at `x`, added to `into`: the nonlinear part of the residual. */
  addCurrents(x: Float64Array, into: Float64Array): void {
    const { network, v, i, g } = this;
    for (const device of network.devices) {
      const m = device.at.length;
      for (let t = 0; t < m; t++) v[t] = device.at[t]! < 0 ? 0 : x[device.at[t]!]!;
      device.evaluate(v, i, g);
      for (let t = 0; t < m; t++) if (device.at[t]! >= 0) into[device.at[t]!]! += i[t]!;
    }
  }
}

const workspaces = new WeakMap<Network, Workspace>();
/** The last one of each circuit: another network of it is eliminated in the same order. */
const lastOf = new WeakMap<Circuit, Workspace>();

/** The buffers of a network, made once: the order of its elimination is worth keeping. */
export function workspaceOf(network: Network): Workspace {
  let work = workspaces.get(network);
  if (!work) {
    work = new Workspace(network);
    const last = lastOf.get(network.circuit);
    if (last) work.lu.adopt(last.lu);
    lastOf.set(network.circuit, work);
    workspaces.set(network, work);
  }
  return work;
}

export interface NewtonOptions {
  iterations?: number;
  /** How much less than the usual will do: 1000 where a reading is wanted to a few digits. */
  loose?: number;
  /** Siemens from every node to ground, for the aids; 0 in every final solve. */
  gmin?: number;
  sourceScale?: number;
  /** Siemens from every node to its voltage in `anchor`: a capacitor over one step of pseudo-transient continuation. */
  pseudo?: number;
  anchor?: Float64Array;
}

export interface NewtonResult {
  converged: boolean;
  iterations: number;
  /** Unknown that moved most in the last iteration. */
  worst: number;
}

/** Convergence as SPICE has it: the largest change of the last iteration, in volts and as a part of the value. */
const VNTOL = 1e-7;
const RELTOL = 1e-9;

/** Runs Newton iterations from `x`, which is overwritten. */
export function newton(work: Workspace, x: Float64Array, options: NewtonOptions = {}): NewtonResult {
  const { network, lu, b } = work;
  const n = network.size;
  const nodes = network.nodes.length;
  const { iterations = 60, loose = 1, gmin = 0, sourceScale = 1, pseudo = 0, anchor } = options;
  work.assemble(sourceScale);
  work.hold(x);
  let worst = 0;
  let calm = false;
  for (let iteration = 1; iteration <= iterations; iteration++) {
    work.begin();
    const heldBack = work.stamp(x, true);
    const extra = gmin + pseudo;
    if (extra > 0)
      for (let k = 0; k < nodes; k++) {
        lu.a[k * n + k]! += extra;
        if (anchor) b[k]! += pseudo * anchor[k]!;
      }
    const singular = lu.factor();
    if (singular >= 0) return { converged: false, iterations: iteration, worst: singular };
    lu.solve(b);
    let over = 0;
    worst = 0;
    // Late iterations that still swing are halved: two points that answer each other meet in the middle.
    const damping = iteration > 25 && iteration % 2 ? 0.5 : 1;
    for (let k = 0; k < n; k++) {
      const change = b[k]! - x[k]!;
      const ratio = k < nodes ? Math.abs(change) / (loose * (VNTOL + RELTOL * Math.abs(b[k]!))) : 0;
      if (!(ratio <= over)) {
        over = ratio;
        worst = k;
      }
      x[k] = x[k]! + damping * change;
    }
    if (!Number.isFinite(over)) return { converged: false, iterations: iteration, worst };
    if (over <= 1 && !heldBack && damping === 1) {
      // One more iteration after the first calm one: Newton squares what is left of the error.
      if (calm || loose > 1 || network.devices.length === 0) return { converged: true, iterations: iteration, worst };
      calm = true;
    } else calm = false;
  }
  return { converged: false, iterations, worst };
}

/** Which aid brought the answer. */
export type Aid = "none" | "gmin" | "sources" | "pseudo-transient";

export interface SolveResult extends NewtonResult {
  aid: Aid;
}

/**
 * Newton from `x`; then with a conductance at every node that is taken away by and by; then with the sources rising; then
 * by pseudo-transient continuation. The last solve of each has none of the aid left. Overwrites `x` with the answer.
 */
export function solveNewton(work: Workspace, x: Float64Array): SolveResult {
  const start = x.slice();
  const direct = newton(work, x);
  if (direct.converged) return { ...direct, aid: "none" };
  let iterations = direct.iterations;

  x.fill(0);
  let ok = true;
  for (let g = 1e-2; g > 1e-13 && ok; g /= 10) {
    const step = newton(work, x, { gmin: g, iterations: 50 });
    iterations += step.iterations;
    ok = step.converged;
  }
  if (ok) {
    const last = newton(work, x);
    iterations += last.iterations;
    if (last.converged) return { ...last, iterations, aid: "gmin" };
  }

  x.fill(0);
  ok = true;
  let reached = 0;
  let stride = 0.1;
  const kept = x.slice();
  while (reached < 1 && stride > 1e-3) {
    const scale = Math.min(1, reached + stride);
    const step = newton(work, x, { sourceScale: scale, gmin: scale < 1 ? 1e-9 : 0, iterations: 40 });
    iterations += step.iterations;
    if (step.converged) {
      reached = scale;
      kept.set(x);
      stride *= 1.5;
    } else {
      x.set(kept);
      stride /= 2;
    }
  }
  if (reached >= 1) return { converged: true, iterations, worst: 0, aid: "sources" };

  return { ...pseudoTransient(work, x, start, iterations), aid: "pseudo-transient" };
}

/** Pseudo-transient continuation: steps of a made-up time with a capacitor at every node, as the amp would settle after switch-on. */
function pseudoTransient(work: Workspace, x: Float64Array, start: Float64Array, before: number): NewtonResult {
  x.set(start);
  if (!x.every(Number.isFinite)) x.fill(0);
  let pseudo = 1e-2;
  let iterations = before;
  let worst = 0;
  const anchor = x.slice();
  for (let step = 0; step < 400; step++) {
    anchor.set(x);
    const r = newton(work, x, { pseudo, anchor, iterations: 25 });
    iterations += r.iterations;
    worst = r.worst;
    if (r.converged) {
      pseudo *= 0.6;
      if (pseudo < 1e-11) {
        anchor.set(x);
        const last = newton(work, x);
        iterations += last.iterations;
        if (last.converged) return { ...last, iterations };
        x.set(anchor);
        pseudo = 1e-6;
      }
    } else {
      x.set(anchor);
      pseudo *= 4;
      if (pseudo > 1e3) break;
    }
  }
  return { converged: false, iterations, worst };
}
