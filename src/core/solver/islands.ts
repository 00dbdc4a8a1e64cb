/** Nodes that no direct current can reach through linear parts or rectifiers. */

import type { Island, Network } from "./network";

/**
 * Each such node. A grid without a leak collects electrons until it stands about a volt below its cathode, wherever that
 * is; a leak to ground would cut the tube off instead.
 */
export function groundIslands(network: Network): Island[] {
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
  const cathodes = new Map<number, number>();
  for (const { device } of network.tubes) {
    const grid = device.at.length - 2;
    device.at.forEach((node, i) => {
      if (node >= 0 && i !== grid) carriers.add(find(node));
    });
    if (device.at[grid]! >= 0) cathodes.set(find(device.at[grid]!), device.at[grid + 1]!);
  }
  const out: Island[] = [];
  for (let node = 0; node < count; node++) {
    const root = find(node);
    if (root === ground) continue;
    const gridsOnly = !carriers.has(root);
    out.push({ node, gridsOnly, to: gridsOnly ? (cathodes.get(root) ?? -1) : -1 });
  }
  return out;
}
