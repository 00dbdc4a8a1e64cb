/** A cathode or screen resistor from values that exist, over every position of the mode switches and a tenth of mains either way. */

import { alter } from "../circuit/alter";
import type { Circuit, Element } from "../circuit/circuit";
import { decade, inParallel, inSeries } from "../quantity/series";
import { ratingFor, STANDARD_WATTS } from "../quantity/ratings";
import { stresses } from "../solver/stress";
import * as texts from "../texts/output";
import { solveIdle, type Idle } from "./idle";
import type { OutputStage } from "./output-stage";

export interface Mode {
  /** "S2 closed", or "as it stands" where no switch changes the stage. */
  name: string;
  set: string[];
}

/** A switch that moves the stage's plate watts by more than this part is a mode; one that takes nearly all of them is a standby. */
const MOVES = 0.003;
const STANDBY = 0.05;

/** Every position of the switches that change how the output stage works: full and half power, pentode and triode. */
export function modesOf(circuit: Circuit, stage: OutputStage, mains?: number): Mode[] {
  const watts = (set: string[]) => {
    try {
      return totalWatts(solveIdle(alter(circuit, set), mains).idle, stage);
    } catch (error) {
      if (error instanceof RangeError) return undefined;
      throw error;
    }
  };
  const own = watts([]);
  if (own === undefined) throw new RangeError(texts.doesNotSettle(stage.name));
  let modes: Mode[] = [{ name: "", set: [] }];
  // Poles of one switch that are named alike, S2A and S2B, move together.
  const switches = new Map<string, Element[]>();
  for (const e of circuit.elements.filter((x) => x.type === "SW" || x.type === "SW2")) {
    const knob = e.name.replace(/(?<=\d)[A-D]$/, "");
    switches.set(knob, [...(switches.get(knob) ?? []), e]);
  }
  for (const [knob, poles] of switches) {
    const states = poles[0]!.type === "SW" ? ["closed", "open"] : ["1", "2"];
    const found = states.map((state) => ({ state, watts: watts(poles.map((p) => `${p.name}=${state}`)) }));
    const known = found.flatMap((f) => f.watts ?? []);
    const moves = known.length === 2 && Math.abs(known[0]! - known[1]!) > MOVES * Math.max(...known);
    if (!moves || Math.min(...known) < STANDBY * Math.max(...known)) continue;
    modes = modes.flatMap((m) =>
      found.map(({ state }) => ({
        name: [m.name, `${knob} ${state}`].filter(Boolean).join(", "),
        set: [...m.set, ...poles.map((p) => `${p.name}=${state}`)],
      })),
    );
  }
  return modes.length > 1 ? modes : [{ name: texts.asItStands(), set: [] }];
}

const totalWatts = (idle: Idle, stage: OutputStage) =>
  idle.tubes.filter((t) => stage.tubes.some((s) => s.name === t.name)).reduce((sum, t) => sum + t.plateWatts, 0);

export interface ModeFigures {
  mode: string;
  /** Mains in parts of today's: 0.9, 1, 1.1. */
  share: number;
  /** Worst tube's part of its plate and screen rating. */
  ofRating: number;
  ofScreenRating: number;
  /** Plate amperes of a tube on average; volts and watts of the resistor. */
  amps: number;
  volts: number;
  watts: number;
}

export interface ResistorChoice {
  ohms: number;
  /** One resistor, or two: "220 Ω + 33 Ω", "470 Ω ∥ 470 Ω". */
  made: { a: number; b?: number; together?: "series" | "parallel" };
  /** Watts that each is to be rated for, twice the worst; a standard rating. */
  rating: number;
  figures: ModeFigures[];
  /** Of all modes at today's mains, the highest part of a plate rating. */
  ofRating: number;
}

export interface ResistorQuestion {
  /** Part of the plate rating that the hottest mode is to have today. */
  aim: number;
  /** Part of a rating that no mode may pass, a tenth of mains up included. */
  limit: number;
  mains?: number;
}

const SHARES = [0.9, 1, 1.1] as const;

/** The resistor that biases a stage; undefined where it has none. */
export function cathodeResistorOf(circuit: Circuit, stage: OutputStage): Element | undefined {
  const cathodes = new Set(stage.tubes.map((t) => t.cathode));
  return circuit.elements
    .filter((e) => e.letter === "R" && e.value && e.nodes.some((n) => cathodes.has(n)))
    .sort((a, b) => b.value! - a.value!)[0];
}

