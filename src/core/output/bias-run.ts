/**
 * Setting the bias hands-free, as one state after another: what is asked for now, what a reading makes of it, and what goes on the tape.
 * Pure; the meter, the keys and the solver's answers come from the screen.
 */

import type { Circuit } from "../circuit/circuit";
import type { EventDraft } from "../tape/events/event";
import type { BiasTaken } from "../tape/events/output-events";
import { biasSteps, ON_TARGET, type BiasStep } from "./bias-steps";
import { biasTable } from "./bias-table";
import { biasTaken } from "./bias-taken";
import { usualWay } from "./from-tape";
import type { Idle } from "./idle";
import type { OutputStage } from "./output-stage";
import { readCurrent, type Way } from "./read-current";
import type { Target } from "./targets";

export interface BiasRun {
  /** As it was when the run began: the adjuster that is logged changes the circuit in use, not the steps. */
  circuit: Circuit;
  stage: OutputStage;
  way: Way;
  steps: readonly BiasStep[];
  /** Place of the step that is asked for; past the last once everything is read. */
  at: number;
  /** In the meter's units: volts, or milliamperes of a probe. */
  taken: readonly { step: number; value: number }[];
  /** How often the adjuster was asked for again. */
  again: number;
  /** The watched tube's part of the stage's mean on target, as it was read: unlike tubes do not keep to each other as the bias is turned. */
  share: number;
}

/** Unlike tubes need the adjuster more than once; after so many turns the rest is the tubes' own. */
const MOST_AGAIN = 3;
/** The mean of the tubes may miss the target by so many times what the watched one may: each is read with its own error. */
const MEAN_ON_TARGET = 1.5 * ON_TARGET;
/** Parts of the plate's rating above which nothing is to be done but to switch off. */
const MOST_OF_RATING = 1;

export function startBiasRun(circuit: Circuit, stage: OutputStage): BiasRun {
  return { circuit, stage, way: usualWay(stage), steps: biasSteps(circuit, stage), at: 0, taken: [], again: 0, share: 1 };
}

export const stepOf = (run: BiasRun): BiasStep | undefined => run.steps[run.at];
export const turnStep = (run: BiasRun): number => run.steps.findIndex((s) => s.what === "turn");
/** The probe may stay where it is: no other display has to be seen first. */
export const sameProbe = (run: BiasRun, from: BiasStep | undefined): boolean => {
  const to = stepOf(run);
  return to?.what === "turn" || (to !== undefined && to.point === from?.point);
};
export const goToStep = (run: BiasRun, at: number): BiasRun => ({ ...run, at: Math.max(0, Math.min(run.steps.length, at)) });
/** The value that a step was read with last. */
export const valueAt = (run: Pick<BiasRun, "taken">, step: number): number | undefined => run.taken.findLast((t) => t.step === step)?.value;

const inBase = (step: Pick<BiasStep, "kind">, value: number) => (step.kind === "ma" ? value / 1e3 : value);

/** Plate amperes of a step's tube out of a value of the meter; undefined where the step reads no current. */
export function plateAmps({ stage, way }: BiasRun, step: BiasStep, value: number): number | undefined {
  if (step.tube === undefined) return undefined;
  const read = readCurrent(stage, { tube: step.tube, way, value: inBase(step, value) });
  return read.ok ? read.current.plate : undefined;
}

/** Plate amperes by tube out of the readings before, or after, the turn; tubes on one resistor share its reading. */
export function currentsOf(run: BiasRun, when: "before" | "after"): Record<string, number> {
  const { stage } = run;
  return Object.fromEntries(
    run.steps.flatMap((s, i) => {
      const value = valueAt(run, i);
      if (s.what !== "read" || s.when !== when || s.tube === undefined || value === undefined) return [];
      const amps = plateAmps(run, s, value);
      if (amps === undefined) return [];
      const own = stage.tubes.find((t) => t.name === s.tube);
      const sharing = run.way === "cathode resistor" ? stage.tubes.filter((t) => t.cathode === own?.cathode) : [];
      return (sharing.length > 0 ? sharing.map((t) => t.name) : [s.tube]).map((t) => [t, amps] as const);
    }),
  );
}

/** What the watched tube has to show for the stage's mean to be at `target` amperes. */
export const watchedAmps = (run: BiasRun, target: number): number => target * run.share;

/** Whether a value of the meter at the turn is the target. @param target amperes, the stage's mean. */
export function isOnTarget(run: BiasRun, value: number, target: number): boolean {
  const step = stepOf(run);
  const amps = step?.what === "turn" ? plateAmps(run, step, value) : undefined;
  return amps !== undefined && Math.abs(amps / watchedAmps(run, target) - 1) <= ON_TARGET;
}

