/** What the screens ask about an output stage, each in one call: the amp first with its tubes as strong as they were read. */

import { alter } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import { adjustersOf, balanceOf, type Adjuster, type Balance, type BalanceBy } from "./adjusters";
import { biasRange, partsForRange, wiperGuard, type BiasRange, type PartChange, type WiperGuard } from "./bias-range";
import { runBlocking, USUAL_DRIVE, type BlockingRun } from "./blocking";
import { remediesOf, type Remedy } from "./remedies";
import { fitPosition, fitStrengths, positionForAim, solveIdle, type Idle } from "./idle";
import { idleFrames, type Frames } from "./idle-frames";
import { outputStages, type OutputStage } from "./output-stage";
import { targetsOf, type Target, type TargetFacts } from "./targets";
import { playAtClip, toneAmp } from "./tone";
import { unequalTubes, type Unequal } from "./unequal";
import * as texts from "../texts/output";

export interface AskedOf {
  /** Name of the stage's transformer. */
  stage: string;
  mains?: number;
  /** Plate amperes that were read, by tube. */
  read?: Record<string, number>;
  /** Volts to chassis that were read at output grids, by node. */
  grids?: Record<string, number>;
}

interface Ready {
  circuit: Circuit;
  stage: OutputStage;
  idle: Idle;
  strengths: Record<string, number>;
  unlike: string[];
}

/** The amp as it was read. @throws RangeError for a stage that is not there, or where nothing settles. */
function readied(circuit: Circuit, { stage: name, mains, read = {}, grids = {} }: AskedOf): Ready {
  const stage = outputStages(circuit).find((s) => s.name === name);
  if (!stage) throw new RangeError(texts.noStage(name));
  const plate = new Map(Object.entries(read).filter(([, amps]) => amps > 0));
  const there = new Map(Object.entries(grids).filter(([node]) => stage.tubes.some((t) => t.grid === node)));
  const level =
    plate.size + there.size > 0 ? adjustersOf(circuit, mains).find((a) => a.role === "level" && a.stages.includes(name)) : undefined;
  const position = level && fitPosition(circuit, level.name, plate, there, mains);
  const turned = level && position !== undefined ? alter(circuit, [`${level.name}=${position}`]) : circuit;
  if (plate.size === 0) return { circuit: turned, stage, idle: solveIdle(turned, mains).idle, strengths: {}, unlike: [] };
  const fitted = fitStrengths(turned, plate, mains);
  return { circuit: fitted.circuit, stage, idle: fitted.idle, strengths: Object.fromEntries(fitted.strengths), unlike: fitted.unlike };
}

/** The amp and the stage for a question that needs no more. */
export function stageWith(circuit: Circuit, ask: AskedOf): Pick<Ready, "circuit" | "stage"> {
  return readied(circuit, ask);
}

export interface BiasAnswer {
  /** As the circuit gives it with the tubes as they were read. */
  idle: Idle;
  strengths: Record<string, number>;
  /** Tubes whose reading no strength explains. */
  unlike: string[];
  targets: Target[];
  adjusters: Adjuster[];
}

export function answerBias(circuit: Circuit, ask: AskedOf & { facts: TargetFacts }): BiasAnswer {
  const { circuit: amp, stage, idle, strengths, unlike } = readied(circuit, ask);
  return { idle, strengths, unlike, targets: targetsOf(amp, stage, ask.facts, ask.mains), adjusters: adjustersOf(amp, ask.mains) };
}

export interface AimAnswer {
  /** Where the adjuster has to stand, and the rails and currents there; undefined where its track does not reach. */
  position?: number;
  idle?: Idle;
  /** Amperes that the ends of the track give. */
  reaches?: [number, number];
  range: BiasRange;
  parts: PartChange[];
  guard?: WiperGuard;
}

/** What an adjuster can do for a wanted plate current. */
export function answerAim(circuit: Circuit, ask: AskedOf & { adjuster: string; amps: number }): AimAnswer {
  const { circuit: amp, stage } = readied(circuit, ask);
  const names = stage.tubes.map((t) => t.name);
  const found = positionForAim(amp, ask.adjuster, names, { amps: ask.amps }, ask.mains);
  const range = biasRange(amp, ask.adjuster, names, ask.amps, ask.mains);
  const guard = (range.open?.ofRating ?? Infinity) > 1 ? wiperGuard(amp, ask.adjuster, names, ask.mains) : undefined;
  return {
    ...("position" in found ? { position: found.position, idle: found.idle } : { reaches: found.reaches }),
    range,
    parts:
      "position" in found && found.position > 0.15 && found.position < 0.85
        ? []
        : partsForRange(amp, ask.adjuster, names, ask.amps, ask.mains),
    ...(guard ? { guard } : {}),
  };
}

