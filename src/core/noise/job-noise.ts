/** What a job's tape says of its noise: the answers to the tests since the amp was last changed, and ripple that was read on the rails. */

import type { Circuit } from "../circuit/circuit";
import type { JobState } from "../job/fold";
import { pointNamed } from "../suspects/evidence";
import type { Answer } from "../suspects/isolate";
import { chainOf } from "./chain";

export interface RailReading {
  node: string;
  volts: number;
  mains?: number;
}

export interface JobNoise {
  answers: Answer[];
  rails: RailReading[];
  /** Line of the last change: what was heard before it was another amp. */
  since?: number;
}

/** An experiment that was put back leaves the amp as it was. */
export function noiseOf(state: JobState, circuit: Circuit): JobNoise {
  const changed = state.changes.findLast((c) => c.kind !== "experiment" || c.outcome === "kept")?.seq ?? 0;
  const nodes = new Map([...chainOf(circuit).rails, ...chainOf(circuit).bias].map((r) => [r.node, r]));
  const rails = state.readings.flatMap((r): RailReading[] => {
    const point = r.kind === "acv" && r.seq > changed && !r.conditions.limiter ? pointNamed(circuit, r.point) : undefined;
    const node = circuit.points.find((p) => p.name === point)?.node ?? r.point.toLowerCase();
    if (r.kind !== "acv" || r.seq <= changed || !nodes.has(node)) return [];
    return [{ node, volts: Math.abs(r.value), mains: r.conditions.mains }];
  });
  return {
    answers: state.noiseTests.filter((t) => t.seq > changed).map(({ test, outcome }) => ({ test, outcome })),
    rails,
    ...(changed ? { since: changed } : {}),
  };
}
