/** The networks of a table of faults: each made from the sound amp's under its conditions, in room that they have in turn. */

import { alter, without } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import { solveKey, type SolveConditions } from "../expectation/modelled";
import { USUAL_IDLE } from "../solver/idle";
import type { Network } from "../solver/network";
import { ohmmeter } from "../solver/ohmmeter";
import { Variants } from "../solver/variant";
import { Workspace } from "../solver/workspace";

export class FaultNetworks {
  /** Under each set of conditions: the circuit with its controls set, and its networks. */
  private readonly variants = new Map<string, { set: Circuit; of: Variants }>();
  /** By size; those with the power off are eliminated in another order. */
  private readonly room = new Map<number, Workspace>();
  private readonly roomOff = new Map<number, Workspace>();
  private off?: Variants;
  private readonly resistances = new Map<string, number>();

  /** @param aboveSheet output tubes that idle where their sheet says little. */
  constructor(
    private readonly circuit: Circuit,
    private readonly aboveSheet: ReadonlySet<string>,
  ) {}

  /** The altered circuit under conditions; what cannot be altered (a part that is out) is left as it is. */
  altered(changes: readonly string[], conditions: SolveConditions): Circuit {
    return changed(alter(this.circuit, conditions.set), changes, conditions);
  }

  /** The altered circuit ready to be solved, output tubes at their usual idle. */
  network(changes: readonly string[], conditions: SolveConditions): Network {
    const key = solveKey(conditions);
    let known = this.variants.get(key);
    if (!known) {
      const set = alter(this.circuit, conditions.set);
      const of = new Variants(changed(set, [], conditions), { mains: conditions.mains }, (network) => {
        for (const { element, state } of network.tubes) if (this.aboveSheet.has(element.name)) state.spread = USUAL_IDLE;
      });
      this.variants.set(key, (known = { set, of }));
    }
    return known.of.network(changed(known.set, changes, conditions));
  }

  /** Room for a network that is solved next: that of the last one of its size. */
  workFor(network: Network): Workspace {
    const work = new Workspace(network, this.room.get(network.size));
    this.room.set(network.size, work);
    return work;
  }

  /** Ohms from node to node with these changes, power off, settled; Infinity where nothing is left to measure. Kept. */
  ohms(changes: readonly string[], a: string, b: string): number {
    const key = `${changes.join(" ")} | ${a} ${b}`;
    let ohms = this.resistances.get(key);
    if (ohms === undefined) this.resistances.set(key, (ohms = this.measured(alter(this.circuit, changes), a, b)));
    return ohms;
  }

  private measured(circuit: Circuit, a: string, b: string): number {
    const there = (n: string) => n === "0" || circuit.elements.some((e) => e.nodes.includes(n));
    if (!there(a) || !there(b)) return Infinity;
    this.off ??= new Variants(this.circuit, { supply: "off" });
    const network = this.off.network(circuit);
    const used = this.roomOff.get(network.size) ?? new Workspace(network);
    this.roomOff.set(network.size, used);
    return ohmmeter(circuit, a, b, { seconds: 0 }, network, used).settled;
  }
}

/** @param set the circuit with its controls as they stand. */
function changed(set: Circuit, changes: readonly string[], conditions: SolveConditions): Circuit {
  const circuit = alter(set, changes);
  return without(
    circuit,
    conditions.without.filter((t) => circuit.elements.some((e) => e.name.startsWith(t.toUpperCase()))),
  );
}
