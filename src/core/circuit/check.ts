/** What must hold before a circuit is worth solving: ground, no lone nodes, no loops of sources, names used once. */

import { primaryNodes } from "./special-parts";
import { fileName, type Circuit } from "./circuit";
import * as texts from "../texts/circuit";

type Report = (line: number, found: string, expected: string) => void;

export function checkCircuit(circuit: Circuit, error: Report, warn: Report): void {
  const seen = new Map<string, number>();
  for (const e of circuit.elements) {
    const before = seen.get(fileName(e));
    if (before !== undefined) error(e.line, texts.secondFirstLine(fileName(e), before), texts.eachNameOnce());
    else seen.set(fileName(e), e.line);
  }
  const nodes = new Map<string, { uses: number; line: number }>();
  for (const e of circuit.elements)
    for (const n of e.nodes) {
      const use = nodes.get(n) ?? { uses: 0, line: e.line };
      use.uses += 1;
      nodes.set(n, use);
    }
  if (circuit.elements.length === 0) error(1, texts.noElementLines(), texts.titleLineThenLeast());
  else if (!nodes.has("0")) error(1, texts.noPartGoesGround(), texts.nodeGndSomewhere());

  for (const [node, { uses, line }] of nodes) {
    if (node !== "0" && uses === 1) warn(line, texts.nodeOnePart(node), texts.leastTwoPartsEach());
  }
  const known = (node: string) => nodes.has(node);
  for (const p of circuit.points) if (!known(p.node)) error(p.line, texts.pointNode(p.name, p.node), texts.nodePartConnected());
  for (const s of circuit.stages)
    for (const n of [s.in, s.out]) if (!known(n)) error(1, texts.stageNode(s.name, n), texts.nodePartConnected());
  for (const [a, b] of circuit.near) for (const n of [a, b]) if (!known(n)) error(1, texts.near(a, b), texts.nodesExistDoesNot(n));
  for (const e of circuit.elements) {
    if (e.letter !== "K") continue;
    for (const coil of [e.params.first, e.params.second])
      if (!circuit.elements.some((l) => l.letter === "L" && l.name === coil))
        error(e.line, texts.couples(e.name, coil), texts.inductorFile());
  }
  checkSourceLoops(circuit, error);
  checkFloating(circuit, nodes, error);
}

/** Voltage sources and chokes without resistance in a ring have no answer: found with a disjoint-set over their nodes. */
function checkSourceLoops(circuit: Circuit, error: Report): void {
  const sets = disjointSets();
  for (const e of circuit.elements) {
    if (!(e.letter === "V" || (e.letter === "L" && !e.notes.dcr))) continue;
    const [a, b] = [sets.find(e.nodes[0]!), sets.find(e.nodes[1]!)];
    if (a === b)
      error(e.line, texts.closesLoopVoltageSources(e.name, e.letter === "L" ? " and chokes" : ""), texts.resistanceSomewhereLoop());
    sets.join(a, b);
  }
}

/** A node with no path to ground through anything but a capacitor has no direct voltage of its own. */
function checkFloating(circuit: Circuit, nodes: Map<string, { line: number }>, error: Report): void {
  const sets = disjointSets();
  for (const e of circuit.elements) {
    if (e.letter === "C" || e.letter === "K" || e.letter === "I") continue;
    // Windings are separate: the secondary does not give the primary a path to ground.
    if (e.type === "XFMR") for (let i = 0; i < e.nodes.length; i += 2) joinAll(sets, e.nodes.slice(i, i + 2));
    else if (e.type === "OPT_SE" || e.type === "OPT_PP") {
      const split = primaryNodes(e.type, e.params);
      joinAll(sets, e.nodes.slice(0, split));
      joinAll(sets, e.nodes.slice(split));
    } else if (e.type === "NMOS") {
      joinAll(sets, [e.nodes[0]!, e.nodes[2]!]);
    } else if (e.tube) {
      // A grid draws no direct current worth the name: it needs a leak of its own.
      joinAll(
        sets,
        e.nodes.filter((_, i) => i !== e.nodes.length - 2),
      );
    } else joinAll(sets, e.nodes);
  }
  const ground = sets.find("0");
  for (const [node, { line }] of nodes) {
    if (sets.find(node) !== ground) error(line, texts.nodeFloatsOnlyCapacitors(node), texts.pathDirectCurrentGround());
  }
}

function joinAll(sets: ReturnType<typeof disjointSets>, nodes: string[]): void {
  for (let i = 1; i < nodes.length; i++) sets.join(nodes[0]!, nodes[i]!);
}

function disjointSets() {
  const parent = new Map<string, string>();
  const find = (n: string): string => {
    let root = n;
    for (let up = parent.get(root); up !== undefined && up !== root; up = parent.get(root)) root = up;
    // All that was passed on the way points to the root from now on.
    for (let at = n; at !== root;) {
      const up = parent.get(at) ?? root;
      parent.set(at, root);
      at = up;
    }
    return root;
  };
  return { find, join: (a: string, b: string) => void parent.set(find(a), find(b)) };
}
