/** What of a model is not known well: windings and their resistances, parts that nobody has seen, the strength of each tube. */

import { isOutputTube } from "../anatomy/cathode-current";
import type { Circuit, Element } from "../circuit/circuit";
import { isLineConnected } from "../circuit/mains-connection";
import type { Unit } from "../quantity/unit";
import { idlingAboveSheet, IDLE_SIGMA, USUAL_IDLE } from "../solver/idle";
import type { Network } from "../solver/network";
import type { OperatingPoint } from "../solver/operating-point";

export type What = "winding volts" | "source resistance" | "winding resistance" | "value" | "strength";

export interface Unknown {
  /** Names of the parts: the output tubes on one cathode have one strength. */
  parts: string[];
  what: What;
  /** The parameter of a line that it is, where the line has several. */
  key?: string;
  /** As the file has it; the strength of a tube in parts of its sheet's tube. */
  before: number;
  unit?: Unit;
  /** The factor that is likeliest before anything was measured, and one sigma of its logarithm. */
  usual: number;
  sigma: number;
  /** It was measured on the part itself: known, whatever the figures say of it. */
  measured?: true;
  /** Physical bounds of the factor. */
  least: number;
  most: number;
  /** Sets it to so many times what the file says, in a network that was compiled from the file. */
  turn(network: Network, factor: number): void;
}

/** One sigma of the logarithm of the factor: first of what somebody has seen or read, then of what is assumed. */
const SIGMA: Record<What, [seen: number, assumed: number]> = {
  "winding volts": [0.05, 0.15],
  "source resistance": [0.3, 0.4],
  "winding resistance": [0.2, 0.35],
  value: [0.06, 0.2],
  strength: [0.13, 0.13],
};

/** Bounds of a factor: what no amp of the kind has, whatever the figures say. */
const BOUNDS: Record<What, [number, number]> = {
  "winding volts": [0.65, 1.5],
  "source resistance": [0.25, 4],
  "winding resistance": [0.3, 3],
  value: [0.4, 2.5],
  strength: [0.4, 1.6],
};

function unknown(what: What, rest: Pick<Unknown, "parts" | "before" | "turn"> & Partial<Unknown>, assumed: boolean): Unknown {
  const [least, most] = BOUNDS[what];
  return { what, usual: 1, sigma: SIGMA[what][assumed ? 1 : 0], least, most, ...rest };
}

/** The unknowns of a circuit; of a solved one the output tubes that idle where their sheet says little have their usual shortfall. */
export function unknownsOf(circuit: Circuit, op: OperatingPoint): Unknown[] {
  const out: Unknown[] = [];
  const aboveSheet = idlingAboveSheet(op);
  for (const e of circuit.elements) {
    const assumed = e.notes.prov !== "seen" && e.notes.prov !== "printed";
    if (typeof e.params.vac === "number") {
      // On the line itself its volts are those of the wall, which are given.
      if (!isLineConnected(circuit) || e.params.vac !== circuit.mains?.volts)
        out.push(
          unknown(
            "winding volts",
            {
              parts: [e.name],
              key: "vac",
              unit: "V",
              before: e.params.vac,
              turn: (n, f) => turnRectifier(n, e, (model, first) => (model.peak = first.peak * f)),
            },
            assumed,
          ),
        );
      const rs = typeof e.params.rs === "number" ? e.params.rs : undefined;
      if (rs)
        out.push(
          unknown(
            "source resistance",
            {
              parts: [e.name],
              key: "rs",
              unit: "Ω",
              before: rs,
              turn: (n, f) => turnRectifier(n, e, (model, first) => (model.path.rs = first.rs * f)),
            },
            assumed,
          ),
        );
    } else if (e.letter === "L" && e.notes.dcr)
      out.push(
        unknown(
          "winding resistance",
          { parts: [e.name], key: "@dcr", unit: "Ω", before: e.notes.dcr, turn: (n, f) => turnBranch(n, e.name, f) },
          assumed,
        ),
      );
    else if ((e.type === "OPT_SE" || e.type === "OPT_PP") && typeof e.params.dcr === "number")
      out.push(
        unknown(
          "winding resistance",
          { parts: [e.name], key: "dcr", unit: "Ω", before: e.params.dcr, turn: (n, f) => turnBranch(n, e.name, f) },
          assumed,
        ),
      );
    else if (e.letter === "R" && e.notes.prov === "assumed")
      out.push(
        unknown("value", { parts: [e.name], unit: "Ω", before: e.value!, turn: (n, f) => turnConductor(n, e.name, 1 / e.value!, f) }, true),
      );
  }
  return [...out, ...strengths(circuit, aboveSheet)];
}

/** One strength a tube; one for output tubes that share a cathode, whose currents nothing tells apart. */
function strengths(circuit: Circuit, aboveSheet: ReadonlySet<string>): Unknown[] {
  const groups = new Map<string, Element[]>();
  for (const e of circuit.elements) {
    if (!e.tube?.model) continue;
    const cathode = e.nodes.at(-1)!;
    const key = isOutputTube(e) && cathode !== "0" ? `output ${cathode}` : e.name;
    groups.set(key, [...(groups.get(key) ?? []), e]);
  }
  return [...groups.values()].map((tubes) => {
    const parts = tubes.map((t) => t.name);
    const before = tubes[0]!.notes.strength ?? 1;
    const above = parts.some((p) => aboveSheet.has(p));
    return unknown(
      "strength",
      {
        parts,
        before,
        ...(above ? { usual: USUAL_IDLE, sigma: IDLE_SIGMA } : {}),
        turn: (network, factor) => {
          for (const t of network.tubes) if (parts.includes(t.element.name)) t.state.spread = before * factor;
        },
      },
      false,
    );
  });
}

/** What the file made of a rectifier, kept at the first turn. */
const FIRST = new WeakMap<object, { peak: number; rs: number }>();

function turnRectifier(
  network: Network,
  e: Element,
  set: (model: Network["rectifiers"][number]["model"], first: { peak: number; rs: number }) => void,
): void {
  for (const { element, model } of network.rectifiers) {
    if (element.name !== e.name) continue;
    const first = FIRST.get(model) ?? { peak: model.peak, rs: model.path.rs };
    FIRST.set(model, first);
    set(model, first);
  }
}

const FIRST_OHMS = new WeakMap<object, number>();

function turnBranch(network: Network, name: string, factor: number): void {
  for (const branch of network.branches) {
    if (branch.name !== name) continue;
    const first = FIRST_OHMS.get(branch) ?? branch.ohms;
    FIRST_OHMS.set(branch, first);
    branch.ohms = first * factor;
  }
}

function turnConductor(network: Network, name: string, siemens: number, factor: number): void {
  for (const conductor of network.conductors) if (conductor.name === name) conductor.siemens = siemens / factor;
}
