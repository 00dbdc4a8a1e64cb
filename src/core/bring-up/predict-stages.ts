/** The stages of a bring-up solved: mains current with its corridor, volts of what is watched, the lamp, controls between their ends. */

import { fixed } from "../language/language";
import { alter, without } from "../circuit/alter";
import type { Circuit, TestPoint } from "../circuit/circuit";
import { LAMPS, type LampAdvice, type LampState, type StagePrediction, type StageStep } from "./corridor";
import { ampsAtRating } from "./over-rating";
import { stagesOf, type BringUpStage, type StageOptions } from "./stages";
import { behindLamp, madeFor, mainsDraw, type DrawOptions } from "../solver/mains-draw";
import { operatingPoint, readings, tubesAtWork, type OperatingPoint } from "../solver/operating-point";
import * as texts from "../texts/bring-up";

/** Spread of amps of one model: magnetising volt-amperes from half to twice the usual, rectified current by a tenth. */
const LEAST_MAGNETISING = 0.06;
const MOST_MAGNETISING = 0.24;
const SPREAD = 0.1;
/** A winding gives this much more without its load. Usual regulation of small mains transformers. */
const UNLOADED = 1.06;

export interface BringUpPrediction {
  stages: StagePrediction[];
  lamps: LampAdvice[];
  /** Working current at the wall's volts, all tubes in. */
  fullAmps?: number;
  fullVoltAmperes?: number;
}

/**
 * @param wall volts. @param lamp watts of a series lamp, 0 for none.
 * @param progress told how far it is, 0 to 1.
 */
export function predictBringUp(
  circuit: Circuit,
  wall: number,
  lamp = 0,
  options: StageOptions = {},
  progress?: (part: number) => void,
): BringUpPrediction {
  const stages = stagesOf(circuit, options).filter((s) => s.powered);
  const rated = circuit.mains;
  const draw: DrawOptions = { madeFor: rated && madeFor(circuit) };
  const out: StagePrediction[] = stages.map((stage, i) => {
    const amp = without(circuit, stage.without);
    const steps = stage.steps.map((part) => stepOf(amp, circuit, stage, part * wall, draw));
    progress?.((i + 1) / (stages.length + 2));
    return {
      stage: stage.id,
      steps: steps.flatMap((s) => s ?? []),
      lamp: lamp > 0 && rated ? lampState(amp, lamp, wall, draw) : undefined,
      converged: steps.every((s) => s !== undefined),
    };
  });
  const lamps = rated ? lampsFor(circuit, wall) : [];
  progress?.(1);
  const op = rated ? operatingPoint(circuit, { mains: wall }) : undefined;
  const full = op?.converged ? mainsDraw(op) : undefined;
  return { stages: out, lamps, fullAmps: full?.amps, fullVoltAmperes: full?.voltAmperes };
}

function stepOf(amp: Circuit, circuit: Circuit, stage: BringUpStage, mains: number, draw: DrawOptions): StageStep | undefined {
  const op = operatingPoint(amp, { mains: circuit.mains ? mains : undefined });
  if (!op.converged) return undefined;
  const current = circuit.mains ? corridorOf(op, draw) : { amps: 0, low: 0, high: 0 };
  const over = circuit.mains ? ampsAtRating(amp, mains, draw) : Infinity;
  const there = stage.watch.filter((w) => w.node !== undefined && op.network.index.has(w.node));
  const points = there.map((w): TestPoint => ({ name: w.point, node: w.node!, order: 0, label: w.label, line: 0 }));
  const volts: Record<string, number> = Object.fromEntries(readings(op, points));
  for (const w of stage.watch)
    if (w.windingVolts !== undefined) volts[w.point] = w.windingVolts * (mains / (circuit.mains?.volts ?? mains)) * UNLOADED;
  return { mains, ...current, ...(Number.isFinite(over) ? { over } : {}), volts };
}

