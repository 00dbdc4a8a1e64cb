/** Room for solving one network: its matrix, its factors and what its devices are linearised about, used again from solve to solve. */

import type { Circuit } from "../circuit/circuit";
import { ComplexLu } from "../numeric/complex-lu";
import { Lu } from "../numeric/lu";
import { assemble, assembleStorage, type Network } from "./network";
import { patternOf, placesOf } from "./pattern";

/** What networks of one size can have in turn; it knows whose places it holds figures at. */
interface Room {
  lu: Lu;
  complex: ComplexLu;
  linear: Float64Array;
  rhs: Float64Array;
  b: Float64Array;
  pattern: Uint8Array;
  places: Int32Array;
}

function roomFor(n: number, pattern: Uint8Array): Room {
  return {
    lu: new Lu(n, pattern),
    complex: new ComplexLu(n, pattern),
    linear: new Float64Array(n * n),
    rhs: new Float64Array(n),
    b: new Float64Array(n),
    pattern,
    places: placesOf(pattern),
  };
}

/** Makes a room ready for a network that fills other places: what the last one left there would be taken for its own. */
function handOver(room: Room, pattern: Uint8Array): void {
  const { lu, complex, linear } = room;
  for (const place of room.places) lu.a[place] = linear[place] = complex.re[place] = complex.im[place] = 0;
  lu.become(pattern);
  complex.become(pattern);
  room.pattern = pattern;
  room.places = placesOf(pattern);
}

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
  private readonly room: Room;
  /** Factors that were kept. */
  factors?: (b: Float64Array) => void;
  private stored: Float64Array | undefined;
  /** Terminal volts at which each device was last evaluated. */
  readonly held: Float64Array[];
  private readonly v = new Float64Array(4);
  private readonly i = new Float64Array(4);
  private readonly g = new Float64Array(16);

  /** @param used that of a network of the same size that is done with: its room, and its order of elimination, are taken over. */
  constructor(
    readonly network: Network,
    used?: Workspace,
  ) {
    const n = network.size;
    const pattern = (network.pattern ??= patternOf(network));
    this.room = used && used.network.size === n ? used.room : roomFor(n, pattern);
    if (this.room.pattern !== pattern) handOver(this.room, pattern);
    ({ lu: this.lu, complex: this.complex, linear: this.linear, rhs: this.rhs, b: this.b, places: this.places } = this.room);
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
