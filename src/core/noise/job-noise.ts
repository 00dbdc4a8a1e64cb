/** What a job's tape says of its noise: the answers to the tests since the amp was last changed, and ripple that was read on the rails. */

import type { Circuit } from "../circuit/circuit";
import { ampAsItIs } from "../job/amp-as-it-is";
import type { JobState } from "../job/fold";
import { pointNamed } from "../suspects/evidence";
import type { Answer } from "../suspects/isolate";
import { chainOf } from "./chain";
import type { Run } from "./conditions";

export interface RailReading {
  node: string;
  volts: number;
  mains?: number;
}

export interface JobNoise {
  answers: Answer[];
  rails: RailReading[];
}

/** Behind a lamp or with tubes out a rail's ripple is another one: it says nothing here. */
export function noiseOf(state: JobState, circuit: Circuit): JobNoise {
  const { counts } = ampAsItIs(state);
  const chain = chainOf(circuit);
  const nodes = new Set([...chain.rails, ...chain.bias].map((r) => r.node));
  const rails = state.readings.flatMap((r): RailReading[] => {
    if (r.kind !== "acv" || !counts(r.seq) || r.conditions.limiter || r.conditions.without?.length) return [];
    const point = pointNamed(circuit, r.point);
    const node = circuit.points.find((p) => p.name === point)?.node ?? r.point.toLowerCase();
    return nodes.has(node) ? [{ node, volts: Math.abs(r.value), mains: r.conditions.mains }] : [];
  });
  return { answers: state.noiseTests.filter((t) => counts(t.seq)).map(({ test, outcome }) => ({ test, outcome })), rails };
}

/** The runs under conditions of the amp as it is, with the lines that they stand on. */
export function runsOf(state: JobState): (Run & { seq: number })[] {
  const { counts } = ampAsItIs(state);
  return state.conditionsRuns.filter((r) => counts(r.seq)).map(runOf);
}

/** A run as the matrix takes it. */
export function runOf({ seq, settings, bad }: JobState["conditionsRuns"][number]): Run & { seq: number } {
  return { seq, settings: Object.fromEntries(settings.map((s) => [s.name, s.setting])), bad };
}
