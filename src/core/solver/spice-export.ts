/** A circuit as a netlist that a general SPICE runs as it is, and that the reader takes back as the same circuit. */

import { GAUSS8, RECTIFIER_LEAK, rectifierSections, type Path } from "../supply/rectifier";
import { tubeSubcircuit } from "../tubes/spice";
import type { Circuit, Element } from "../circuit/circuit";
import { isRectifier } from "../circuit/special-parts";
import { spiceNumber, writeAnnotations, writeSpecial, writeElement, writeModels, writeNotes, writtenName } from "../circuit/write";
import { OPEN_SIEMENS, type Conductor, type Network, type RectifierPart } from "./network";
import { operatingPoint, type OperatingPoint } from "./operating-point";

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
    const altered = e.tube && (e.params.emission !== undefined || e.params.gas !== undefined || e.notes.strength !== undefined);
    const call = e.tube && !altered ? e.type! : `${e.type}_${e.name.replace(/[^\w]/g, "_")}`;
    if (!subcircuits.has(call)) subcircuits.set(call, subcircuitOf(e, call, network));
    const notes = [e.tube ? "" : `@block "${writeSpecial(e)}"`, writeNotes(e.notes), as].filter(Boolean).join(" ");
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
    // Overdriven stages switch in less than a microsecond: with the usual tolerances the step that meets it is given up.
    ".options reltol=1e-4 trtol=1",
    ...nodesets(circuit, op),
    ".op",
    ".end",
    "",
  ].join("\n");
}

/** The solved volts as a start: from nothing a general SPICE may lose its way among eight tubes and their feedback. */
function nodesets(circuit: Circuit, { network, x, converged }: OperatingPoint): string[] {
  const nodes = [...new Set(circuit.elements.flatMap((e) => e.nodes))].filter((node) => network.index.has(node));
  return converged ? nodes.map((node) => `.nodeset v(${node})=${n(Number(x[network.index.get(node)!]!.toPrecision(5)))}`) : [];
}

function subcircuitOf(e: Element, call: string, network: Network): string[] {
  if (e.tube) {
    const part = network.tubes.find((t) => t.element.name === e.name);
    const state = part?.state;
    return tubeSubcircuit(
      call,
      e.tube.model!,
      state?.emission ?? 1,
      state?.gas ?? 0,
      state?.typicalAmps,
      e.tube.picofarads,
      state?.spread ?? 1,
    );
  }
  const formal = e.nodes.map((_, i) => `n${i + 1}`);
  const body = isRectifier(e.type) ? rectifierBodies(e, network) : blockBody(e, network);
  return [`.subckt ${call} ${formal.join(" ")} ;@library`, ...body, ".ends"];
}

/** All rectifiers of a block, between its own nodes; of a half-wave cascade the winding's resistance as well. */
function rectifierBodies(e: Element, network: Network): string[] {
  const formal = (node: number) => `n${e.nodes.indexOf(node < 0 ? "0" : network.nodes[node]!) + 1}`;
  const bodies = network.rectifiers
    .filter((r) => r.element.name === e.name)
    .flatMap((r, i) => rectifierBody(r, formal(r.a), formal(r.b), i || ""));
  return e.type === "DOUBLER_HALF" ? [...bodies, `Rw n4 n2 ${n(rectifierSections(e, 1, 1)[0]!.model.path.rs)}`] : bodies;
}

/** A rectifier as a source of its average current from `minus` to `plus`. @param mark tells the parts of two in one subcircuit apart. */
function rectifierBody({ model, correction }: RectifierPart, plus: string, minus: string, mark: string | number): string[] {
  if (model.pulses === 0) return [`Rdead${mark} ${plus} ${minus} 1e12`];
  if (model.through) return [`Rthrough${mark} ${plus} ${minus} ${n(model.path.rs)}`];
  const volts = `V(f${mark})`;
  const halves = model.pulses === 2 ? [model.path, model.second ?? model.path] : [model.path];
  const alike = model.pulses === 2 && !model.second;
  const parts = (alike ? [model.path] : halves).map((path, k) =>
    pathBody(path, model.peak, `(${volts}+${n(correction.shift)})`, `${mark}${k ? "x" : ""}`),
  );
  const sum = parts.map((p) => p.current).join("+");
  return [
    // An average over a period cannot follow in no time: without this delay a time step through feedback and supply does not settle.
    `Es${mark} s${mark} 0 ${plus} ${minus} 1`,
    `Rs${mark} s${mark} f${mark} 1k`,
    `Cs${mark} f${mark} 0 ${n(FOLLOWS / 1e3)}`,
    ...parts.flatMap((p) => p.lines),
    `Bi${mark} ${minus} ${plus} I=${alike ? "2*" : ""}(${sum})+${n(RECTIFIER_LEAK)}*(${n(model.peak)}-${volts})`,
  ];
}

