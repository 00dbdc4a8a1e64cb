/** A part and a node in words: what it is, where it sits. */

import { formatQuantity } from "../quantity/format";
import type { Unit } from "../quantity/unit";
import type { Circuit, Element } from "./circuit";
import * as texts from "../texts/circuit";

const TRIODE = ["plate", "grid", "cathode"];
const PENTODE = ["plate", "screen", "grid", "cathode"];

/** A marked value as the part has it: "32 µF", not "32.0 µF". */
export function markedValue(value: number, unit: Unit): string {
  return formatQuantity(value, unit, 3).replace(/\.0+(?=\s)|(\.\d*?)0+(?=\s)/, "$1");
}

/** "R7, 100 kΩ"; "V1A, 12AX7". */
export function partWords(e: Element): string {
  if (e.tube) return `${e.name}, ${e.type}`;
  if (e.letter === "X") return `${e.name}, ${specialWords(e)}`;
  const unit = ({ R: "Ω", C: "F", L: "H", V: "V", I: "A" } as const)[e.letter as "R"];
  return e.value === undefined || !unit ? e.name : `${e.name}, ${markedValue(e.value, unit)}`;
}

const BLOCK_WORDS: Record<string, string> = {
  POT: "control",
  SW: "switch",
  SW2: texts.changeOverSwitch,
  OPT_SE: texts.outputTransformer,
  OPT_PP: texts.outputTransformer,
  XFMR: "transformer",
  RECT_FULL: texts.fullWaveRectifier,
  RECT_HALF: texts.halfWaveRectifier,
  RECT_BRIDGE: texts.bridgeRectifier,
  DOUBLER: texts.voltageDoubler,
  DOUBLER_HALF: texts.halfWaveVoltageDoubler,
  OPAMP: texts.operationalAmplifier,
  NMOS: "transistor",
  ZENER: texts.zenerDiode,
};

export function specialWords(e: Element): string {
  const word = BLOCK_WORDS[e.type ?? ""] ?? e.type ?? e.letter;
  if (e.type === "POT") return `${markedValue(e.value ?? 0, "Ω")} ${e.params.taper ?? "linear"} ${word}`;
  return e.rectifierTube ? `${word} ${e.rectifierTube.type}` : word;
}

/**
 * A node as the bench calls it: chassis, a rail's or a test point's name, an electrode, else the parts that meet there.
 * @param besides a part that is not to be named: the one that is being talked about.
 */
export function terminalWords(circuit: Circuit, node: string, besides?: Element): string {
  if (node === "0") return "chassis";
  const point = circuit.points.find((p) => p.node === node);
  if (point && !point.name.includes(".")) return point.name;
  for (const e of circuit.elements) {
    if (!e.tube || e === besides) continue;
    const at = e.nodes.indexOf(node);
    if (at >= 0) return `${e.name} ${(e.tube.kind === "triode" ? TRIODE : PENTODE)[at]}`;
  }
  const here = circuit.elements.filter((e) => e !== besides && e.nodes.includes(node));
  // The talked-of electrode's own point says nothing about where it goes: the one part that leads on does.
  const [only] = here;
  if (besides && here.length === 1 && only!.nodes.length === 2) {
    const on = only!.nodes.find((n) => n !== node);
    if (on !== undefined) return texts.through(terminalWords(circuit, on, only), only!.name);
  }
  if (point) return point.name;
  if (here.length === 0) return texts.nodeOwn(node);
  return texts.theJointOf(
    here
      .slice(0, 3)
      .map((e) => e.name)
      .join(", "),
  );
}

/** "from B2 to V4 screen". */
export function placeOf(circuit: Circuit, e: Element): string {
  if (e.nodes.length === 0) return texts.noPlaceOwn();
  if (e.nodes.length === 2) return texts.fromTo2(terminalWords(circuit, e.nodes[0]!, e), terminalWords(circuit, e.nodes[1]!, e));
  return `at ${[...new Set(e.nodes)].map((n) => terminalWords(circuit, n, e)).join(", ")}`;
}