function corridorOf(op: OperatingPoint, draw: DrawOptions): { amps: number; low: number; high: number } {
  return {
    amps: mainsDraw(op, draw).amps,
    low: mainsDraw(op, { ...draw, magnetising: LEAST_MAGNETISING }).amps * (1 - SPREAD),
    high: mainsDraw(op, { ...draw, magnetising: MOST_MAGNETISING }).amps * (1 + SPREAD),
  };
}

function lampState(amp: Circuit, watts: number, wall: number, draw: DrawOptions): LampState {
  const b = behindLamp(amp, { watts, volts: wall }, wall, draw);
  return { watts, ampVolts: b.ampVolts, amps: b.amps, glow: b.glow };
}

function lampsFor(circuit: Circuit, wall: number): LampAdvice[] {
  return LAMPS.map((watts) => {
    const b = behindLamp(circuit, { watts, volts: wall }, wall);
    return { watts, share: b.ampVolts / wall, glow: b.glow };
  });
}

/** A control or switch that must not be moved with the power on, and what happens between its positions. */
export interface LiveMove {
  control: string;
  label: string;
  /** A switch is not moved at all; a control may have to be, slowly, on a track that was found sound. */
  kind: "switch" | "control";
  /** What goes wrong between, in words. */
  why: string;
}

/** More than this times its plate rating, or this much above where it stands, and a tube is at risk. */
const OVER_RATING = 1.2;
const OVER_IDLE = 1.5;

/**
 * Every switch between its positions and every control with its wiper lifted, solved: which of them leave a tube without bias or a
 * screen floating.
 */
export function movesNotLive(circuit: Circuit, wall: number): LiveMove[] {
  const at = (amp: Circuit) => operatingPoint(amp, { mains: circuit.mains ? wall : undefined });
  const rest = at(circuit);
  if (!rest.converged) return [];
  const idle = tubesAtWork(rest);
  const out: LiveMove[] = [];
  for (const e of circuit.elements) {
    const between =
      e.type === "SW2"
        ? ["open"]
        : e.type === "SW"
          ? [e.params.state === "open" ? "closed" : "open"]
          : e.type === "POT"
            ? ["wiper-open"]
            : [];
    for (const state of between) {
      const op = at(alter(circuit, [`${e.name}=${state}`]));
      const move = { control: e.name, label: e.notes.label ?? "", kind: e.type === "POT" ? ("control" as const) : ("switch" as const) };
      if (!op.converged) {
        out.push({ ...move, why: texts.betweenPositionsAmpComes() });
        continue;
      }
      const worst = [...tubesAtWork(op)].flatMap(([name, work]) => {
        const before = idle.get(name)!;
        const rated = circuit.elements.find((x) => x.name === name)?.tube?.ratings;
        if (!rated || rated.plateWatts < 5) return [];
        const over = work.plateWatts > OVER_RATING * rated.plateWatts && work.plateWatts > OVER_IDLE * before.plateWatts;
        const screen =
          work.screenWatts !== undefined &&
          rated.screenWatts !== undefined &&
          work.screenWatts > OVER_RATING * rated.screenWatts &&
          work.screenWatts > OVER_IDLE * (before.screenWatts ?? 0);
        const floats = op.undetermined.some((n) => circuit.elements.find((x) => x.name === name)!.nodes.includes(n));
        return over
          ? [texts.risesFrom(name, fixed(before.plateWatts, 0), fixed(work.plateWatts, 0))]
          : screen
            ? [texts.screenRises(name, fixed(work.screenWatts!, 1))]
            : floats
              ? [texts.electrodeHangsNothing(name)]
              : [];
      });
      if (worst.length > 0)
        out.push({
          ...move,
          why: `${e.type === "POT" ? texts.wiperOffTrack() : texts.betweenPositions()} ${worst.slice(0, 2).join(", ")}`,
        });
    }
  }
  return out;
}