/** Seconds after which the averaged current follows the rail. */
const FOLLOWS = 1e-5;

/** Part of the winding's peak over which conduction ends. */
const SOFT_END = 2e-4;

/** Average current of one path as an expression, with the lines that it stands on. */
function pathBody(path: Path, peak: number, across: string, mark: string): { lines: string[]; current: string } {
  const volts = `(${across}+${n(path.drop)})`;
  // What lies below 1 of the ratio, ended softly: at ±1 the arccosine has no slope, and a time step that meets it is never short enough.
  const left = `((1-${volts}/${n(peak)})/${n(SOFT_END)})`;
  const cosine = `max(1-${n(SOFT_END)}*(max(${left},0)+ln(1+exp(-abs(${left})))+1e-4),-0.9999999)`;
  if (path.perveance === undefined)
    return {
      lines: [],
      current: `${n(1 / (Math.PI * path.rs))}*(${n(peak)}*sqrt(1-(${cosine})*(${cosine}))-${volts}*acos(${cosine}))`,
    };
  const angle = [`Bt${mark} t${mark} 0 V=acos(${cosine})`];
  const theta = `V(t${mark})`;
  // Eight instants of the pulse, each a tube behind its resistance.
  const instants = GAUSS8.flatMap(([x], j) => [
    `Bu${mark}${j} u${mark}${j} 0 V=${n(peak)}*cos(${theta}*${n((1 + x) / 2)})-${volts}`,
    `Ru${mark}${j} u${mark}${j} d${mark}${j} ${n(path.rs)}`,
    `Bd${mark}${j} d${mark}${j} 0 I=${n(path.perveance!)}*exp(1.5*ln(max(V(d${mark}${j}),0)+1e-20))`,
  ]);
  const sum = GAUSS8.map(([, w], j) => `${n(w)}*V(u${mark}${j},d${mark}${j})`).join("+");
  return { lines: [...angle, ...instants], current: `${n(1 / (2 * Math.PI * path.rs))}*${theta}*(${sum})` };
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
  if (e.type === "OPT_PP" || e.type === "OPT_SE") out.push(...windingStrays(e));
  // An open switch has no part at all: something must stand in the subcircuit.
  return out.length > 0 ? out : [`Ropen n1 n2 ${spiceNumber(1 / OPEN_SIEMENS)}`];
}

/** Farads between the turns of a plate winding, or of each side of its tap: enough that a step ends, too little to be heard. */
const WINDING_FARADS = 400e-12;
/** The core's loss as a resistance so many times the load's across the whole primary. */
const CORE_LOSS = 100;

/**
 * What every real output transformer has beside its inductances: with none of it a tube that cuts off leaves its leakage inductance
 * nowhere to go, and a time step in SPICE does not end. The loss is nothing to direct current and one percent of the load.
 */
function windingStrays(e: Element): string[] {
  const { zpp, zp } = e.params;
  const load = typeof zpp === "number" ? zpp : typeof zp === "number" ? zp : 5000;
  const halves = e.type === "OPT_PP" ? ["n1 n2", "n2 n3"] : ["n1 n2"];
  const pieces = e.params.ul === undefined ? halves : e.type === "OPT_PP" ? ["n1 n4", "n4 n2", "n2 n5", "n5 n3"] : ["n1 n3", "n3 n2"];
  return [
    ...pieces.map((nodes, i) => `Cs${i} ${nodes} ${n(WINDING_FARADS)}`),
    ...halves.map((nodes, i) => `Rc${i} ${nodes} ${n((CORE_LOSS * load) / (halves.length === 2 ? 4 : 1))}`),
  ];
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
