/** The layers of the stations: what each lays on the drawing. */

import { words } from "@/core/language/language";
import { tubesOf } from "@/core/anatomy/points";
import { fileName, type Circuit } from "@/core/circuit/circuit";
import { isOutputTube, type Idle } from "@/core/anatomy/cathode-current";
import type { Solution } from "@/core/expectation/solution";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import type { WalkRow } from "@/core/walk/walk";
import type { InHand } from "../job/job-context";
import { partsNamed } from "./parts-named";
import type { Layer, NodeNote, PartNote } from "./layer";

const VOLTS_SAY = () => "Soft: what should be there. Bold: what was read, ● in band, ▲ watch, ■ out. The ring: to be measured now.";

/** Expected and read at every point of the walk. */
export function walkLayer(rows: readonly WalkRow[], next?: string): Layer {
  const nodes: Record<string, NodeNote> = {};
  for (const row of rows) {
    const note: NodeNote = {};
    if (row.expected) note.expected = formatVolts(row.expected.volts);
    if (row.reading) Object.assign(note, { read: formatVolts(row.reading.value), verdict: row.verdict });
    // One node can be two points: what was read is shown before what was not.
    if (row.reading || !nodes[row.point.node]) nodes[row.point.node] = note;
  }
  return { says: VOLTS_SAY(), nodes, parts: {}, next };
}

/** The model alone: what it computes, beside its chart; parts above their rating. */
export function modelLayer(circuit: Circuit, solution: Solution | undefined): Layer {
  const nodes: Record<string, NodeNote> = {};
  for (const p of circuit.points) {
    const volts = solution?.points[p.name];
    const note: NodeNote = {};
    if (p.chart !== undefined) note.expected = `(${formatVolts(p.chart)})`;
    if (volts !== undefined) note.read = formatVolts(volts);
    nodes[p.node] = note;
  }
  const parts: Record<string, PartNote> = {};
  for (const s of solution?.stresses ?? []) {
    const e = circuit.elements.find((each) => each.name === s.part);
    if (e && (s.share ?? 0) > 1) parts[fileName(e)] = { text: `${Math.round(s.share! * 100)} %`, look: "strong" };
  }
  const assumed = new Set(circuit.elements.filter((e) => e.notes.prov === "assumed").map(fileName));
  const faint = assumed.size > 0 ? " Faint: values that nobody has seen yet." : "";
  return { says: `Bold: computed. In brackets: the chart. A part in a frame stands more than its rating.${faint}`, nodes, parts, assumed };
}

/** What was read, and what the chosen suspect makes of each point; its part marked, the others fainter. */
export function suspectLayer(
  circuit: Circuit,
  rows: readonly WalkRow[],
  suspects: readonly { refs: string[]; probability: number }[],
  chosen: { refs: string[]; predicted: Record<string, number> } | undefined,
  next?: string,
): Layer {
  const { nodes } = walkLayer(rows);
  for (const row of rows) {
    const predicted = chosen?.predicted[row.point.name];
    if (predicted === undefined) continue;
    nodes[row.point.node] = { ...nodes[row.point.node], expected: `→ ${formatVolts(predicted)}` };
  }
  // A part may fail in several ways: its probability is that of all of them.
  const sums = new Map<string, number>();
  for (const s of suspects)
    for (const part of new Set(s.refs.flatMap((ref) => partsNamed(circuit, ref)))) sums.set(part, (sums.get(part) ?? 0) + s.probability);
  const strong = new Set((chosen?.refs ?? []).flatMap((ref) => partsNamed(circuit, ref)));
  const parts: Record<string, PartNote> = {};
  for (const [part, probability] of sums)
    if (probability >= LEAST_SHOWN || strong.has(part))
      parts[part] = { text: percent(probability), look: strong.has(part) ? "strong" : "plain" };
  return {
    says: "Bold: what was read. After the arrow: what the chosen suspect makes of it. Frames: the suspected parts, each with the probability of all the ways in which it may have failed.",
    nodes,
    parts,
    next,
  };
}

/** Less likely parts are left to the list. */
const LEAST_SHOWN = 0.01;

const percent = (p: number) => (p < 0.01 ? "under 1 %" : `${Math.round(p * 100)} %`);

/**
 * Where a cold check is on the drawing: "b1:0" is the node b1, "b1:p4" the part that lies between the two, "R7" a part.
 * Undefined for what is not drawn, such as a heater's resistance.
 */
export function placeOfCheck(circuit: Circuit, point: string): InHand | undefined {
  const [a, b] = point.split(":");
  if (a !== undefined && b === "0") return { node: a };
  const between = b === undefined ? undefined : circuit.elements.find((e) => e.nodes.includes(a!) && e.nodes.includes(b));
  const [part] = between ? [fileName(between)] : partsNamed(circuit, point);
  const node = circuit.points.find((p) => p.name === point)?.node;
  return node !== undefined ? { node } : part !== undefined ? { part } : undefined;
}

