/** The sheets' sections: each channel's signal, the supply, the bias supply, the rest, by what hangs together without the rails. */

import type { Circuit, Element } from "../circuit/circuit";
import type { Section } from "./geometry";
import type { Rail } from "../anatomy/rails";
import * as texts from "../texts/drawing";

export interface Part {
  kind: Exclude<Section["kind"], "heaters">;
  title: string;
  elements: Element[];
}

/** Every element of the circuit in exactly one section; sections without one are left out. */
export function sectionsOf(circuit: Circuit, rails: Map<string, Rail>): Part[] {
  const isMark = (node: string) => node === "0" || rails.has(node);
  const parent = circuit.elements.map((_, i) => i);
  const rootOf = (i: number): number => (parent[i] === i ? i : (parent[i] = rootOf(parent[i]!)));
  const first = new Map<string, number>();
  circuit.elements.forEach((e, i) => {
    for (const node of e.nodes) {
      if (isMark(node)) continue;
      const other = first.get(node);
      if (other === undefined) first.set(node, i);
      else parent[rootOf(i)] = rootOf(other);
    }
  });
  const groups = new Map<number, Element[]>();
  circuit.elements.forEach((e, i) => groups.set(rootOf(i), [...(groups.get(rootOf(i)) ?? []), e]));

  const signals: Part[] = [];
  const strips: Record<"supply" | "bias" | "other", Element[]> = { supply: [], bias: [], other: [] };
  for (const elements of groups.values()) {
    const nodes = elements.flatMap((e) => e.nodes);
    if (elements.some((e) => e.tube)) signals.push({ kind: "signal", title: "", elements });
    else if (nodes.some((n) => rails.get(n)?.kind === "bias")) strips.bias.push(...elements);
    else if (nodes.some((n) => rails.has(n))) strips.supply.push(...elements);
    else strips.other.push(...elements);
  }
  signals.forEach((s) => (s.title = signals.length > 1 ? texts.signalOf(tubesIn(s.elements)) : texts.signal()));
  const strip = (kind: "supply" | "bias" | "other", title: string): Part[] =>
    strips[kind].length > 0 ? [{ kind, title, elements: strips[kind] }] : [];
  return [...signals, ...strip("other", texts.rest()), ...strip("supply", texts.supply()), ...strip("bias", texts.biasSupply())];
}

function tubesIn(elements: readonly Element[]): string {
  const names = elements.filter((e) => e.tube).map((e) => e.name);
  return names.sort((a, b) => a.localeCompare(b, "en", { numeric: true })).join(", ");
}
