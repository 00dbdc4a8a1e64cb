/** What is known of the parts before anything is measured: what the shop replaced in other amps of the model, what this job did and saw. */

import type { Circuit } from "../circuit/circuit";
import { envelopeOf } from "../circuit/circuit";
import { badNameFactor, hasBadName, type BadName } from "../shop/bad-names";
import { isFitted, type JobState } from "../tape/fold";
import type { Fault } from "./fault";
import * as texts from "../texts/suspects";

/** What the shop has seen of a model, in its other jobs. */
export interface ShopHistory {
  /** Other jobs with an amp of this model. */
  jobs: number;
  /** In how many of them a part was replaced, by its position in upper case. */
  replaced: Record<string, number>;
}

export interface PartHistory {
  shop?: ShopHistory;
  /** Replaced in this job, upper case. */
  renewed: string[];
  /** Named by an open finding of the eye, with how bad it looked: 1 for "watch", 2 for worse. */
  looked: Record<string, number>;
  /** Of a kind with a bad name in this shop: how many times likelier to fail, and what they do. */
  named: Record<string, { times: number; does: string }>;
}

/** Part of the jobs in which a given part is replaced when nothing is known of it, and how many jobs that opinion is worth. */
const USUAL = 0.05;
const OPINION = 2;
/** A part that was just replaced can be the wrong one, or fitted wrongly; it is seldom worn. */
const RENEWED = 0.25;
/** What the eye has found fault with, by how bad it looked. */
const LOOKED = [1, 2, 4];

/** The history of a job's parts. */
export function historyOf(
  state: Pick<JobState, "changes" | "findings" | "capacitors">,
  circuit: Circuit,
  shop?: ShopHistory,
  badNames: readonly BadName[] = [],
): PartHistory {
  const names = new Set(circuit.elements.flatMap((e) => [e.name, envelopeOf(e.name)]));
  const renewed = state.changes
    .filter(isFitted)
    .map((c) => c.position.trim().toUpperCase())
    .filter((p) => names.has(p));
  const looked: Record<string, number> = {};
  for (const f of state.findings) {
    if (f.closed !== undefined) continue;
    const bad = f.severity === "fault" || f.severity === "danger" ? 2 : f.severity === "watch" ? 1 : 0;
    // "C6", "V5, V6", "bias supply, C20": whole words of the place that are parts of this circuit.
    for (const [word] of f.place.toUpperCase().matchAll(/[A-Z]+\d+[A-D]?/g))
      if (names.has(word)) looked[word] = Math.max(looked[word] ?? 0, bad);
  }
  const named: PartHistory["named"] = {};
  for (const e of circuit.elements) {
    const noted = state.capacitors.filter((c) => c.part.toUpperCase() === e.name);
    const text = [e.type, e.notes.kind, e.notes.label, ...noted.flatMap((c) => [c.marking, c.kind])].filter(Boolean).join(" ");
    const year = noted.findLast((c) => c.year !== undefined)?.year ?? e.notes.year;
    const own = badNames.filter((n) => hasBadName({ letter: e.tube ? "V" : e.letter, text, year }, n));
    if (own.length > 0 && !renewed.includes(e.name)) named[e.name] = { times: badNameFactor(own), does: own.map((n) => n.does).join(", ") };
  }
  return { ...(shop ? { shop } : {}), renewed: [...new Set(renewed)], looked, named };
}

/**
 * How many times likelier than by kind and age alone. Of a part that the shop replaced in n of N amps: (n + 2)/(0.05·N + 2), a
 * frequency that is pulled to the usual one as long as few amps were seen. Scutum's own figures.
 */
export function historyFactor(fault: Pick<Fault, "refs">, history: PartHistory | undefined): number {
  if (!history) return 1;
  const { shop, renewed, looked, named } = history;
  const own = (ref: string) => [ref.toUpperCase(), envelopeOf(ref.toUpperCase())];
  return fault.refs.reduce((factor, ref) => {
    const seen = shop ? Math.max(...own(ref).map((r) => shop.replaced[r] ?? 0)) : 0;
    const known = shop ? (seen + OPINION) / (USUAL * shop.jobs + OPINION) : 1;
    const fresh = own(ref).some((r) => renewed.includes(r)) ? RENEWED : 1;
    const bad = Math.max(...own(ref).map((r) => named[r]?.times ?? 1));
    return factor * known * fresh * bad * LOOKED[Math.max(...own(ref).map((r) => looked[r] ?? 0))]!;
  }, 1);
}

/** What the history says of a fault's parts, in words for the screen; empty where it says nothing. */
export function historyWords(refs: readonly string[], { shop, renewed, looked, named }: PartHistory): string {
  const words = refs.flatMap((ref) => {
    const own = [ref.toUpperCase(), envelopeOf(ref.toUpperCase())];
    const seen = Math.max(...own.map((r) => shop?.replaced[r] ?? 0));
    return [
      ...(own.some((r) => looked[r]) ? [texts.foundLook(ref)] : []),
      ...(own.some((r) => renewed.includes(r)) ? [texts.replacedJob(ref)] : []),
      ...own.slice(0, 1).flatMap((r) => (named[r] ? [texts.badNameHere(ref, named[r].does)] : [])),
      ...(seen > 0 ? [texts.replacedHereOthersModel(ref, seen, shop!.jobs)] : []),
    ];
  });
  return words.join("; ");
}
