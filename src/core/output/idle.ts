/** An output stage at idle in the solved circuit: currents, watts and rails; fitted to what was read; brought to another current. */

import { alter } from "../circuit/alter";
import type { Circuit, Element } from "../circuit/circuit";
import { operatingPoint, idealVolts, tubesAtWork, type OperatingPoint } from "../solver/operating-point";
import { roleOf } from "../anatomy/points";
import { idlingAboveSheet, USUAL_IDLE } from "../solver/idle";
import * as texts from "../texts/output";
import { outputStages, type OutputStage } from "./output-stage";

/** Amperes, volts to the cathode, watts. */
export interface IdleTube {
  name: string;
  plate: number;
  screen: number;
  plateVolts: number;
  screenVolts?: number;
  /** Grid to cathode. */
  gridVolts: number;
  plateWatts: number;
  screenWatts: number;
  /** Parts of the rating; undefined where the type has none. */
  ofRating?: number;
  ofScreenRating?: number;
}

export interface Idle {
  /** Tubes of every output stage. */
  tubes: IdleTube[];
  /** Volts of each supply point. */
  rails: { point: string; label: string; volts: number }[];
}

/** @throws RangeError when the circuit does not settle. */
export function solveIdle(circuit: Circuit, mains?: number, start?: OperatingPoint): { idle: Idle; op: OperatingPoint } {
  const op = operatingPoint(circuit, mains === undefined || !circuit.mains ? {} : { mains }, start?.x);
  if (!op.converged) throw new RangeError(texts.doesNotSettle(op.unsettled.join(", ")));
  return { idle: idleAt(op), op };
}

export function idleAt(op: OperatingPoint): Idle {
  const { circuit } = op.network;
  const work = tubesAtWork(op);
  return {
    tubes: outputStages(circuit).flatMap((s) =>
      s.tubes.flatMap(({ name, type }): IdleTube[] => {
        const w = work.get(name);
        if (!w) return [];
        const { plateWatts: rated, screenWatts: screenRated } = type.ratings ?? {};
        const screenWatts = w.screenWatts ?? 0;
        return [
          {
            name,
            plate: w.plateMilliamps / 1e3,
            screen: (w.screenMilliamps ?? 0) / 1e3,
            plateVolts: w.plateVolts,
            ...(w.screenVolts === undefined ? {} : { screenVolts: w.screenVolts }),
            gridVolts: w.gridVolts,
            plateWatts: w.plateWatts,
            screenWatts,
            ...(rated ? { ofRating: w.plateWatts / rated } : {}),
            ...(screenRated ? { ofScreenRating: screenWatts / screenRated } : {}),
          },
        ];
      }),
    ),
    rails: circuit.points.flatMap((p) => {
      const role = roleOf(circuit, p);
      return role === "rail" || role === "bias" ? [{ point: p.name, label: p.label, volts: idealVolts(op, p.node) }] : [];
    }),
  };
}

const withNotes = (circuit: Circuit, strengths: ReadonlyMap<string, number>): Circuit => ({
  ...circuit,
  elements: circuit.elements.map((e): Element =>
    strengths.has(e.name) ? { ...e, notes: { ...e.notes, strength: strengths.get(e.name)! } } : e,
  ),
});

export interface Fitted {
  circuit: Circuit;
  idle: Idle;
  /** Current of each tube in parts of its sheet's tube. */
  strengths: Map<string, number>;
  /** Tubes whose reading no strength between a tenth and twice explains, with what was read. */
  unlike: string[];
}

const STRENGTH_LIMITS = [0.1, 2] as const;

/**
 * The circuit with each read tube as strong as its reading says, the rails falling along.
 * @param plate amperes of plate current by tube; a tube that was not read keeps its own strength.
 */
