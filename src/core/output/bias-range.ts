/** What a bias adjuster can do over its whole track and with its wiper off it, and which part to change where that is not enough. */

import { alter } from "../circuit/alter";
import type { Circuit, Element } from "../circuit/circuit";
import { decade } from "../quantity/series";
import { ratingFor, STANDARD_WATTS } from "../quantity/ratings";
import { stresses } from "../solver/stress";
import { solveIdle, type Idle } from "./idle";
import { outputStages, type OutputStage } from "./output-stage";

export interface RangeStep {
  position: number;
  /** Means of the tubes that it moves: amperes, volts of grid to cathode; the worst part of a rating. */
  amps: number;
  gridVolts: number;
  ofRating: number;
}

export interface BiasRange {
  adjuster: string;
  steps: RangeStep[];
  /** With the wiper off the track; undefined where the circuit does not settle then, which is as bad. */
  open?: RangeStep;
  /** The wanted current lies on the track. */
  reaches: boolean;
  /** Where on the track, 0 to 1. */
  at?: number;
}

const STEPS = 11;

function stepOf(idle: Idle, names: readonly string[], position: number): RangeStep {
  const of = idle.tubes.filter((t) => names.includes(t.name));
  const mean = (f: (t: (typeof of)[number]) => number) => of.reduce((sum, t) => sum + f(t), 0) / Math.max(1, of.length);
  return {
    position,
    amps: mean((t) => t.plate),
    gridVolts: mean((t) => t.gridVolts),
    ofRating: Math.max(...of.map((t) => Math.max(t.ofRating ?? 0, t.ofScreenRating ?? 0))),
  };
}

/** @param names tubes that the adjuster moves. @param wanted plate amperes of each. */
export function biasRange(circuit: Circuit, adjuster: string, names: readonly string[], wanted: number, mains?: number): BiasRange {
  const at = (set: string, position: number) => stepOf(solveIdle(alter(circuit, [`${adjuster}=${set}`]), mains).idle, names, position);
  const steps = Array.from({ length: STEPS }, (_, i) => at(String(i / (STEPS - 1)), i / (STEPS - 1)));
  let open: RangeStep | undefined;
  try {
    open = at("wiper-open", NaN);
  } catch (error) {
    // A stage whose grids nothing holds may have no resting point: the screen says so.
    if (!(error instanceof RangeError)) throw error;
  }
  const crossing = steps.findIndex((s, i) => i > 0 && s.amps > wanted !== steps[i - 1]!.amps > wanted);
  const [a, b] = [steps[crossing - 1], steps[crossing]];
  return {
    adjuster,
    steps,
    ...(open ? { open } : {}),
    reaches: crossing > 0,
    ...(a && b ? { at: a.position + ((b.position - a.position) * (wanted - a.amps)) / (b.amps - a.amps) } : {}),
  };
}

export interface PartChange {
  /** The resistor and its present and suggested ohms. */
  part: string;
  from: number;
  to: number;
  /** Watts in it at the worst, and the rating to fit. */
  watts: number;
  fit: number;
  /** Amperes at the ends and the middle of the track, and where the target then lies. */
  ends: [number, number];
  middle: number;
  at: number;
  /** Part of the rating at the hottest end of the track, and at the target with the mains a tenth up. */
  hottest: number;
  high: number;
}

/** A value as far from the present one as this is another circuit. */
const MOST_TIMES = 5;
/** The target lies well where it lies between these parts of the track. */
const MIDDLE = [0.25, 0.75] as const;

/**
 * Resistors of the bias supply that bring a target to the middle of the track when they are changed to a value that exists, best first.
 * None has the tubes above a rating at the target, the mains a tenth up.
 */
export function partsForRange(circuit: Circuit, adjuster: string, names: readonly string[], wanted: number, mains?: number): PartChange[] {
  const wall = mains ?? circuit.mains?.volts;
  const out: PartChange[] = [];
  for (const part of dividerOf(circuit, adjuster)) {
    const values = [-1, 0, 1, 2, 3, 4, 5].flatMap((p) => decade("E12").map((m) => Number(`${m}e${p}`)));
    for (const to of values.filter((v) => v > part.value! / MOST_TIMES && v < part.value! * MOST_TIMES && v !== part.value)) {
      const found = tryValue(circuit, adjuster, names, wanted, wall, part, to);
      if (found) out.push(found);
    }
  }
  const worth = (c: PartChange) => Math.abs(c.at - 0.5) + (c.hottest > 1 ? 0.3 : 0);
  return out.sort((a, b) => worth(a) - worth(b)).slice(0, 4);
}

