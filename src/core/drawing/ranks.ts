/** How far each node lies from the inputs, so that signal runs from left to right and what returns it lies beneath. */

import type { Element } from "../circuit/circuit";
import { electrodeNode } from "../anatomy/points";
import { primaryNodes } from "../circuit/special-parts";

/**
 * Steps from an input to each node: through a tube from its grid only, through an output transformer from its primary only.
 * The secondary is never entered any other way, so that feedback does not count as a way forward. Unreached nodes are left out.
 */
export function ranksOf(elements: readonly Element[], inputs: readonly string[], isMark: (node: string) => boolean): Map<string, number> {
  const transformers = elements.filter((e) => e.type?.startsWith("OPT_"));
  const secondary = new Set(transformers.flatMap((e) => e.nodes.slice(primaryNodes(e.type!, e.params))));
  // What a tube drives is entered through that tube: a way back through a mixer's resistor is no way forward.
  const driven = new Set(elements.flatMap((e) => (e.tube ? [electrodeNode(e, "plate")!] : [])));
  const ranks = new Map<string, number>();
  const queue: string[] = [];
  const enter = (node: string | undefined, rank: number) => {
    if (node === undefined || isMark(node) || ranks.has(node)) return;
    ranks.set(node, rank);
    queue.push(node);
  };
  const flood = () => {
    while (queue.length > 0) {
      const node = queue.shift()!;
      const next = ranks.get(node)! + 1;
      for (const e of elements) {
        if (!e.nodes.includes(node)) continue;
        if (e.tube && e.nodes.length >= 3) {
          const [plate, grid, cathode] = (["plate", "grid", "cathode"] as const).map((name) => electrodeNode(e, name));
          if (node === grid || node === cathode) enter(plate, next);
          if (node === grid) enter(cathode, next);
        } else if (transformers.includes(e)) {
          const primary = primaryNodes(e.type!, e.params);
          if (e.nodes.slice(0, primary).includes(node)) for (const to of e.nodes.slice(primary)) enter(to, next);
        } else for (const to of e.nodes) if (!secondary.has(to) && !driven.has(to)) enter(to, next);
      }
    }
  };
  for (const node of inputs) enter(node, 0);
  flood();
  // What no input reaches begins a count of its own: an oscillator, a circuit without a named input.
  for (const e of elements) {
    const start = e.tube ? electrodeNode(e, "grid") : e.nodes.find((n) => !secondary.has(n));
    if (start !== undefined && !isMark(start) && !ranks.has(start)) {
      enter(start, 0);
      flood();
    }
  }
  for (const e of transformers) for (const node of e.nodes.slice(primaryNodes(e.type!, e.params))) enter(node, 1e3);
  return ranks;
}
