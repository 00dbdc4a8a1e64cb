/** What kind of amp it is to bring up: its rectifiers, its bias, its output tubes. */

import { isLineConnected } from "../circuit/mains-connection";
import { isDoubler, isRectifier } from "../circuit/special-parts";
import { envelopeOf, type Circuit, type Element } from "../circuit/circuit";
import { electrodeNode } from "./points";

export interface BringUpAnatomy {
  /** Rectifiers of the high tension, and of the bias. */
  high: Element[];
  bias: Element[];
  /** Names of rectifier tubes. */
  rectifierTubes: string[];
  /** Envelopes, in the order of their numbers. */
  output: string[];
  small: string[];
  /** Grid nodes of the output tubes by envelope. */
  grids: Map<string, string[]>;
  /** True where the output tubes have fixed bias. */
  fixedBias: boolean;
  /** One side of the line is the chassis. */
  lineConnected: boolean;
  /** Names of tubes in a series string: pulling one puts all of them out. */
  string: string[];
  doubler: boolean;
}

export function anatomyOf(circuit: Circuit): BringUpAnatomy {
  const rectifiers = circuit.elements.filter((e) => isRectifier(e.type));
  const bias = rectifiers.filter((e) => e.nodes[0] === "0");
  const high = rectifiers.filter((e) => e.nodes[0] !== "0");
  const plates = new Set(circuit.elements.filter((e) => e.type === "OPT_SE" || e.type === "OPT_PP").flatMap(plateEnds));
  const tubes = circuit.elements.filter((e) => e.tube);
  const isOutput = (e: Element) => plates.has(electrodeNode(e, "plate")!);
  const number = (name: string) => Number(/\d+/.exec(name)?.[0] ?? 0);
  const envelopes = (list: Element[]) => [...new Set(list.map((e) => envelopeOf(e.name)))].sort((a, b) => number(a) - number(b));
  const output = envelopes(tubes.filter(isOutput));
  const grids = new Map<string, string[]>();
  for (const e of tubes)
    if (isOutput(e)) grids.set(envelopeOf(e.name), [...(grids.get(envelopeOf(e.name)) ?? []), electrodeNode(e, "grid")!]);
  return {
    high,
    bias,
    rectifierTubes: rectifiers.filter((e) => e.rectifierTube).map((e) => e.name),
    output,
    small: envelopes(tubes).filter((t) => !output.includes(t)),
    grids,
    fixedBias: bias.length > 0,
    lineConnected: isLineConnected(circuit),
    string: circuit.heaters.filter((h) => h.string).flatMap((h) => h.tubes),
    doubler: high.some((e) => isDoubler(e.type)),
  };
}

function plateEnds(t: Element): string[] {
  return t.type === "OPT_PP" ? [t.nodes[0]!, t.nodes[2]!] : [t.nodes[1]!];
}
