/** A circuit as a netlist that a general SPICE runs as it is, and that the reader takes back as the same circuit. */

import { GAUSS8, RECTIFIER_LEAK, type RectifierModel } from "../supply/rectifier";
import { tubeSubcircuit } from "../tubes/spice";
import type { Circuit, Element } from "../circuit/circuit";
import { isRectifier } from "../circuit/blocks";
import { spiceNumber, writeAnnotations, writeBlock, writeElement, writeModels, writeNotes, writtenName } from "../circuit/write";
import { OPEN_SIEMENS, type Conductor, type Network } from "./network";
import { operatingPoint } from "./operating-point";

const n = (x: number) => String(Number(x.toPrecision(12)));

/**
 * Text with the models in it. Each block becomes a subcircuit of its own; its note says what it was.
 * @param mains volts at the wall; the circuit's own unless given.
 */
export function exportSpice(circuit: Circuit, mains?: number): string {
  const op = operatingPoint(circuit, { mains });
  const { network } = op;
  const lines: string[] = [];
  const subcircuits = new Map<string, string[]>();
  for (const e of circuit.elements) {
    if (e.letter === "L" && e.notes.dcr) {
      // SPICE knows no winding resistance: a resistor in series, which the reader leaves aside.
      const inner = `${e.name.toLowerCase()}_r`;
      const { name, as } = writtenName(e);
      lines.push(
        `${name} ${e.nodes[0]} ${inner} ${spiceNumber(e.value!)} ;${[writeNotes(e.notes), as].filter(Boolean).join(" ")} @to ${e.nodes[1]}`,
        `R${inner} ${inner} ${e.nodes[1]} ${spiceNumber(e.notes.dcr)} ;@skip yes`,
      );
      continue;
    }
    if (e.letter !== "X") {
      lines.push(writeElement(e));
      continue;
    }
    const { name, as } = writtenName(e);
    const altered = e.tube && (e.params.emission !== undefined || e.params.gas !== undefined);
    const call = e.tube && !altered ? e.type! : `${e.type}_${e.name.replace(/[^\w]/g, "_")}`;
    if (!subcircuits.has(call)) subcircuits.set(call, subcircuitOf(e, call, network));
    const notes = [e.tube ? "" : `@block "${writeBlock(e)}"`, writeNotes(e.notes), as].filter(Boolean).join(" ");
    lines.push(`${name} ${e.nodes.join(" ")} ${call}${notes ? ` ;${notes}` : ""}`);
  }
  const floats = network.islands
    .filter(({ node }) => circuit.elements.some((e) => e.nodes.includes(network.nodes[node]!)))
    .map(
      ({ node, to }, i) =>
        `Rfloat${i} ${network.nodes[node]} ${to < 0 ? "0" : network.nodes[to]} ${spiceNumber(1 / OPEN_SIEMENS)} ;@skip yes`,
    );
  return [
    circuit.title,
    "* Written by Scutum. Lines that begin with *@ and notes after a semicolon are for Scutum; SPICE passes over them.",
    ...writeAnnotations(circuit),
    ...lines,
    ...floats,
    ...writeModels(circuit),
    ...[...subcircuits.values()].flat(),
    ".op",
    ".end",
    "",
  ].join("\n");
}

function subcircuitOf(e: Element, call: string, network: Network): string[] {
  if (e.tube) {
    const part = network.tubes.find((t) => t.element.name === e.name);
    const state = part?.state;
    return tubeSubcircuit(call, e.tube.model!, state?.emission ?? 1, state?.gas ?? 0, state?.typicalAmps);
  }
  const formal = e.nodes.map((_, i) => `n${i + 1}`);
  const body = isRectifier(e.type) ? rectifierBody(network.rectifiers.find((r) => r.element.name === e.name)!) : blockBody(e, network);
  return [`.subckt ${call} ${formal.join(" ")} ;@library`, ...body, ".ends"];
}