export function answerBalance(circuit: Circuit, ask: AskedOf & { adjuster: string; by: BalanceBy }): Balance {
  const { circuit: amp, stage } = readied(circuit, ask);
  const adjuster = adjustersOf(amp, ask.mains).find((a) => a.name === ask.adjuster);
  if (!adjuster) throw new RangeError(texts.noAdjuster(ask.adjuster));
  return balanceOf(amp, stage, adjuster, ask.by, ask.mains);
}

export function answerUnequal(circuit: Circuit, ask: AskedOf, progress?: (part: number) => void): Unequal {
  const { circuit: amp, stage } = readied(circuit, ask);
  return unequalTubes(amp, stage, ask.mains, progress);
}

export function answerFrames(
  circuit: Circuit,
  ask: AskedOf & { low: number; high: number; count: number; watts: number },
  progress?: (part: number) => boolean | void,
): Frames {
  const { circuit: amp, stage } = readied(circuit, ask);
  return idleFrames(amp, stage, ask, progress);
}

export interface ClipAnswer {
  watts: number;
  /** Volts peak at the input. */
  peak: number;
  load: number;
  first: "top" | "bottom" | "both";
  /** Tubes of the half that is cut first; empty where both are. */
  tubes: string[];
  wave: number[];
  distortion: number;
}

/** Power at clip, and the half that goes first: the one whose plates are low in that half of the wave. */
export function answerClip(circuit: Circuit, ask: AskedOf, progress?: (part: number) => void): ClipAnswer {
  const { circuit: amp, stage } = readied(circuit, ask);
  const tone = toneAmp(amp, stage, ask.mains);
  const { watts, peak, first, wave, figures } = playAtClip(tone, progress ? { progress } : {});
  // The load follows the first plate: where it is high that plate is high, and the other half carries the current.
  const half = first === "bottom" ? 0 : 1;
  const tubes = first === "both" || stage.single ? [] : stage.tubes.filter((t) => t.half === half).map((t) => t.name);
  return { watts, peak, load: tone.load, first, tubes, wave, distortion: figures.distortion };
}

export interface BlockingAnswer {
  run: BlockingRun;
  /** Volts peak at the input at clip, and as driven. */
  clip: number;
  peak: number;
}

/** @param ask.times drive in parts of that at clip. */
export function answerBlocking(
  circuit: Circuit,
  ask: AskedOf & { times?: number; set?: string[] },
  progress?: (part: number) => boolean | void,
): BlockingAnswer {
  const { circuit: amp, stage } = readied(circuit, ask);
  const clip = playAtClip(toneAmp(amp, stage, ask.mains), { progress: (p) => void progress?.(0.4 * p) }).peak;
  const peak = clip * (ask.times ?? USUAL_DRIVE);
  return { clip, peak, run: runBlocking(amp, stage, { peak, mains: ask.mains }, (p) => progress?.(0.4 + 0.6 * p)) };
}

/** Drives, in times that at clip, that are tried for a grid's shift. */
const DRIVES = [0.7, 1, 1.4, 2, 2.8, 4, 5.6, 8, 11];

/**
 * The least drive, in times that at clip, at which the model's grid shifts as far as the one that was read. One half of an unbalanced stage
 * may shift less again when it is driven harder, so that drives are tried upwards.
 * @param ask.shift volts under drive less those at rest, below zero. @returns undefined where no drive that is tried gives it.
 */
export function answerDrive(
  circuit: Circuit,
  ask: AskedOf & { tube: string; shift: number },
  progress?: (part: number) => boolean | void,
): { times: number; shift: number } | undefined {
  const { circuit: amp, stage } = readied(circuit, ask);
  const clip = playAtClip(toneAmp(amp, stage, ask.mains)).peak;
  const grid = stage.tubes.find((t) => t.name === ask.tube)?.grid;
  const at = (times: number) => {
    const { grids } = runBlocking(amp, stage, { peak: clip * times, mains: ask.mains, watch: 0.02 });
    const own = grids.find((g) => stage.tubes.find((t) => t.name === g.tube)?.grid === grid) ?? grids[0]!;
    return own.shifted - own.rest;
  };
  let before: { times: number; shift: number } | undefined;
  for (const [i, times] of DRIVES.entries()) {
    if (progress?.(i / DRIVES.length) === false) return undefined;
    const here = { times, shift: at(times) };
    if (before && before.shift > ask.shift && here.shift <= ask.shift) {
      const part = (ask.shift - before.shift) / (here.shift - before.shift);
      const between = before.times * (here.times / before.times) ** part;
      return { times: between, shift: at(between) };
    }
    before = here;
  }
  return undefined;
}

export function answerRemedies(circuit: Circuit, ask: AskedOf & { peak: number }, progress?: (part: number) => boolean | void): Remedy[] {
  const { circuit: amp, stage } = readied(circuit, ask);
  return remediesOf(amp, stage, { peak: ask.peak, mains: ask.mains }, progress);
}
