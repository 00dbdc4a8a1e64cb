/** What a job's tape says of its noise: the answers to the tests since the amp was last changed, and ripple that was read on the rails. */

import type { Circuit } from "../circuit/circuit";
import { ampAsItIs } from "../tape/amp-as-it-is";
import type { JobState } from "../tape/fold";
import { pointNamed } from "../diagnosis/evidence";
import type { Answer } from "../diagnosis/isolate";
import { chainOf } from "./chain";

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