function tryValue(
  circuit: Circuit,
  adjuster: string,
  names: readonly string[],
  wanted: number,
  wall: number | undefined,
  part: Element,
  to: number,
): PartChange | undefined {
  const at = (position: number, volts = wall) => {
    try {
      const { idle, op } = solveIdle(alter(circuit, [`${part.name}=${to}`, `${adjuster}=${position}`]), volts);
      return { ...stepOf(idle, names, position), op };
    } catch (error) {
      if (error instanceof RangeError) return undefined;
      throw error;
    }
  };
  const [low, middle, high] = [at(0), at(0.5), at(1)];
  if (!low || !middle || !high || low.amps > wanted === high.amps > wanted) return undefined;
  const from = middle.amps > wanted === low.amps > wanted ? middle : low;
  const end = from === middle ? high : middle;
  let position = from.position + ((end.position - from.position) * (wanted - from.amps)) / (end.amps - from.amps);
  // The track is curved: once more between the guess and its neighbour.
  const guess = at(position);
  if (!guess) return undefined;
  position = Math.min(1, Math.max(0, position + ((wanted - guess.amps) * (end.position - from.position)) / (end.amps - from.amps)));
  if (position < MIDDLE[0] || position > MIDDLE[1]) return undefined;
  const up = at(position, wall === undefined ? undefined : 1.1 * wall);
  if (!up || up.ofRating > 1) return undefined;
  const watts = stresses(up.op).find((s) => s.part === part.name && s.kind === "watts")?.value ?? 0;
  return {
    part: part.name,
    from: part.value!,
    to,
    watts,
    fit: ratingFor(Math.max(0.5, 2 * watts), STANDARD_WATTS) ?? 2 * watts,
    ends: [low.amps, high.amps],
    middle: middle.amps,
    at: position,
    hottest: Math.max(low.ofRating, high.ofRating),
    high: up.ofRating,
  };
}

/** The fixed resistors around an adjuster: between its track and the bias supply or chassis; those that lead to grids are not among them. */
function dividerOf(circuit: Circuit, adjuster: string): Element[] {
  const pot = circuit.elements.find((e) => e.name === adjuster && e.type === "POT");
  if (!pot) return [];
  const grids = new Set(outputStages(circuit).flatMap((s: OutputStage) => s.tubes.map((t) => t.grid)));
  const stops = new Set(circuit.elements.flatMap((e) => (e.type?.startsWith("RECT") ? e.nodes : [])));
  const reached = new Set(pot.nodes.filter((n) => n !== "0"));
  const found = new Set<Element>();
  for (const node of reached) {
    if (stops.has(node)) continue;
    for (const e of circuit.elements) {
      if (e.letter !== "R" || !e.value || !e.nodes.includes(node)) continue;
      const other = e.nodes.find((n) => n !== node)!;
      if (grids.has(other) || leadsToGrid(circuit, other, node, grids)) continue;
      found.add(e);
      if (other !== "0") reached.add(other);
    }
  }
  return [...found];
}

/** A grid leak may end before a stopper. */
const leadsToGrid = (circuit: Circuit, node: string, from: string, grids: ReadonlySet<string>) =>
  node !== "0" &&
  circuit.elements.some((e) => e.letter === "R" && e.nodes.includes(node) && !e.nodes.includes(from) && e.nodes.some((n) => grids.has(n)));

export interface WiperGuard {
  /** Ohms from the wiper to the end of the track that is the more negative. */
  ohms: number;
  /** Part of the rating with the wiper off the track and the resistor fitted. */
  with: number;
}

/** The largest resistor from the wiper to the negative end of the track that keeps the tubes within half their rating when the wiper lifts. */
export function wiperGuard(circuit: Circuit, adjuster: string, names: readonly string[], mains?: number): WiperGuard | undefined {
  const pot = circuit.elements.find((e) => e.name === adjuster && e.type === "POT");
  if (!pot) return undefined;
  const { op } = solveIdle(circuit, mains);
  const [start, wiper, end] = pot.nodes as [string, string, string];
  const volts = (n: string) => (n === "0" ? 0 : op.x[op.network.index.get(n)!]!);
  const negative = volts(start) < volts(end) ? start : end;
  for (const ohms of [470e3, 330e3, 220e3, 150e3, 100e3, 68e3, 47e3]) {
    const guard: Element = { name: "R#guard", letter: "R", nodes: [wiper, negative], value: ohms, params: {}, notes: {}, line: pot.line };
    const made = { ...circuit, elements: [...circuit.elements, guard] };
    try {
      const open = stepOf(solveIdle(alter(made, [`${adjuster}=wiper-open`]), mains).idle, names, NaN);
      if (open.ofRating <= 0.5) return { ohms, with: open.ofRating };
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
    }
  }
  return undefined;
}
