/** The signal chain of a circuit as noise sees it: stages in order, their controls, the rails that feed them, where it comes out. */

import { isRectifier } from "../circuit/special-parts";
import { primaryNodes } from "../circuit/special-parts";
import { envelopeOf, findElement, type Circuit, type Element } from "../circuit/circuit";
import { isLineConnected } from "../circuit/mains-connection";
import { alter, pinNode } from "../circuit/alter";

export interface ChainStage {
  name: string;
  label: string;
  /** Node of its control grid's signal, and of its output. */
  in: string;
  out: string;
  /** The control before it. */
  control?: string;
  envelope: string;
  tube?: Element;
  grid?: string;
  cathode?: string;
  /** The rail that feeds its plate. */
  rail?: string;
  /** Of an output stage, the node of the speaker that it drives. */
  speaker?: string;
  output: boolean;
}

export interface Rail {
  node: string;
  name: string;
  capacitors: string[];
}

export interface Chain {
  stages: ChainStage[];
  /** All controls that signal passes. */
  controls: string[];
  rails: Rail[];
  /** Those of the bias supply, where there is one. */
  bias: Rail[];
  /** Node of the speaker; of a set with several channels, the first's. */
  speaker?: string;
  /** Every speaker with its output transformer's name. */
  speakers: { node: string; name: string }[];
  input?: string;
  lineConnected: boolean;
  string: boolean;
}

/** Capacitors from this size on hold a rail. */
const LEAST_RAIL_FARADS = 2e-6;

export function chainOf(circuit: Circuit): Chain {
  const outputs = circuit.elements.filter((e) => e.type === "OPT_SE" || e.type === "OPT_PP");
  const secondary = (e: Element) => e.nodes[primaryNodes(e.type!, e.params)]!;
  const driven = (plate: string) => outputs.find((e) => e.nodes.slice(0, primaryNodes(e.type!, e.params)).includes(plate));
  const stages = circuit.stages.map((s): ChainStage => {
    const tube = findElement(circuit, s.name) ?? circuit.elements.find((e) => e.tube && envelopeOf(e.name) === s.name);
    const output = driven(s.out);
    const at = (pin: string) => (tube?.tube ? tube.nodes[pinNode(tube, pin)] : undefined);
    return {
      name: s.name,
      label: s.label ?? s.name,
      in: s.in,
      out: s.out,
      control: s.control,
      envelope: tube ? envelopeOf(tube.name) : s.name,
      tube: tube?.tube ? tube : undefined,
      grid: at("g"),
      cathode: at("k"),
      rail: tube && railOf(circuit, at("p")),
      ...(output ? { speaker: secondary(output) } : {}),
      output: output !== undefined,
    };
  });
  const rails = railsOf(circuit);
  const speakers = outputs.map((e) => ({ node: secondary(e), name: e.name }));
  return {
    stages,
    controls: circuit.elements.filter((e) => e.type === "POT" && !rails.some((r) => e.nodes.includes(r.node))).map((e) => e.name),
    rails: rails.filter((r) => !r.negative),
    bias: rails.filter((r) => r.negative),
    speaker: speakers[0]?.node,
    speakers,
    input: stages[0]?.in,
    lineConnected: isLineConnected(circuit),
    string: circuit.heaters.some((h) => h.string),
  };
}

/** Nodes that large capacitors hold and that a rectifier feeds through resistors, chokes and switches. */
function railsOf(circuit: Circuit): (Rail & { negative: boolean })[] {
  const found: (Rail & { negative: boolean })[] = [];
  const passes = (e: Element) => e.letter === "R" || e.letter === "L" || e.type === "SW" || e.type === "SW2" || e.type === "POT";
  for (const rectifier of circuit.elements.filter((e) => isRectifier(e.type))) {
    const negative = rectifier.nodes[0] === "0";
    const reached = new Set<string>([rectifier.nodes[negative ? 1 : 0]!]);
    for (const node of reached) {
      const held = circuit.elements.filter(
        (e) => e.letter === "C" && e.nodes.includes(node) && e.nodes.includes("0") && (e.value ?? 0) >= LEAST_RAIL_FARADS,
      );
      if (held.length > 0 && !found.some((r) => r.node === node)) {
        const name = circuit.points.find((p) => p.node === node)?.name ?? node;
        found.push({ node, name, capacitors: held.map((e) => e.name), negative });
      }
      for (const e of circuit.elements) if (passes(e) && e.nodes.includes(node)) for (const n of e.nodes) if (n !== "0") reached.add(n);
    }
  }
  return found;
}

/** The rail that a plate's resistors lead to. */
function railOf(circuit: Circuit, plate: string | undefined): string | undefined {
  if (!plate) return undefined;
  const rails = railsOf(circuit).map((r) => r.node);
  if (rails.includes(plate)) return plate;
  const direct = circuit.elements.find(
    (e) =>
      (e.letter === "R" || e.letter === "L" || e.type?.startsWith("OPT_")) &&
      e.nodes.includes(plate) &&
      e.nodes.some((n) => rails.includes(n)),
  );
  return direct?.nodes.find((n) => rails.includes(n));
}

/**
 * The chain of each channel by itself: the stages up to and with an output stage, their own speaker and input. One for most amps.
 * Rails, controls and heaters are the whole amp's.
 */
export function channelsOf(chain: Chain): Chain[] {
  const runs: ChainStage[][] = [[]];
  chain.stages.forEach((s, i) => {
    if (!s.output && chain.stages[i - 1]?.output) runs.push([]);
    runs.at(-1)!.push(s);
  });
  return runs.map((stages) => {
    const speaker = stages.find((s) => s.speaker)?.speaker ?? (runs.length === 1 ? chain.speaker : undefined);
    return { ...chain, stages, input: stages[0]?.in, speaker };
  });
}

/** The resistor that leads from a channel's speaker back into the amp. */
export function feedbackOf(circuit: Circuit, { speaker }: Pick<Chain, "speaker">): string | undefined {
  if (!speaker) return undefined;
  return circuit.elements.find((e) => e.letter === "R" && e.nodes.includes(speaker) && !e.nodes.includes("0"))?.name;
}

/** Emission of the weaker half of an output pair: two are never quite alike, and without it no ripple would ever be heard. */
const UNLIKE = 0.94;

/** The circuit with output pairs as they come, the first tube of each a little the weaker. */
export function withUnlikePairs(circuit: Circuit, chain: Chain): Circuit {
  const weaker = channelsOf(chain).flatMap((channel) => {
    const pair = channel.stages.filter((s) => s.output && s.tube);
    return pair.length > 1 ? [`${pair[0]!.tube!.name}=weak:${UNLIKE}`] : [];
  });
  return alter(circuit, weaker);
}

/** Envelopes that noise is looked for in, the first stage first. */
export const envelopesOf = (chain: Chain) => [...new Set(chain.stages.filter((s) => s.tube).map((s) => envelopeOf(s.tube!.name)))];
