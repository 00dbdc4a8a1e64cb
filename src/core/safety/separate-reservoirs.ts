/** Which reservoirs are separate: what ties each to the others and to chassis, and which one open part would cut it off. */

import type { Circuit } from "../circuit/circuit";
import { coldPaths, type ColdPath, type Reservoir } from "../supply/reservoirs";

export interface Tie {
  reservoir: string;
  /** The reservoir that a tool is clipped to first: the one that can hold the most. */
  first: boolean;
  /** True when direct current finds a way between it and the first one. */
  joined: boolean;
  /** Parts any one of which, open, cuts it off from the first: bleeding that one leaves this one charged. */
  cutOffBy: string[];
  /** Open switches that stand between it and the first. */
  behind: string[];
  /** True when something bleeds it to chassis, and parts any one of which, open, would end that. */
  bled: boolean;
  bleedLostBy: string[];
}

/** What a part may have at most to count as a way for charge: above it the charge stays for hours. */
const MOST_OHMS = 5e6;

/** Reservoirs in the order given. Those named by hand are tied to nothing that is known. */
export function tiesOf(circuit: Circuit | undefined, reservoirs: readonly Reservoir[]): Tie[] {
  const most = (r: Reservoir) => r.farads * (r.ratedVolts ?? 0) ** 2;
  const first = reservoirs.reduce<Reservoir | undefined>((a, b) => (a && most(a) >= most(b) ? a : b), undefined);
  const paths = circuit ? coldPaths(circuit).filter((p) => p.ohms <= MOST_OHMS) : [];
  const switches = (circuit?.elements ?? [])
    .filter((e) => e.type === "SW" && e.params.state === "open")
    .map((e): ColdPath => ({ name: e.name, a: e.nodes[0]!, b: e.nodes[1]!, ohms: 0.1 }));
  return reservoirs.map((r) => {
    const there = (ways: ColdPath[]) => first !== undefined && (r === first || meets(ways, r, first));
    const down = (ways: ColdPath[]) => reaches(ways, r.node, new Set([r.returnNode]), r.returnNode === "0" ? undefined : "0");
    const joined = there(paths);
    const bled = down(paths);
    const alone = (name: string) => paths.filter((p) => p.name !== name);
    const names = [...new Set(paths.map((p) => p.name))];
    return {
      reservoir: r.name,
      first: r === first,
      joined,
      cutOffBy: joined && r !== first ? names.filter((n) => !there(alone(n))) : [],
      behind: joined ? [] : switches.filter((s) => there([...paths, s])).map((s) => s.name),
      bled,
      bleedLostBy: bled ? names.filter((n) => !down(alone(n))) : [],
    };
  });
}

/** A way between two reservoirs that does not lead through chassis; stacked capacitors on one node meet there. */
function meets(paths: readonly ColdPath[], a: Reservoir, b: Reservoir): boolean {
  const goals = new Set([b.node, b.returnNode].filter((n) => n !== "0"));
  return [a.node, a.returnNode].some((n) => n !== "0" && reaches(paths, n, goals, "0"));
}

/** Whether one of `goals` is reached from `start` over the paths, not through `closed`. */
function reaches(paths: readonly ColdPath[], start: string, goals: ReadonlySet<string>, closed?: string): boolean {
  const seen = new Set([start]);
  const queue = [start];
  while (queue.length > 0) {
    const node = queue.shift()!;
    if (goals.has(node)) return true;
    if (node === closed) continue;
    for (const { a, b } of paths) {
      const next = a === node ? b : b === node ? a : undefined;
      if (next !== undefined && !seen.has(next)) {
        seen.add(next);
        queue.push(next);
      }
    }
  }
  return false;
}