export function fitStrengths(circuit: Circuit, plate: ReadonlyMap<string, number>, mains?: number): Fitted {
  const strengths = new Map<string, number>();
  for (const name of plate.keys()) strengths.set(name, circuit.elements.find((e) => e.name === name)?.notes.strength ?? 1);
  let made = withNotes(circuit, strengths);
  let solved = solveIdle(made, mains);
  // The current goes nearly as the strength does; what the rails and the cathode resistor take back is made good in a few rounds.
  for (let round = 0; round < 25; round++) {
    let worst = 0;
    for (const [name, wanted] of plate) {
      const now = solved.idle.tubes.find((t) => t.name === name)?.plate;
      if (!now || wanted <= 0) continue;
      const [low, high] = STRENGTH_LIMITS;
      const before = strengths.get(name)!;
      // Cathode bias holds its current: the strength has to go further than the reading.
      const next = Math.min(high, Math.max(low, before * (wanted / now) ** 1.5));
      worst = Math.max(worst, next === before ? 0 : Math.abs(wanted / now - 1));
      strengths.set(name, next);
    }
    if (worst < 1e-4) break;
    made = withNotes(circuit, strengths);
    solved = solveIdle(made, mains, solved.op);
  }
  const unlike = [...plate].flatMap(([name, wanted]) => {
    const now = solved.idle.tubes.find((t) => t.name === name)?.plate ?? 0;
    return Math.abs(now - wanted) > 0.03 * Math.max(wanted, 1e-4) ? [name] : [];
  });
  return { circuit: made, idle: solved.idle, strengths, unlike };
}

/**
 * Where the adjuster of a stage stands, by what was read: at the grids, or else by the current that all tubes have in common. Tubes stray
 * by a seventh, a wiper stands anywhere: what all do alike is the wiper's, what is left between them the tubes'.
 * @param grids volts to chassis at the grids that were read, by node.
 * @returns undefined where nothing was read.
 */
export function fitPosition(
  circuit: Circuit,
  adjuster: string,
  plate: ReadonlyMap<string, number>,
  grids: ReadonlyMap<string, number>,
  mains?: number,
): number | undefined {
  const at = (position: number) => solveIdle(alter(circuit, [`${adjuster}=${position}`]), mains);
  const error =
    grids.size > 0
      ? (position: number) => {
          const { op } = at(position);
          return [...grids].reduce((sum, [node, volts]) => sum + idealVolts(op, node) - volts, 0);
        }
      : (position: number) => {
          const { idle, op } = at(position);
          const strange = idlingAboveSheet(op);
          // A tube far above its sheet's screen volts passes less than the sheet's: that is no turn of the wiper.
          return [...plate].reduce(
            (sum, [name, wanted]) =>
              sum + (idle.tubes.find((t) => t.name === name)?.plate ?? 0) * (strange.has(name) ? USUAL_IDLE : 1) - wanted,
            0,
          );
        };
  if (plate.size + grids.size === 0) return undefined;
  const found = bisect(error, 0, 1, 1e-4);
  if (found !== undefined) return found;
  return Math.abs(error(0)) < Math.abs(error(1)) ? 0 : 1;
}

/**
 * The stage with volts added in series with its grids, so that any kind of bias can be taken to any current.
 * The source lies between each grid and what was on it.
 */
export function withGridShift(circuit: Circuit, stage: OutputStage, volts: number): Circuit {
  const grids = new Map(stage.tubes.map((t) => [t.name, t.grid]));
  const line = circuit.elements[0]?.line ?? 1;
  const inner = (node: string) => `${node}#shift`;
  const sources: Element[] = [...new Set(grids.values())].map((node) => ({
    name: `V#${node}`,
    letter: "V",
    nodes: [inner(node), node],
    value: volts,
    params: {},
    notes: {},
    line,
  }));
  const elements = circuit.elements.map((e) => {
    if (!grids.has(e.name)) return e;
    const at = e.nodes.length - 2;
    return { ...e, nodes: e.nodes.map((n, i) => (i === at ? inner(n) : n)) };
  });
  return { ...circuit, elements: [...elements, ...sources] };
}