/** A rectifier as a source of its average current: n1 is DC+, n2 is DC−. */
function rectifierBody({ model, correction }: { model: RectifierModel; correction: { shift: number } }): string[] {
  const across = `(V(n1,n2)+${n(correction.shift)})`;
  if (model.pulses === 0) return ["Rdead n1 n2 1e12"];
  const halves = model.type === "DOUBLER" ? model.pulses : 1;
  const scale = model.type === "DOUBLER" ? 1 : model.pulses;
  const { path, peak } = model;
  const volts = `(${across}/${halves}+${n(path.drop)})`;
  const leak = `${n(RECTIFIER_LEAK)}*(${n(peak * halves)}-V(n1,n2))`;
  const angle = [
    // Clipped a hair inside ±1, where the arccosine still has a slope.
    `Bt t 0 V=acos(min(max(${volts}/${n(peak)},-0.9999999),0.9999999))`,
  ];
  if (path.perveance === undefined)
    return [...angle, `Bi n2 n1 I=${n(scale / (Math.PI * path.rs))}*(${n(peak)}*sin(V(t))-${volts}*V(t))+${leak}`];
  // Eight instants of the pulse, each a tube behind its resistance.
  const instants = GAUSS8.flatMap(([x], j) => [
    `Bu${j} u${j} 0 V=${n(peak)}*cos(V(t)*${n((1 + x) / 2)})-${volts}`,
    `Ru${j} u${j} d${j} ${n(path.rs)}`,
    `Bd${j} d${j} 0 I=${n(path.perveance!)}*exp(1.5*ln(max(V(d${j}),0)+1e-20))`,
  ]);
  const sum = GAUSS8.map(([, w], j) => `${n(w)}*V(u${j},d${j})`).join("+");
  return [...angle, ...instants, `Bi n2 n1 I=${n(scale / (2 * Math.PI * path.rs))}*V(t)*(${sum})+${leak}`];
}

/** Everything that the solver makes of resistors and windings, under the block's own node names. */
function blockBody(e: Element, network: Network): string[] {
  const name = (node: number) => {
    if (node < 0) return "0";
    const at = e.nodes.indexOf(network.nodes[node]!);
    return at >= 0 ? `n${at + 1}` : `i${node}`;
  };
  const out: string[] = [];
  const own = (c: Conductor) => c.name === e.name && c.siemens > 0;
  network.conductors.filter(own).forEach((c, i) => out.push(`R${i} ${name(c.a)} ${name(c.b)} ${n(1 / c.siemens)}`));
  if (e.type === "OPAMP") {
    const { gain = 1e5, vmax = 13 } = e.params as { gain?: number; vmax?: number };
    return [`Ri i0 0 1k`, `Bi 0 i0 I=${n(vmax / 1e3)}*tanh(${n(gain / vmax)}*V(n1,n2))`, `Bo o 0 V=V(i0)`, `Ro o n3 50`];
  }
  if (e.type === "NMOS" || e.type === "ZENER") return semiconductorBody(e);
  const branches = network.branches.filter((b) => b.name === e.name);
  branches.forEach((b, i) => {
    const own = network.inductances.find((l) => l.first === b.index && l.second === b.index);
    out.push(`L${i} ${name(b.a)} m${i} ${n(own?.henries ?? 1)}`, `Rw${i} m${i} ${name(b.b)} ${n(Math.max(b.ohms, 1e-6))}`);
  });
  for (let i = 0; i < branches.length; i++)
    for (let j = i + 1; j < branches.length; j++) {
      const mutual = network.inductances.find((l) => l.first === branches[i]!.index && l.second === branches[j]!.index);
      const self = (k: number) => network.inductances.find((l) => l.first === branches[k]!.index && l.second === l.first)!.henries;
      if (mutual) out.push(`K${i}${j} L${i} L${j} ${n(Math.min(0.999999, mutual.henries / Math.sqrt(self(i) * self(j))))}`);
    }
  // An open switch has no part at all: something must stand in the subcircuit.
  return out.length > 0 ? out : [`Ropen n1 n2 ${spiceNumber(1 / OPEN_SIEMENS)}`];
}

function semiconductorBody(e: Element): string[] {
  const soft = (x: string) => `0.05*(max(${x},0)+ln(1+exp(-abs(${x}))))`;
  if (e.type === "ZENER") {
    const { vz = 10, rz = 5 } = e.params as { vz?: number; rz?: number };
    return [
      `Bf f 0 V=(V(n1,n2)-0.65)/0.05`,
      `Br r 0 V=(-V(n1,n2)-${n(vz)})/0.05`,
      `Bi n1 n2 I=${soft("V(f)")}-${soft("V(r)")}/${n(Math.max(0.1, rz))}+1e-9*V(n1,n2)`,
    ];
  }
  const { vto = 2, kp = 0.2, lambda = 0.01 } = e.params as { vto?: number; kp?: number; lambda?: number };
  return [
    `Bf f 0 V=(V(n2,n3)-${n(vto)})/0.05`,
    `Br r 0 V=(V(n2,n1)-${n(vto)})/0.05`,
    `Ba a 0 V=${soft("V(f)")}`,
    `Bb b 0 V=${soft("V(r)")}`,
    `Bi n1 n3 I=${n(kp / 2)}*(V(a)*V(a)-V(b)*V(b))*(1+${n(lambda)}*abs(V(n1,n3)))+1e-12*V(n1,n3)`,
  ];
}
