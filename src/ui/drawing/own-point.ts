/** A name and words for a node that becomes a test point of the job. */

import { electrodePoint, electrodesOf, tubesOf, type Electrode } from "@/core/anatomy/points";
import type { Circuit } from "@/core/circuit/circuit";
import { terminalWords } from "@/core/circuit/part-place";

/**
 * @returns the draft of the point; the name is not one of the circuit's points or parts.
 * @example ownPoint(wren, "c5") // { name: "C5.1", node: "c5", label: "the joint of P1, C5" }, as C5 is a part
 */
export function ownPoint(circuit: Circuit, node: string): { name: string; node: string; label: string } {
  const taken = new Set([...circuit.points.map((p) => p.name), ...circuit.elements.map((e) => e.name)].map((n) => n.toLowerCase()));
  const letters = node.replace(/[^\w.+-]/g, "");
  const wanted = electrodeOf(circuit, node) ?? (/^[a-z]/i.test(letters) ? letters.toUpperCase() : `N${letters.toUpperCase()}`).slice(0, 36);
  let name = wanted;
  for (let i = 1; taken.has(name.toLowerCase()); i++) name = `${wanted}.${i}`;
  return { name, node, label: terminalWords(circuit, node).slice(0, 200) };
}

/** The point's name of the first electrode that lies on a node, plates before cathodes before grids; undefined where none does. */
function electrodeOf(circuit: Circuit, node: string): string | undefined {
  const rank: Electrode[] = ["plate", "cathode", "screen", "grid"];
  const there = tubesOf(circuit).flatMap((tube) =>
    electrodesOf(tube).flatMap((electrode, i) => (tube.nodes[i] === node ? [{ tube, electrode }] : [])),
  );
  const [first] = there.sort((a, b) => rank.indexOf(a.electrode) - rank.indexOf(b.electrode));
  return first && electrodePoint(first.tube, first.electrode);
}
