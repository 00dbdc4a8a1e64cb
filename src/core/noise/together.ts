/** One list from both kinds of evidence: what was measured, and how the noise answered the tests. */

import type { NoiseTable } from "./noise-table";
import { NOT_SURE } from "./test";
import { ENOUGH } from "../diagnosis/evidence";
import { ENOUGH_AT_END, isolate, type Answer, type Isolation } from "../diagnosis/isolate";
import type { Ranking } from "../suspects/rank";
import * as texts from "../texts/noise";

export interface JointSuspect {
  id: string;
  says: string;
  refs: string[];
  probability: number;
  /** Answers and readings that speak for it and against it. */
  explains: string[];
  against: string[];
}

export interface Joint {
  isolation: Isolation;
  suspects: JointSuspect[];
  /** Set once one part, or one cause without a part, holds enough: how a capacitor has failed is of no matter to who replaces it. */
  found?: { says: string; refs: string[]; probability: number };
}

/** Readings move a cause by this factor at most: they may be of another day. */
const MOST_MOVED = 1e4;
/** An answer is explained from this chance on, and contradicted below that one. */
const EXPLAINS = 0.5;
const CONTRADICTS = 0.1;
/** A fault that makes no noise answers a test in any way; so much less likely than one that makes this noise. */
const UNRELATED = 0.5;
const MOST_SHOWN = 25;

/** @param ranking of the readings, where there are any. */
export function together(table: NoiseTable, answers: readonly Answer[], ranking?: Ranking): Joint {
  const weighed = ranking?.posterior.weighed ?? [];
  const healthy = weighed.find((w) => w.fault.refs.length === 0)?.marginal;
  const factor = (fault: string | undefined) => {
    const at = fault === undefined ? undefined : weighed.find((w) => w.fault.name === fault)?.marginal;
    if (at === undefined || healthy === undefined) return 1;
    return Math.min(MOST_MOVED, Math.max(1 / MOST_MOVED, Math.exp(at - healthy)));
  };
  const priors = table.causes.map((c) => c.prior * factor(c.fault));
  const isolation = isolate(table, answers, priors);
  const known = isolation.proof;
  const says = (a: { test: string; outcome: string }) => `${table.tests.find((t) => t.id === a.test)!.what}: ${a.outcome}`;

  // Faults that only the readings know of: they stand against all that make a noise.
  const named = new Set(table.causes.flatMap((c) => c.fault ?? []));
  const others = (ranking?.suspects ?? []).filter((s) => s.refs.length > 0 && !named.has(s.fault));
  const outside = others.reduce((sum, s) => sum + s.probability, 0);
  const total = priors.reduce((a, b) => a + b, 0);
  const answered = known.filter((p) => p.outcome !== NOT_SURE);
  const fits = table.causes.reduce(
    (sum, _, i) => sum + (priors[i]! / total) * answered.reduce((p, a) => p * table.chance(a.test, i, a.outcome), 1),
    0,
  );
  const unrelated = answered.reduce((p, a) => p * (UNRELATED / table.tests.find((t) => t.id === a.test)!.outcomes.length), 1);
  const share = outside > 0 ? (outside * unrelated) / (outside * unrelated + (1 - outside) * fits) : 0;

  const suspects = isolation.causes.map((c): JointSuspect => {
    const at = table.causes.findIndex((x) => x.id === c.id);
    const read = ranking?.suspects.find((s) => s.fault === table.causes[at]!.fault);
    const chance = (a: { test: string; outcome: string }) => table.chance(a.test, at, a.outcome);
    return {
      id: c.id,
      says: c.says,
      refs: c.refs,
      probability: c.probability * (1 - share),
      explains: [...answered.filter((a) => chance(a) >= EXPLAINS).map(says), ...(read?.explains ?? [])],
      against: [...answered.filter((a) => chance(a) < CONTRADICTS).map(says), ...(read?.against ?? [])],
    };
  });
  for (const s of others)
    suspects.push({
      id: s.fault,
      says: s.fault,
      refs: s.refs,
      probability: (share * s.probability) / outside,
      explains: s.explains,
      against: [...s.against, ...(answered.length > 0 ? [texts.makesNoSuchNoise()] : [])],
    });
  suspects.sort((a, b) => b.probability - a.probability);
  const top = suspects[0]!;
  const alike = suspects.filter((s) => s === top || (s.refs.length > 0 && s.refs.join() === top.refs.join()));
  const probability = alike.reduce((sum, s) => sum + s.probability, 0);
  const enough = isolation.next.length === 0 ? ENOUGH_AT_END : ENOUGH;
  return {
    isolation,
    suspects: suspects.slice(0, MOST_SHOWN),
    ...(probability >= enough ? { found: { says: top.says, refs: top.refs, probability } } : {}),
  };
}