/**
 * A reading of this step was taken.
 * @param target amperes, the stage's mean, where it is known: when all tubes are read after the turn and their mean misses it, the
 * adjuster is asked for again.
 * @returns the run, and which of the two tables is whole by now.
 */
export function takeValue(run: BiasRun, value: number, target?: number): { run: BiasRun; whole?: "before" | "after" } {
  const step = stepOf(run);
  if (step?.what !== "read") return { run };
  const read = { ...run, taken: [...run.taken.filter((t) => t.step !== run.at), { step: run.at, value }] };
  const next = run.steps[run.at + 1];
  const lastTube = step.when === "after" && step.tube !== undefined && (next?.what !== "read" || next.tube === undefined);
  const better = lastTube && target !== undefined ? turnAgain(read, target) : undefined;
  if (better) return { run: better };
  const on = { ...read, at: run.at + 1 };
  return { run: on, ...(next === undefined ? { whole: "after" as const } : next.what === "turn" ? { whole: "before" as const } : {}) };
}

/** The mean of all tubes misses the target: the watched one's part of it is known better now. */
function turnAgain(run: BiasRun, target: number): BiasRun | undefined {
  const at = turnStep(run);
  const after = currentsOf(run, "after");
  const each = Object.values(after);
  const own = after[run.steps[at]?.tube ?? ""];
  const mean = each.reduce((sum, x) => sum + x, 0) / each.length;
  if (own === undefined || run.again >= MOST_AGAIN || Math.abs(mean / target - 1) <= MEAN_ON_TARGET) return undefined;
  return { ...run, at, again: run.again + 1, share: own / mean };
}

/** The turn is done: everything is read again. */
export const doneTurning = (run: BiasRun): BiasRun => goToStep(run, turnStep(run) + 1);

/** Volts of the stage's supply as they were read in this run, the latest; undefined before. */
export function supplyRead(run: BiasRun): number | undefined {
  const node = (point: string) => run.circuit.points.find((p) => p.name === point)?.node;
  return run.taken.findLast((t) => node(run.steps[t.step]!.point) === run.stage.supply)?.value;
}

/**
 * Whether what the meter shows now is more than the plate's rating bears.
 * @param shown value of the meter on this step's kind; "over" past its range, which on a current is worse.
 * @param volts plate to cathode.
 */
export function isTooMuch(run: BiasRun, shown: number | "over" | undefined, volts: number | undefined): boolean {
  const step = stepOf(run);
  if (step?.tube === undefined || shown === undefined) return false;
  if (shown === "over") return true;
  const rated = run.stage.tubes.find((t) => t.name === step.tube)?.type.ratings?.plateWatts;
  const amps = plateAmps(run, step, shown);
  return amps !== undefined && rated !== undefined && volts !== undefined && (amps * volts) / rated > MOST_OF_RATING;
}

/**
 * The table as it was found or is left, with the rails beside what was predicted of them; undefined while no tube is read.
 * @param idle as the solver gives it for these currents: its plate volts go with the readings of both tables, so that they compare.
 */
export function tableLine(
  run: BiasRun,
  when: "before" | "after",
  { idle, target, mains }: { idle?: Pick<Idle, "tubes" | "rails">; target?: Pick<Target, "school" | "amps">; mains?: number },
): EventDraft<"bias"> | undefined {
  const { stage, way } = run;
  const read = run.steps.flatMap((s, i) => {
    const value = valueAt(run, i);
    return s.what === "read" && s.when === when && value !== undefined ? [{ s, value }] : [];
  });
  const supply = read.find((x) => run.circuit.points.find((p) => p.name === x.s.point)?.node === stage.supply)?.value;
  const { rows } = biasTable(
    stage,
    read.flatMap(({ s, value }) => (s.tube === undefined ? [] : [{ tube: s.tube, way, value: inBase(s, value) }])),
    (tube) => {
      const plate = idle?.tubes.find((t) => t.name === tube)?.plateVolts ?? supply;
      return plate === undefined ? {} : { plate };
    },
  );
  if (rows.length === 0) return undefined;
  const rails = read.flatMap(({ s, value }): BiasTaken["rails"] => {
    if (s.tube !== undefined) return [];
    const predicted = when === "after" ? idle?.rails.find((r) => r.point === s.point)?.volts : undefined;
    return [{ point: s.point, volts: value, ...(predicted === undefined ? {} : { predicted }) }];
  });
  return {
    type: "bias",
    payload: biasTaken({
      stage: stage.name,
      when,
      rows,
      rails,
      ...(target && when === "after" ? { target } : {}),
      ...(mains === undefined ? {} : { mains }),
    }),
  };
}