/** Ohms of a cold amp: to chassis at the nodes, in circuit at the parts. */
export function coldLayer(
  circuit: Circuit,
  checks: readonly { point: string; expected: string; read?: string; verdict?: NodeNote["verdict"] }[],
  next?: string,
): Layer {
  const nodes: Record<string, NodeNote> = {};
  const parts: Record<string, PartNote> = {};
  for (const c of checks) {
    const at = placeOfCheck(circuit, c.point);
    if (at && "node" in at) nodes[at.node] = { expected: c.expected, read: c.read, verdict: c.verdict };
    else if (at && c.read !== undefined) parts[at.part] = { text: c.read, look: c.verdict === "out" ? "strong" : "plain" };
  }
  const at = next === undefined ? undefined : placeOfCheck(circuit, next);
  if (at && "part" in at) parts[at.part] ??= { text: "now", look: "plain" };
  return {
    says: "Soft: the ohms to chassis that should be there. Bold: what was read. The ring: to be measured now.",
    nodes,
    parts,
    ...(at && ("node" in at ? { next: at.node } : { about: [at.part] })),
  };
}

/** Gain of each stage at its output, as the circuit makes it. */
export function signalLayer(circuit: Circuit, solution: Solution | undefined, levels: Record<string, string>): Layer {
  const nodes: Record<string, NodeNote> = {};
  for (const stage of circuit.stages) {
    const gain = solution?.gains[stage.name];
    if (gain !== undefined) nodes[stage.out] = { expected: `× ${formatQuantity(Math.abs(gain), undefined, 2)}` };
  }
  for (const [node, level] of Object.entries(levels)) nodes[node] = { ...nodes[node], read: level };
  return {
    says: "Soft: voltage gain of the stage at 1 kHz, as computed. Bold: the level that was read there.",
    nodes,
    parts: {},
    about: circuit.stages.flatMap((stage) => circuit.elements.filter((e) => e.tube && e.nodes[0] === stage.out).map(fileName)),
  };
}

/** Rails and their ripple as they are, and with a part that may be fitted. */
export function besideLayer(
  circuit: Circuit,
  part: string,
  now: readonly { point: string; volts: number; ripple: number }[],
  then: typeof now,
): Layer {
  const nodes: Record<string, NodeNote> = {};
  const shown = (p: { volts: number; ripple: number }) => `${formatVolts(p.volts)} ∿ ${formatQuantity(p.ripple, "V", 2)}`;
  for (const p of circuit.points) {
    const [before, after] = [now, then].map((list) => list.find((x) => x.point === p.name));
    if (before && after) nodes[p.node] = { expected: shown(before), read: shown(after) };
  }
  const parts: Record<string, PartNote> = {};
  for (const name of partsNamed(circuit, part)) parts[name] = { text: "to be fitted", look: "strong" };
  return {
    says: words("Soft: volts and ripple (rms) as they are. Bold: with the part. The frame: where it goes."),
    nodes,
    parts,
    about: Object.keys(parts),
  };
}

/** What is to be done with each capacitor. */
export function capacitorLayer(
  circuit: Circuit,
  rows: readonly WalkRow[],
  judged: readonly { name: string; text: string; strong: boolean }[],
): Layer {
  const { nodes } = walkLayer(rows);
  const parts: Record<string, PartNote> = {};
  for (const { name, text, strong } of judged)
    for (const part of partsNamed(circuit, name)) parts[part] = { text, look: strong ? "strong" : "plain" };
  return {
    says: "At each capacitor: what is to be done with it. Frames: those to be replaced.",
    nodes,
    parts,
    about: Object.keys(parts),
  };
}

/** Currents of the output tubes. */
export function outputLayer(circuit: Circuit, rows: readonly WalkRow[]): Layer {
  const { nodes } = walkLayer(rows);
  const parts: Record<string, PartNote> = {};
  const idle: Idle[] = rows.flatMap((r) => r.idle);
  for (const tube of tubesOf(circuit)) {
    const i = idle.find((each) => each.tube === tube.name);
    if (!i) continue;
    const of = i.ofRating === undefined ? "" : `, ${Math.round(i.ofRating * 100)} %`;
    parts[fileName(tube)] = { text: `${formatQuantity(i.plateAmps, "A", 3)}${of}`, look: (i.ofRating ?? 0) > 1 ? "strong" : "plain" };
  }
  return {
    says: words("At each output tube: its plate current at idle and the part of its rated watts, from the cathode volts that were read."),
    nodes,
    parts,
    about: tubesOf(circuit).filter(isOutputTube).map(fileName),
  };
}

/** What is said of causes that are parts or nodes: where a noise enters. */
export function causeLayer(circuit: Circuit, causes: readonly { refs: string[]; probability: number }[]): Layer {
  const { parts } = suspectLayer(circuit, [], causes, causes[0] && { refs: causes[0].refs, predicted: {} });
  return { says: "Frames: parts at which the noise can enter, with their probability by what was answered and read.", nodes: {}, parts };
}

/** What is in the amp and not in the model: parts that were changed, experiments, tubes that are out. */
export function workLayer(
  circuit: Circuit,
  rows: readonly WalkRow[],
  changes: readonly { position: string; kind: string; outcome?: string; newPart: string; set?: string[] }[],
): Layer {
  const { nodes } = walkLayer(rows);
  const parts: Record<string, PartNote> = {};
  for (const c of changes) {
    if (c.outcome === "reverted") continue;
    const text = c.kind === "experiment" ? "experiment" : c.kind === "repair" ? "repaired" : "new";
    const names = [c.position, ...(c.set ?? []).map((change) => change.split("=")[0]!)];
    for (const part of names.flatMap((name) => partsNamed(circuit, name.toUpperCase())))
      parts[part] = { text, look: c.kind === "experiment" ? "strong" : "changed" };
  }
  return {
    says: words("Dashed frames: parts that were replaced or repaired, tubes that are out. Full frames: experiments that are in."),
    nodes,
    parts,
    about: Object.keys(parts),
  };
}
