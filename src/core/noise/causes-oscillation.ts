/** Causes of oscillation: feedback the wrong way round, leads, stoppers, parasitics. */

import type { Circuit } from "../circuit/circuit";
import type { NoiseCause } from "./cause";
import { feedbackOf, type Chain } from "./chain";
import { first, GONE, grid, signal, SQUEAL } from "./typical";
import * as texts from "../texts/noise";

export function oscillationCauses(circuit: Circuit, chain: Chain): NoiseCause[] {
  const out: NoiseCause[] = [];
  const last = chain.stages.filter((s) => s.output);
  const driver = signal(chain).at(-1);
  const fed = feedbackOf(circuit, chain);
  if (fed && driver)
    out.push({
      id: "feedback reversed",
      says: texts.feedbackThroughComesBack(fed),
      refs: [fed],
      prior: 2.5,
      sounds: { squeal: 0.85, motorboating: 0.15 },
      changes: [],
      enters: [{ into: driver.in, at: "high" }],
      reacts: { [`feedback:${fed}`]: GONE },
    });
  for (const s of signal(chain))
    out.push({
      id: `${s.name} lead dress`,
      says: texts.leadsLieTooNear(s.name),
      refs: [s.envelope],
      prior: s === first(chain) ? 2.5 : 1.2,
      sounds: SQUEAL,
      changes: [],
      enters: [{ into: grid(s), at: "high" }],
      reacts: { stick: -16, foil: -8, pullOutput: GONE },
    });
  if (last.length > 0 && driver) {
    out.push({
      id: "stopper",
      says: texts.gridScreenStopperOutput(),
      refs: last.map((s) => s.envelope),
      prior: 2,
      sounds: { squeal: 0.5, "bursts on peaks": 0.5 },
      changes: [],
      enters: last.map((s) => ({ into: grid(s), at: "high" as const })),
      reacts: { stopper: GONE, stick: -3 },
    });
    out.push({
      id: "parasitic",
      says: texts.outputStageDriverOscillates(),
      refs: [...new Set([driver.envelope, ...last.map((s) => s.envelope)])],
      prior: 2,
      sounds: { "bursts on peaks": 0.8, squeal: 0.2 },
      changes: [],
      enters: last.map((s) => ({ into: grid(s), at: "high" as const })),
      reacts: { stopper: -9, ...(fed ? { [`feedback:${fed}`]: -3 } : {}), stick: -6 },
    });
  }
  return out;
}
