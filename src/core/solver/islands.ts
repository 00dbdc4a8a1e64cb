/** Nodes that no direct current can reach through linear parts or rectifiers. */

import type { Network } from "./network";

/** Each such node, and whether nothing but grids hangs on its island: then no solve can say what it is at. */
export function groundIslands(network: Network): { node: number; gridsOnly: boolean }[] {
  const count = network.nodes.length;
  const parent = Int32Array.from({ length: count + 1 }, (_, i) => i);
  const slot = (node: number) => (node < 0 ? count : node);
  const find = (i: number): number => {
    while (parent[i] !== i) {
      parent[i] = parent[parent[i]!]!;
      i = parent[i]!;
    }
    return i;
  };
  const join = (a: number, b: number) => {
    if (a < count && b < count) parent[find(slot(a))] = find(slot(b));
  };
  const tubes = new Set(network.tubes.map((t) => t.device));
  for (const { a, b, siemens } of network.conductors) if (siemens > 1e-11) join(a, b);
  for (const { a, b } of network.branches) join(a, b);
  for (const d of network.devices) {
    if (tubes.has(d)) continue;
    const [first, ...rest] = d.at.filter((_, i) => !d.isolated?.includes(i));
    for (const other of rest) join(first!, other);
  }
  const ground = find(count);
  const carriers = new Set<number>();
  for (const t of network.tubes) {
    const grid = t.device.at.length - 2;
    t.device.at.forEach((node, i) => {
      if (node >= 0 && i !== grid) carriers.add(find(node));
    });
  }
  const out: { node: number; gridsOnly: boolean }[] = [];
  for (let node = 0; node < count; node++) {
    const root = find(node);
    if (root !== ground) out.push({ node, gridsOnly: !carriers.has(root) });
  }
  return out;
}
