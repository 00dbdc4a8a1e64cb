/**
 * The supply and bias rails of a circuit. A node is a rail when it is reached from a rectifier through
 * resistors, chokes or switches and has a reservoir on it; a bias also where the wiper of its adjuster is.
 */

import { isRectifier } from "../circuit/special-parts";
import type { Circuit, Element } from "../circuit/circuit";

export interface Rail {
  node: string;
  kind: "rail" | "bias";
  /** The name of the test point that lies on it, else of the node; no two are alike. */
  text: string;
}

const LONGEST = 12;
const cutTo = (most: number, text: string): string => (text.length > most ? `${text.slice(0, most - 1)}…` : text);
const RESERVOIR_FROM = 1e-6;
/** A source of so many volts and more is a supply; below it is a signal or a cell. */
const SUPPLY_FROM = 12;

const hasReservoir = (circuit: Circuit, node: string) =>
  circuit.elements.some(
    (e) => e.letter === "C" && (e.value ?? 0) >= RESERVOIR_FROM && e.nodes.includes(node) && e.nodes.some((n) => n !== node),
  );

/** Where a tube's grid or cathode lies, no rail begins: a bypassed cathode has a capacitor of the same size. */
const isGridOrCathode = (e: Element, node: string) => e.tube !== undefined && e.nodes.slice(-2).includes(node);

/** A screen with a capacitor of its own is a rail only where more than one resistor or tube hangs on it. */
function isOneScreen(circuit: Circuit, node: string): boolean {
  const here = circuit.elements.filter((e) => e.nodes.includes(node));
  const tubes = here.filter((e) => e.tube);
  return tubes.length === 1 && here.filter((e) => e.letter === "R" || e.letter === "L").length < 2;
}

function outputs(circuit: Circuit): { node: string; kind: Rail["kind"] }[] {
  const out: { node: string; kind: Rail["kind"] }[] = [];
  for (const e of circuit.elements) {
    const [plus, minus] = e.nodes;
    const source = e.letter === "V" && e.nodes.includes("0") && Math.abs(e.value ?? 0) >= SUPPLY_FROM;
    if (!isRectifier(e.type) && !source) continue;
    const reversed = source && (e.value ?? 0) < 0;
    if (plus !== undefined && plus !== "0") out.push({ node: plus, kind: reversed ? "bias" : "rail" });
    if (minus !== undefined && minus !== "0") out.push({ node: minus, kind: reversed ? "rail" : "bias" });
  }
  return out;
}

/** The rails and bias nodes by node, ground left out. */
export function railsOf(circuit: Circuit): Map<string, Rail> {
  const rails = new Map<string, Rail>();
  const add = (node: string, kind: Rail["kind"]) => {
    const named = circuit.points.find((p) => p.node === node && !p.name.includes("."));
    // Names of marks are short, and two rails never have one name: a node may be called like another's point.
    const short = cutTo(LONGEST, named?.name ?? node.toUpperCase());
    let text = short;
    for (let i = 2; [...rails.values()].some((r) => r.text === text); i++) text = `${cutTo(LONGEST - 2, short)} ${i}`;
    rails.set(node, { node, kind, text });
  };
  for (const { node, kind } of outputs(circuit)) {
    if (rails.has(node)) continue;
    add(node, kind);
    const queue = [node];
    const seen = new Set(["0", ...rails.keys()]);
    while (queue.length > 0) {
      const at = queue.shift()!;
      for (const e of circuit.elements) {
        const leads = e.letter === "R" || e.letter === "L" || e.type === "SW" || (kind === "bias" && e.type === "POT");
        if (!leads || !e.nodes.includes(at)) continue;
        for (const to of e.nodes) {
          if (seen.has(to)) continue;
          seen.add(to);
          const here = circuit.elements.filter((other) => other.nodes.includes(to));
          if (here.some((other) => isGridOrCathode(other, to))) continue;
          const wiper = here.some((other) => other.type === "POT" && other.nodes[1] === to);
          const rail = (hasReservoir(circuit, to) && !isOneScreen(circuit, to)) || (kind === "bias" && wiper);
          if (rail) add(to, kind);
          // A node of passive parts only, such as the one behind a standby switch, is passed through.
          if (rail || here.every((other) => ["R", "L", "C", "D"].includes(other.letter) || other.type === "SW" || other.type === "POT"))
            queue.push(to);
        }
      }
    }
  }
  return rails;
}
