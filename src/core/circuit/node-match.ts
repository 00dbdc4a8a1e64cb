/** Which node of one netlist is which of another, where the two name them differently. */

import type { Circuit, Element } from "./circuit";

/** Nodes of the found circuit to those of the reference. */
export type NodeMap = ReadonlyMap<string, string>;

const ends = (e: Element) => e.nodes.length === 2 && e.letter !== "X" && e.letter !== "D";

/**
 * Parts of the same name vote for pairs of nodes; the pair with the most votes is taken first, each node once. A node that
 * carries the same name in both counts as a vote, so that a part moved from one rail to another does not rename the rails.
 */
export function matchNodes(reference: Circuit, found: Circuit): NodeMap {
  const byName = new Map(reference.elements.map((e) => [`${e.letter}${e.name}`, e]));
  const votes = new Map<string, number>();
  const vote = (from: string, to: string, weight: number) => votes.set(`${from}\n${to}`, (votes.get(`${from}\n${to}`) ?? 0) + weight);
  for (const f of found.elements) {
    const r = byName.get(`${f.letter}${f.name}`);
    if (!r || r.nodes.length !== f.nodes.length) continue;
    // The ends of a resistor may be written either way round: half a vote each.
    if (ends(f)) for (const a of f.nodes) for (const b of r.nodes) vote(a, b, a === b ? 1 : 0.5);
    else f.nodes.forEach((n, i) => vote(n, r.nodes[i]!, 1));
  }
  const known = new Set(reference.elements.flatMap((e) => e.nodes));
  const mine = new Set(found.elements.flatMap((e) => e.nodes));
  for (const n of mine) if (known.has(n)) vote(n, n, 0.75);
  for (const p of found.points) {
    const same = reference.points.find((q) => q.name.toLowerCase() === p.name.toLowerCase());
    if (same) vote(p.node, same.node, 1);
  }
  const map = new Map<string, string>([["0", "0"]]);
  const taken = new Set(["0"]);
  const ranked = [...votes].map(([key, n]) => ({ pair: key.split("\n") as [string, string], n })).sort((a, b) => b.n - a.n);
  for (const { pair } of ranked) {
    const [from, to] = pair;
    if (map.has(from) || taken.has(to)) continue;
    map.set(from, to);
    taken.add(to);
  }
  // A node that is new keeps its name, unless the reference uses that name for another.
  for (const n of mine) if (!map.has(n)) map.set(n, taken.has(n) ? `${n}′` : n);
  return map;
}
