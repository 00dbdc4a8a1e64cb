/** A supply dropper from values that exist, to bring a supply node into a wanted window; a choke against a resistor. */

import { alter } from "../circuit/alter";
import { supplyChain } from "../anatomy/points";
import type { Circuit, Element } from "../circuit/circuit";
import { decade } from "../quantity/series";
import { ratingFor, STANDARD_WATTS } from "../quantity/ratings";
import { idealVolts } from "../solver/operating-point";
import { rippleOf } from "../solver/ripple";
import { stresses } from "../solver/stress";
import * as texts from "../texts/output";
import { solveIdle } from "./idle";

export interface DropperChoice {
  ohms: number;
  volts: number;
  /** Watts in it, and the rating to fit. */
  watts: number;
  fit: number;
  /** Volts rms of ripple at the node. */
  ripple: number;
  /** Volts of every node of the supply, and their change against now. */
  nodes: { point: string; volts: number; change: number }[];
}

export interface DropperAnswer {
  part: string;
  now: number;
  choices: DropperChoice[];
  /** What is reached at the ends of the values tried where none is in the window. */
  reaches?: [number, number];
}

/** The resistor or choke right before a point of the supply. */
export function dropperBefore(circuit: Circuit, point: string): Element | undefined {
  const step = supplyChain(circuit).find((s) => s.point.name.toLowerCase() === point.toLowerCase());
  return step?.droppers.findLast((e) => e.letter === "R" || e.letter === "L");
}

/**
 * Values of E12 that bring the point into the window, the nearest to its middle first.
 * @throws RangeError for a point without a dropper before it, or a window that is none.
 */
export function chooseDropper(circuit: Circuit, point: string, window: { low: number; high: number }, mains?: number): DropperAnswer {
  if (!(window.low > 0 && window.high > window.low)) throw new RangeError(texts.windowWanted(window.low, window.high));
  const part = dropperBefore(circuit, point);
  if (part?.letter !== "R") throw new RangeError(texts.noDropper(point));
  const now = railVolts(circuit, mains);
  const values = [1, 2, 3, 4, 5]
    .flatMap((p) => decade("E12").map((m) => Number(`${m}e${p}`)))
    .filter((v) => v > part.value! / 8 && v < part.value! * 8);
  const all = values.map((ohms) => choiceOf(circuit, part, ohms, point, now, mains));
  const inside = all.filter((c) => c.volts >= window.low && c.volts <= window.high);
  const middle = (window.low + window.high) / 2;
  return {
    part: part.name,
    now: now.find((n) => n.point.toLowerCase() === point.toLowerCase())!.volts,
    choices: inside.sort((a, b) => Math.abs(a.volts - middle) - Math.abs(b.volts - middle)).slice(0, 5),
    ...(inside.length > 0
      ? {}
      : { reaches: [Math.min(...all.map((c) => c.volts)), Math.max(...all.map((c) => c.volts))] as [number, number] }),
  };
}

const railVolts = (circuit: Circuit, mains?: number) => {
  const { op } = solveIdle(circuit, mains);
  return supplyChain(circuit).map((s) => ({ point: s.point.name, volts: idealVolts(op, s.point.node) }));
};

function choiceOf(
  circuit: Circuit,
  part: Element,
  ohms: number,
  point: string,
  before: { point: string; volts: number }[],
  mains?: number,
): DropperChoice {
  const { op } = solveIdle(alter(circuit, [`${part.name}=${ohms}`]), mains);
  const nodes = supplyChain(circuit).map((s) => {
    const volts = idealVolts(op, s.point.node);
    return { point: s.point.name, volts, change: volts - before.find((b) => b.point === s.point.name)!.volts };
  });
  const here = circuit.points.find((p) => p.name.toLowerCase() === point.toLowerCase())!;
  const watts = stresses(op).find((s) => s.part === part.name && s.kind === "watts")?.value ?? 0;
  return {
    ohms,
    volts: nodes.find((n) => n.point === here.name)!.volts,
    watts,
    fit: ratingFor(Math.max(0.5, 2 * watts), STANDARD_WATTS) ?? 2 * watts,
    ripple: rippleOf(op).get(here.node) ?? NaN,
    nodes,
  };
}

export interface ChokeOrResistor {
  what: string;
  volts: number;
  ripple: number;
  /** Volts that the node loses when the output stage draws so many milliamperes more. */
  sag: number;
  watts: number;
}

/**
 * The filter before a point as a choke and as a resistor: volts, ripple and how far the node sags.
 * @param extra amperes that the node is loaded with for the sag.
 */
export function chokeAgainstResistor(
  circuit: Circuit,
  point: string,
  { henries, dcr, ohms, extra = 0.05, mains }: { henries: number; dcr: number; ohms: number; extra?: number; mains?: number },
): ChokeOrResistor[] {
  const part = dropperBefore(circuit, point);
  const node = circuit.points.find((p) => p.name.toLowerCase() === point.toLowerCase())?.node;
  if (!part || !node) throw new RangeError(texts.noDropper(point));
  for (const [name, value] of Object.entries({ henries, dcr, ohms })) if (!(value > 0)) throw new RangeError(texts.aboveZero(name, value));
  const swap = (made: Partial<Element>): Circuit => ({
    ...circuit,
    elements: circuit.elements.map((e) => (e === part ? { ...e, notes: {}, params: {}, ...made } : e)),
  });
  const load: Element = { name: "I#extra", letter: "I", nodes: [node, "0"], value: extra, params: {}, notes: {}, line: part.line };
  return [
    { what: texts.choke(henries, dcr), amp: swap({ letter: "L", value: henries, notes: { dcr } }), series: dcr },
    { what: texts.resistor(ohms), amp: swap({ letter: "R", value: ohms }), series: ohms },
  ].map(({ what, amp, series }) => {
    const { op } = solveIdle(amp, mains);
    const loaded = solveIdle({ ...amp, elements: [...amp.elements, load] }, mains).op;
    const [a, b] = part.nodes as [string, string];
    // A choke's winding is no node of its own: its watts are those of the current through it.
    const branch = op.network.branches.find((x) => x.name === part.name);
    const amps = branch ? op.x[branch.index]! : (idealVolts(op, a) - idealVolts(op, b)) / series;
    return {
      what,
      volts: idealVolts(op, node),
      ripple: rippleOf(op).get(node) ?? NaN,
      sag: idealVolts(op, node) - idealVolts(loaded, node),
      watts: amps ** 2 * series,
    };
  });
}
