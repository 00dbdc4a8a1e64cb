/** The output stages of a circuit: their tubes by halves of the transformer, how they are biased, what stands around each tube. */

import { electrodeNode, ohmsToGround, resistorsAt, tubesAt, tubesOf } from "../anatomy/points";
import { isOutputTube } from "../anatomy/cathode-current";
import type { Circuit, Element } from "../circuit/circuit";
import { isRectifier, primaryNodes } from "../circuit/special-parts";
import type { TubeType } from "../tubes/library";

/** Volts at the grid from a supply, a resistor under the cathode, or both. */
export type BiasKind = "fixed" | "cathode" | "mixed";

export interface OutputTube {
  name: string;
  type: TubeType;
  /** Which half of the primary its plate is on; 0 for single-ended. */
  half: 0 | 1;
  plate: string;
  /** Undefined for a triode. */
  screen?: string;
  grid: string;
  cathode: string;
  /** Ohms from the cathode to chassis, 0 where it stands on it. */
  cathodeOhms: number;
  /** Output tubes on the same cathode node, this one counted. */
  sharedBy: number;
  /** The resistor that feeds the screen, and the node before it. */
  screenResistor?: { name: string; ohms: number; watts?: number; from: string };
}

export interface OutputStage {
  /** Of its transformer: "T1". */
  name: string;
  transformer: Element;
  single: boolean;
  tubes: OutputTube[];
  /** Node that feeds the transformer. */
  supply: string;
  /** Ohms of the whole primary with the rated load on its secondary. */
  primaryOhms: number;
  /** Ohms of the load that the transformer is made for, and of what hangs on it; the latter undefined where nothing does. */
  ratedLoad: number;
  load?: { name: string; ohms: number };
  speaker: string;
  /** Ohms of the winding of each half; one for single-ended. */
  halfOhms: (number | undefined)[];
  /** Part of each half at which the screens are tapped, where they are. */
  ultralinear?: number;
  bias: BiasKind;
}

/** A cathode resistor up to this is there to read the current by, not to bias the tube, ohms. */
export const SHUNT_OHMS = 22;

/** Every output stage of the circuit: one for most amps, one a channel for a stereo set. */
export function outputStages(circuit: Circuit): OutputStage[] {
  return circuit.elements.filter((e) => e.type === "OPT_PP" || e.type === "OPT_SE").flatMap((e) => stageAt(circuit, e) ?? []);
}

function stageAt(circuit: Circuit, transformer: Element): OutputStage | undefined {
  const single = transformer.type === "OPT_SE";
  const split = primaryNodes(transformer.type!, transformer.params);
  const [first, second, third] = transformer.nodes as [string, string, string];
  const plates = single ? [second] : [first, third];
  const supply = single ? first : second;
  const speaker = transformer.nodes[split]!;
  const number = (key: string) => (typeof transformer.params[key] === "number" ? transformer.params[key] : undefined);
  const tubes = plates.flatMap((plate, half) =>
    tubesOf(circuit)
      .filter((t) => (isOutputTube(t) || t.tube!.kind === "triode") && platesNode(circuit, t) === plate)
      .map((t) => tubeAt(circuit, t, half as 0 | 1)),
  );
  if (tubes.length === 0) return undefined;
  const load = circuit.elements.find(
    (e) => e.letter === "R" && e.nodes.includes(speaker) && e.nodes.includes(transformer.nodes[split + 1]!),
  );
  const dcr = number("dcr");
  return {
    name: transformer.name,
    transformer,
    single,
    tubes,
    supply,
    primaryOhms: number("zpp") ?? number("zp") ?? 0,
    ratedLoad: number("load") ?? 0,
    ...(load?.value ? { load: { name: load.name, ohms: load.value } } : {}),
    speaker,
    halfOhms: single ? [dcr] : [dcr, number("dcr2") ?? dcr],
    ...(number("ul") === undefined ? {} : { ultralinear: number("ul")! }),
    bias: biasOf(circuit, tubes),
  };
}

/** The transformer's node that a plate is on, a stopper of a few ohms between them or not. */
function platesNode(circuit: Circuit, tube: Element): string {
  const plate = electrodeNode(tube, "plate")!;
  if (circuit.elements.some((e) => e.type?.startsWith("OPT_") && e.nodes.includes(plate))) return plate;
  const stopper = resistorsAt(circuit, plate).find((r) => (r.value ?? 0) < 1000);
  return stopper?.nodes.find((n) => n !== plate) ?? plate;
}

function tubeAt(circuit: Circuit, tube: Element, half: 0 | 1): OutputTube {
  const cathode = electrodeNode(tube, "cathode")!;
  const screen = electrodeNode(tube, "screen");
  // Each tube's own resistor: what leads from the screen to somewhere that is neither its plate nor its cathode.
  const feed =
    screen === undefined
      ? undefined
      : resistorsAt(circuit, screen).find(
          (r) => !r.nodes.includes(cathode) && !r.nodes.includes("0") && tubesAt(circuit, screen, "screen").length === 1,
        );
  return {
    name: tube.name,
    type: tube.tube!,
    half,
    plate: electrodeNode(tube, "plate")!,
    ...(screen === undefined ? {} : { screen }),
    grid: electrodeNode(tube, "grid")!,
    cathode,
    cathodeOhms: cathode === "0" ? 0 : ohmsToGround(circuit, cathode),
    sharedBy: tubesAt(circuit, cathode, "cathode").length,
    ...(feed?.value
      ? {
          screenResistor: {
            name: feed.name,
            ohms: feed.value,
            ...(feed.notes.watts ? { watts: feed.notes.watts } : {}),
            from: feed.nodes.find((n) => n !== screen)!,
          },
        }
      : {}),
  };
}

function biasOf(circuit: Circuit, tubes: readonly OutputTube[]): BiasKind {
  const under = tubes.some((t) => t.cathodeOhms > SHUNT_OHMS);
  const supplied = tubes.some((t) => reachesNegativeSupply(circuit, t.grid));
  return supplied ? (under ? "mixed" : "fixed") : "cathode";
}

/** Whether direct current has a way from a node to the bias supply. */
function reachesNegativeSupply(circuit: Circuit, from: string): boolean {
  const negative = new Set(
    circuit.elements.flatMap((e) =>
      (isRectifier(e.type) && e.nodes[0] === "0") || (e.letter === "V" && (e.value ?? 0) > 0 && e.nodes[0] === "0")
        ? [e.nodes[1]!]
        : e.letter === "V" && (e.value ?? 0) < 0 && e.nodes[1] === "0"
          ? [e.nodes[0]!]
          : [],
    ),
  );
  const passes = (e: Element) => e.letter === "R" || e.letter === "L" || e.type === "POT" || e.type === "SW" || e.type === "SW2";
  const reached = new Set([from]);
  for (const node of reached) {
    if (negative.has(node)) return true;
    for (const e of circuit.elements) if (passes(e) && e.nodes.includes(node)) for (const n of e.nodes) if (n !== "0") reached.add(n);
  }
  return false;
}
