/** What is read in the stages of a bring-up: windings, rails, bias at the sockets, cathodes. */

import type { Circuit } from "../circuit/circuit";
import type { BringUpAnatomy } from "../anatomy/kind-of-amp";
import * as texts from "../texts/bring-up";

/** Something read in a stage. */
export interface Watch {
  /** As it is logged: a test point, "V4.g" at a socket, "HT1" of a winding. */
  point: string;
  kind: "dcv" | "acv";
  label: string;
  /** Where the probe goes. */
  pin?: string;
  /** The node, for what the model solves. */
  node?: string;
  /** Volts of a winding at the circuit's own mains, for what it does not. */
  windingVolts?: number;
  /** True where the stage cannot be passed without it. */
  must: boolean;
}

const pointAt = (circuit: Circuit, node: string) => circuit.points.find((p) => p.node === node);

function pointWatch(circuit: Circuit, node: string, fallback: string, label: string, must: boolean, pin?: string): Watch {
  const p = pointAt(circuit, node);
  return { point: p?.name ?? fallback, kind: "dcv", label: p?.label ?? label, pin: p?.pin ?? pin, node, must };
}

/** Rails on the reservoirs, the highest first: the first one must be read. */
export function railWatches(circuit: Circuit, a: BringUpAnatomy): Watch[] {
  const starts = a.high.map((e) => e.nodes[0]!);
  const caps = circuit.elements.filter((e) => e.letter === "C" && (e.value ?? 0) >= 1e-6 && (e.notes.volts ?? 0) >= 100);
  const nodes = [...new Set([...starts, ...caps.flatMap((c) => c.nodes)])].filter((n) => n !== "0" && pointAt(circuit, n));
  const biased = new Set(a.bias.flatMap((e) => e.nodes));
  return nodes.filter((n) => !biased.has(n)).map((n) => pointWatch(circuit, n, n, n, starts.includes(n)));
}

export function biasWatches(circuit: Circuit, a: BringUpAnatomy): Watch[] {
  return a.bias.map((e) => pointWatch(circuit, e.nodes[1]!, e.nodes[1]!, texts.biasSupply(), true));
}

/** The grid pin of each output socket, named by its tube: two tubes may share a node, the sockets are two. */
export function socketWatches(circuit: Circuit, a: BringUpAnatomy, must: boolean): Watch[] {
  return [...a.grids].flatMap(([tube, nodes]) =>
    nodes.map((node): Watch => {
      const type = circuit.elements.find((e) => e.tube && e.name.startsWith(tube))?.tube;
      const pin = type?.pins[0]?.grid;
      const p = circuit.points.find((x) => x.node === node && (x.pin ?? "").startsWith(`${tube} `));
      return {
        point: p?.name ?? `${tube}.g`,
        kind: "dcv",
        label: texts.socketGrid(tube),
        pin: p?.pin ?? (pin ? texts.pin(tube, pin) : undefined),
        node,
        must,
      };
    }),
  );
}

export function cathodeWatches(circuit: Circuit, a: BringUpAnatomy): Watch[] {
  const seen = new Set<string>();
  return a.output.flatMap((tube) => {
    const e = circuit.elements.find((x) => x.tube && (x.name === tube || x.name.startsWith(tube)));
    const node = e?.nodes.at(-1);
    if (!node || node === "0" || seen.has(node)) return [];
    seen.add(node);
    return [{ ...pointWatch(circuit, node, `${tube}.k`, texts.cathode(tube), false), label: texts.cathode(tube), must: true }];
  });
}

/** What the netlist knows of the transformer: winding volts under load, some percent more without. */
export function windingWatches(circuit: Circuit, a: BringUpAnatomy): Watch[] {
  const high = a.high.flatMap((e, k): Watch[] => {
    const vac = e.params.vac as number;
    const name = a.high.length > 1 ? `HT${k + 1}` : "HT";
    const winding = (point: string, label: string): Watch => ({ point, kind: "acv", label, windingVolts: vac, must: true });
    return e.type === "RECT_FULL"
      ? [winding(`${name}.1`, texts.highTensionWindingFirst()), winding(`${name}.2`, texts.highTensionWindingSecond())]
      : [winding(name, texts.highTensionWinding())];
  });
  const bias = a.bias.map((e): Watch => ({
    point: "BIAS.ac",
    kind: "acv",
    label: texts.biasWinding(),
    windingVolts: e.params.vac as number,
    must: false,
  }));
  const heaters = circuit.heaters
    .filter((h) => !h.string && h.volts !== undefined)
    .map((h): Watch => ({
      point: h.name,
      kind: "acv",
      label: texts.heaterWinding(h.name, h.tubes.join(", ")),
      windingVolts: h.volts,
      must: false,
    }));
  return [...high, ...bias, ...heaters];
}
