/**
 * One circuit and its like: with a fault, a tube out, a control turned. What differs in a value or in a part that joins the same nodes is
 * not compiled anew: the network keeps its numbers, and only what has changed is put in the place of what was.
 */

import type { Circuit, Element } from "../circuit/circuit";
import { isRectifier } from "../circuit/special-parts";
import { compile } from "./compile";
import { addElement } from "./elements";
import { groundIslands } from "./islands";
import { OPEN_SIEMENS, type Network, type NetworkOptions } from "./network";
import { patternOf } from "./pattern";

/** What an element has put into the network. */
interface Piece {
  /** It numbers unknowns of its own, or is tied to others: without it the network is another one. */
  fixed: boolean;
  items: Set<unknown>;
}

const LISTS = ["conductors", "capacitors", "sources", "devices", "tubes", "rectifiers"] as const;

export class Variants {
  readonly base: Network;
  private readonly pieces = new Map<Element, Piece>();
  /** Elements that stand on each node. */
  private readonly uses = new Map<string, number>();

  /** @param prepare is told each network before it is given out. @throws NoMainsError like `compile`. */
  constructor(
    circuit: Circuit,
    private readonly options: NetworkOptions,
    private readonly prepare: (network: Network) => void = () => undefined,
  ) {
    const seen = LISTS.map(() => 0);
    this.base = compile(circuit, options, (e, network, fixed) => {
      const items = new Set<unknown>();
      LISTS.forEach((list, k) => {
        for (let i = seen[k]!; i < network[list].length; i++) items.add(network[list][i]);
        seen[k] = network[list].length;
      });
      this.pieces.set(e, { fixed, items });
    });
    this.base.pattern = patternOf(this.base);
    for (const e of circuit.elements) for (const n of e.nodes) this.uses.set(n, (this.uses.get(n) ?? 0) + 1);
    prepare(this.base);
  }

  /** The network of a circuit that was made from the first by changes. */
  network(circuit: Circuit): Network {
    const network = this.varied(circuit) ?? compile(circuit, this.options);
    this.prepare(network);
    return network;
  }

  /** Undefined where it is too unlike the first. */
  private varied(circuit: Circuit): Network | undefined {
    const { base, pieces } = this;
    if (circuit.mainsShare !== base.circuit.mainsShare) return undefined;
    // A rectifier is corrected by its own network: each has one of its own.
    const isNew = (e: Element) => !pieces.has(e) || isRectifier(e.type);
    const fresh = circuit.elements.filter(isNew);
    const kept = new Set(circuit.elements);
    const gone = base.circuit.elements.filter((e) => !kept.has(e) || isRectifier(e.type));
    if (gone.some((e) => pieces.get(e)!.fixed)) return undefined;
    const left = new Map<string, number>();
    const count = (e: Element, by: number) => {
      for (const n of e.nodes) left.set(n, (left.get(n) ?? this.uses.get(n) ?? 0) + by);
    };
    for (const e of gone) count(e, -1);
    for (const e of fresh) count(e, 1);
    // A node that nothing stands on any more has no number in a network of its own.
    for (const uses of left.values()) if (uses === 0) return undefined;

    const out = new Set<unknown>();
    for (const e of gone) for (const item of pieces.get(e)!.items) out.add(item);
    const islands = base.islands.length;
    const network: Network = { ...base, circuit, clock: { ...base.clock } };
    for (const list of LISTS) {
      const all: unknown[] = list === "conductors" ? base.conductors.slice(0, base.conductors.length - islands) : base[list];
      (network[list] as unknown[]) = all.filter((item) => !out.has(item));
    }
    let fits = true;
    const deferred: (() => void)[] = [];
    const at = (node: string): number => {
      if (node === "0") return -1;
      const k = base.index.get(node);
      if (k === undefined) fits = false;
      return k ?? -1;
    };
    const branch = (b: object) => {
      fits = false;
      return { ...b, index: -1 } as never;
    };
    const before = LISTS.map((list) => network[list].length);
    for (const e of fresh) addElement(e, { network, at, branch, windings: new Map(), deferred });
    if (!fits || deferred.length > 0) return undefined;
    network.islands = groundIslands(network);
    for (const { node, to } of network.islands) network.conductors.push({ name: "", a: node, b: to, siemens: OPEN_SIEMENS });
    network.pattern = this.covers(network, before) ? base.pattern : undefined;
    return network;
  }

  /** Whether what was added fills no place of the matrix that the first network does not fill. */
  private covers(network: Network, before: readonly number[]): boolean {
    const { size, pattern } = this.base;
    const among = (nodes: readonly number[]) => nodes.every((r) => r < 0 || nodes.every((c) => c < 0 || pattern![r * size + c] === 1));
    const added = <T>(list: (typeof LISTS)[number], items: T[]) => items.slice(before[LISTS.indexOf(list)]);
    return (
      added("conductors", network.conductors).every(({ a, b }) => among([a, b])) &&
      added("capacitors", network.capacitors).every(({ a, b }) => among([a, b])) &&
      added("devices", network.devices).every(({ at }) => among(at))
    );
  }
}
