/** The bias adjusters of a circuit: which tubes each moves and how, in which order they are set, what balance does. */

import { alter } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import { channelsOf, chainOf, withUnlikePairs } from "../noise/chain";
import { humAt } from "../signal/response";
import { magnitude, SmallSignal } from "../solver/small-signal";
import { solveIdle, type Idle } from "./idle";
import { outputStages, type OutputStage } from "./output-stage";

export interface Adjuster {
  name: string;
  label: string;
  position: number;
  role: "level" | "balance" | "one tube";
  /** Stages whose tubes it moves; more than one where channels share it. */
  stages: string[];
  /** Amperes that each tube gains for a tenth of the turn towards 1. */
  effect: { tube: string; amps: number }[];
}

/** A twentieth of the track either way is tried from where the adjuster stands. */
const TRIED = 0.05;
/** Tubes that move by less than this part of the one that moves most are not moved. */
const MOVED = 0.15;

/** Every control that moves an output tube's idle, in the order in which they are set. */
export function adjustersOf(circuit: Circuit, mains?: number): Adjuster[] {
  const stages = outputStages(circuit);
  const pots = circuit.elements.filter((e) => e.type === "POT");
  const found = pots.flatMap((pot): Adjuster[] => {
    const position = typeof pot.params.pos === "number" ? pot.params.pos : 0.5;
    const [from, to] = [Math.max(0, position - TRIED), Math.min(1, position + TRIED)];
    const at = (p: number): Idle | undefined => {
      try {
        return solveIdle(alter(circuit, [`${pot.name}=${p}`]), mains).idle;
      } catch (error) {
        if (error instanceof RangeError) return undefined;
        throw error;
      }
    };
    const [low, high] = [at(from), at(to)];
    if (!low || !high) return [];
    const effect = high.tubes.map((t, i) => ({ tube: t.name, amps: ((t.plate - low.tubes[i]!.plate) * 0.1) / (to - from) }));
    const most = Math.max(0, ...effect.map((e) => Math.abs(e.amps)));
    const idle = Math.max(...high.tubes.map((t) => t.plate), 1e-4);
    // A volume control moves nothing at idle but what the solver rounds.
    if (most < 0.01 * idle) return [];
    const moved = effect.filter((e) => Math.abs(e.amps) > MOVED * most);
    const signs = new Set(moved.map((e) => Math.sign(e.amps)));
    return [
      {
        name: pot.name,
        label: pot.notes.label ?? pot.name,
        position,
        role: signs.size > 1 ? "balance" : moved.length === 1 && stages.some((s) => s.tubes.length > 1) ? "one tube" : "level",
        stages: stages.filter((s) => s.tubes.some((t) => moved.some((m) => m.tube === t.name))).map((s) => s.name),
        effect: moved,
      },
    ];
  });
  const order = { level: 0, "one tube": 1, balance: 2 };
  // What several channels share comes first: it moves what the others have set.
  return found.sort((a, b) => b.stages.length - a.stages.length || order[a.role] - order[b.role]);
}

export type BalanceBy = "equal current" | "injected hum" | "speaker hum";

export interface Balance {
  by: BalanceBy;
  position: number;
  /** What is nulled, at that position and where the adjuster stands now: amperes, or volts at the speaker. */
  there: number;
  now: number;
}

const TRIES = 21;

/** Where a balance adjuster stands best by each of the three ways; the ways differ where the tubes' gains do. */
export function balanceOf(circuit: Circuit, stage: OutputStage, adjuster: Adjuster, by: BalanceBy, mains?: number): Balance {
  const chain = chainOf(circuit);
  const amp = by === "speaker hum" ? withUnlikePairs(circuit, { ...chain, stages: channelsOf(chain).flatMap((c) => c.stages) }) : circuit;
  const error = (position: number): number => {
    const { idle, op } = solveIdle(alter(amp, [`${adjuster.name}=${position}`]), mains);
    if (by === "equal current") {
      const half = (h: 0 | 1) =>
        stage.tubes.filter((t) => t.half === h).reduce((sum, t) => sum + idle.tubes.find((i) => i.name === t.name)!.plate, 0);
      return Math.abs(half(0) - half(1));
    }
    const out = op.network.index.get(stage.speaker)!;
    if (by === "speaker hum") return humAt(op, out);
    // The same small volts at every grid of the stage: what comes out is what the halves do not do alike.
    const signal = new SmallSignal(op);
    const grids = [...new Set(stage.tubes.map((t) => t.grid))];
    const sum = grids.reduce(
      (total, g) => {
        const here = op.network.index.get(g)!;
        const v = signal.drive(here, 1, 100)[out]!;
        return { re: total.re + v.re, im: total.im + v.im };
      },
      { re: 0, im: 0 },
    );
    return magnitude(sum);
  };
  let best = { position: adjuster.position, value: error(adjuster.position) };
  const now = best.value;
  for (const step of [1 / (TRIES - 1), 0.1 / (TRIES - 1)]) {
    const centre = best.position;
    for (let i = 0; i < TRIES; i++) {
      const position = step === 1 / (TRIES - 1) ? i * step : centre + (i - (TRIES - 1) / 2) * step;
      if (position < 0 || position > 1) continue;
      const value = error(position);
      if (value < best.value) best = { position, value };
    }
  }
  return { by, position: best.position, there: best.value, now };
}