/** What a resistor of the stage makes of every mode at three mains. @throws RangeError where one does not settle. */
export function figuresWith(
  circuit: Circuit,
  stage: OutputStage,
  part: string,
  ohms: number,
  modes: readonly Mode[],
  mains?: number,
): ModeFigures[] {
  const wall = mains ?? circuit.mains?.volts;
  return modes.flatMap((mode) =>
    SHARES.map((share): ModeFigures => {
      const { idle, op } = solveIdle(alter(circuit, [...mode.set, `${part}=${ohms}`]), wall === undefined ? undefined : wall * share);
      const of = idle.tubes.filter((t) => stage.tubes.some((s) => s.name === t.name));
      const watts = stresses(op).find((s) => s.part === part && s.kind === "watts")?.value ?? 0;
      return {
        mode: mode.name,
        share,
        ofRating: Math.max(...of.map((t) => t.ofRating ?? 0)),
        ofScreenRating: Math.max(...of.map((t) => t.ofScreenRating ?? 0)),
        amps: of.reduce((sum, t) => sum + t.plate, 0) / of.length,
        volts: Math.sqrt(watts * ohms),
        watts,
      };
    }),
  );
}

/**
 * The few resistors that bring the hottest mode nearest to the aim, none with a mode above the limit.
 * @param progress told 0 to 1; answers false to stop.
 */
export function chooseCathodeResistor(
  circuit: Circuit,
  stage: OutputStage,
  { aim, limit, mains }: ResistorQuestion,
  progress?: (part: number) => boolean | void,
): { part: string; modes: Mode[]; now: ModeFigures[]; choices: ResistorChoice[]; refused: number } {
  const part = cathodeResistorOf(circuit, stage);
  if (!part) throw new RangeError(texts.noCathodeResistor());
  const modes = modesOf(circuit, stage, mains);
  const candidates = madeOf(part.value!);
  const tried: ResistorChoice[] = [];
  let refused = 0;
  candidates.forEach(({ ohms, made }, i) => {
    if (progress?.(i / candidates.length) === false) return;
    const figures = figuresWith(circuit, stage, part.name, ohms, modes, mains);
    if (figures.some((f) => f.ofRating > limit || f.ofScreenRating > Math.max(1, limit))) return void refused++;
    const worst = Math.max(...figures.map((f) => f.watts));
    const each =
      made.b === undefined
        ? worst
        : (worst * (made.together === "series" ? Math.max(made.a, made.b) : Math.max(1 / made.a, 1 / made.b))) /
          (made.together === "series" ? made.a + made.b : 1 / made.a + 1 / made.b);
    const rating = ratingFor(2 * each, STANDARD_WATTS);
    if (rating === undefined) return void refused++;
    tried.push({ ohms, made, rating, figures, ofRating: Math.max(...figures.filter((f) => f.share === 1).map((f) => f.ofRating)) });
  });
  // One resistor rather than two where they do as well.
  const worth = (c: ResistorChoice) => Math.abs(c.ofRating - aim) + (c.made.b === undefined ? 0 : 0.01);
  return {
    part: part.name,
    modes,
    now: figuresWith(circuit, stage, part.name, part.value!, modes, mains),
    choices: tried.sort((a, b) => worth(a) - worth(b)).slice(0, 5),
    refused,
  };
}

/** Resistances around one that can be made of one or two of the E12 series, each once and in its simplest make. */
function madeOf(present: number): { ohms: number; made: ResistorChoice["made"] }[] {
  const values = [0, 1, 2, 3, 4].flatMap((p) => decade("E12").map((m) => Number(`${m}e${p}`)));
  const [low, high] = [present / 2, present * 2.5];
  const within = (v: number) => v >= low && v <= high;
  const out: { ohms: number; made: ResistorChoice["made"] }[] = values.filter(within).map((a) => ({ ohms: a, made: { a } }));
  const add = (ohms: number, made: ResistorChoice["made"]) => {
    if (within(ohms) && !out.some((o) => Math.abs(o.ohms / ohms - 1) < 0.015)) out.push({ ohms, made });
  };
  // Two alike share the heat; then the next value down, as what a drawer has.
  for (const a of values) add(inParallel(a, a), { a, b: a, together: "parallel" });
  for (const a of values) for (const b of values.filter((v) => v <= a && v >= a / 12)) add(inSeries(a, b), { a, b, together: "series" });
  return out;
}