/** What is brought to a figure: the mean plate current of some tubes, amperes, or their mean part of the rating. */
export type Aim = { amps: number } | { ofRating: number };

const meanOf = (idle: Idle, names: readonly string[], aim: Aim): number => {
  const of = idle.tubes.filter((t) => names.includes(t.name));
  return of.reduce((sum, t) => sum + ("amps" in aim ? t.plate : (t.ofRating ?? NaN)), 0) / Math.max(1, of.length);
};
const wantedOf = (aim: Aim) => ("amps" in aim ? aim.amps : aim.ofRating);

/** The idle of a stage whose grids are moved until the aim is met. @returns undefined where no grid volts meet it. */
export function idleAtAim(
  circuit: Circuit,
  stage: OutputStage,
  aim: Aim,
  mains?: number,
): { idle: Idle; shift: number; circuit: Circuit } | undefined {
  const names = stage.tubes.map((t) => t.name);
  const at = (shift: number) => {
    const made = withGridShift(circuit, stage, shift);
    return { circuit: made, shift, ...solveIdle(made, mains) };
  };
  const found = bisect((shift) => meanOf(at(shift).idle, names, aim) - wantedOf(aim), -80, 60, 0.002);
  if (found === undefined) return undefined;
  const { idle, circuit: made } = at(found);
  return { idle, shift: found, circuit: made };
}

/**
 * Where an adjuster has to stand for the aim.
 * @returns its position, 0 to 1, or how far its ends reach where the aim lies beyond them.
 */
export function positionForAim(
  circuit: Circuit,
  adjuster: string,
  names: readonly string[],
  aim: Aim,
  mains?: number,
): { position: number; idle: Idle } | { reaches: [number, number] } {
  const at = (position: number) => solveIdle(alter(circuit, [`${adjuster}=${position}`]), mains).idle;
  const error = (position: number) => meanOf(at(position), names, aim) - wantedOf(aim);
  const found = bisect(error, 0, 1, 1e-4);
  if (found === undefined) {
    const ends = [meanOf(at(0), names, aim), meanOf(at(1), names, aim)] as const;
    return { reaches: [Math.min(...ends), Math.max(...ends)] };
  }
  return { position: found, idle: at(found) };
}

/** A zero of a monotone function between two ends; undefined where it has the same sign at both. Ends that do not settle count as beyond. */
function bisect(f: (x: number) => number, from: number, to: number, close: number): number | undefined {
  const value = (x: number) => {
    try {
      return f(x);
    } catch (error) {
      // Only what `solveIdle` says of a circuit that does not settle.
      if (!(error instanceof RangeError)) throw error;
      return NaN;
    }
  };
  let [a, b] = [from, to];
  let fa = value(a);
  let fb = value(b);
  // A tube driven far into grid current may not settle: draw that end in.
  for (let i = 0; i < 6 && Number.isNaN(fb); i++) fb = value((b = (a + b) / 2));
  for (let i = 0; i < 6 && Number.isNaN(fa); i++) fa = value((a = (a + b) / 2));
  if (Number.isNaN(fa) || Number.isNaN(fb)) return undefined;
  if (fa === 0) return a;
  if (fb === 0) return b;
  if (fa > 0 === fb > 0) return undefined;
  // The Illinois rule: false position whose stale end is halved, a few solves where halving would need twenty.
  for (let i = 0; i < 60 && Math.abs(b - a) > close; i++) {
    const middle = (a * fb - b * fa) / (fb - fa);
    const x = Number.isFinite(middle) && i % 4 !== 3 ? middle : (a + b) / 2;
    const fx = value(x);
    if (Number.isNaN(fx)) return undefined;
    if (Math.abs(fx) < 1e-7) return x;
    if (fx > 0 === fb > 0) {
      b = x;
      fb = fx;
      fa /= 2;
    } else {
      a = x;
      fa = fx;
      fb /= 2;
    }
  }
  return (a + b) / 2;
}
