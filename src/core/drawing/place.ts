/** Places the cells of a section side by side and wires them: a layered layout with fixed ports and upright and level wires. */

import type { Cell } from "./cells";
import type { Box, Point, Wire } from "./geometry";
import { point } from "./geometry";
import type { Sketch } from "./sketch";

/** As much of the layout package's graph as is used here (the Eclipse Layout Kernel's JSON). */
export interface LayoutNode {
  id: string;
  x?: number;
  y?: number;
  width?: number;
  height?: number;
  children?: LayoutNode[];
  ports?: { id: string; x: number; y: number; width: number; height: number; layoutOptions: Record<string, string> }[];
  edges?: LayoutEdge[];
  layoutOptions?: Record<string, string>;
}

export interface LayoutEdge {
  id: string;
  sources: string[];
  targets: string[];
  sections?: { startPoint: Point; endPoint: Point; bendPoints?: Point[] }[];
}

/** Lays a graph out; rejects where it cannot. */
export type LayoutEngine = (graph: LayoutNode) => Promise<LayoutNode>;

const OPTIONS: Record<string, string> = {
  "elk.algorithm": "layered",
  "elk.direction": "RIGHT",
  "elk.edgeRouting": "ORTHOGONAL",
  // Network simplex places nicer and takes seconds for forty cells.
  "elk.layered.nodePlacement.strategy": "BRANDES_KOEPF",
  "elk.layered.nodePlacement.bk.fixedAlignment": "BALANCED",
  "elk.layered.crossingMinimization.strategy": "LAYER_SWEEP",
  "elk.layered.thoroughness": "20",
  "elk.layered.considerModelOrder.strategy": "NODES_AND_EDGES",
  "elk.layered.considerModelOrder.crossingCounterNodeInfluence": "0.001",
  "elk.layered.feedbackEdges": "true",
  "elk.randomSeed": "1",
  "elk.spacing.nodeNode": "1.6",
  "elk.spacing.edgeNode": "1",
  "elk.spacing.edgeEdge": "1",
  "elk.layered.spacing.nodeNodeBetweenLayers": "2",
  "elk.layered.spacing.edgeNodeBetweenLayers": "1",
  "elk.layered.spacing.edgeEdgeBetweenLayers": "1",
  "elk.spacing.componentComponent": "3",
  "elk.padding": "[top=0,left=0,bottom=0,right=0]",
};

interface Drawn {
  cell: Cell;
  sketch: Sketch;
  box: Box;
  rank: number;
}

/** Room around a cell's own drawing, so that no wire of another runs along its edge. */
const MARGIN = 0.4;

/**
 * @param home the cell at which a node is at home: its port is where the wires to the others begin.
 * @returns the wires between the cells; the sketches are moved to their places.
 */
export async function placeCells(drawn: readonly Drawn[], home: (node: string) => Cell | undefined, layout: LayoutEngine): Promise<Wire[]> {
  const ports: { id: string; node: string; owner: Drawn; side: "WEST" | "EAST"; at: Point }[] = [];
  const children: LayoutNode[] = drawn.map((each, i) => {
    const own = each.sketch.ports.map((port, k) => ({ id: `${i}.${k}`, node: port.node, owner: each, side: port.side, at: port.at }));
    ports.push(...own);
    const { y, width, height } = each.box;
    return {
      id: String(i),
      width: width + 2 * MARGIN,
      height: height + 2 * MARGIN,
      layoutOptions: { "elk.portConstraints": "FIXED_POS" },
      ports: own.map(({ id, side, at }) => ({
        id,
        x: side === "WEST" ? 0 : width + 2 * MARGIN,
        y: at.y - y + MARGIN,
        width: 0,
        height: 0,
        layoutOptions: { "elk.port.side": side },
      })),
    };
  });
  const edges: LayoutEdge[] = [];
  const nodeOf = new Map<string, string>();
  for (const node of new Set(ports.map((p) => p.node))) {
    const here = ports.filter((p) => p.node === node);
    const first =
      here.find((p) => p.owner.cell === home(node) && p.side === "EAST") ?? here.find((p) => p.owner.cell === home(node)) ?? here[0]!;
    for (const other of here) {
      if (other === first) continue;
      const [from, to] = forwards(first, other) ? [first, other] : [other, first];
      const id = `e${edges.length}`;
      nodeOf.set(id, node);
      edges.push({ id, sources: [from.id], targets: [to.id] });
    }
  }
  const placed = await layout({ id: "root", layoutOptions: OPTIONS, children, edges });

  const wires: Wire[] = [];
  placed.children!.forEach((child, i) => {
    const { sketch, box } = drawn[i]!;
    // Ports lead to the edge of their cell.
    for (const port of sketch.ports) {
      const edge = point(port.side === "WEST" ? box.x - MARGIN : box.x + box.width + MARGIN, port.at.y);
      sketch.wire(port.node, port.at, edge);
    }
    sketch.move(point(child.x! - box.x + MARGIN, child.y! - box.y + MARGIN));
  });
  for (const edge of placed.edges ?? [])
    for (const section of edge.sections ?? []) {
      const points = [section.startPoint, ...(section.bendPoints ?? []), section.endPoint];
      for (let i = 1; i < points.length; i++) wires.push({ node: nodeOf.get(edge.id)!, from: points[i - 1]!, to: points[i]! });
    }
  return wires;
}

/** Whether an edge runs from the first port to the other: out on the right and in on the left, else from the lower rank to the higher. */
function forwards(first: { side: string; owner: Drawn }, other: { side: string; owner: Drawn }): boolean {
  if (first.side !== other.side) return first.side === "EAST";
  return first.owner.rank <= other.owner.rank;
}
