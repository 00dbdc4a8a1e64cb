/** What is known of the parts before anything is measured: what the shop replaced in other amps of the model, what this job did and saw. */

import type { Circuit } from "../circuit/circuit";
import { envelopeOf } from "../circuit/circuit";
import { badNameFactor, hasBadName, type BadName } from "../shop/bad-names";
import { isFitted, type JobState } from "../tape/fold";
import type { Fault } from "./fault";
import * as memory from "../texts/memory";
import * as texts from "../texts/suspects";
import { seriesOf } from "./series";

/** One job that something was learnt from. */
export interface Case {
  job: number;
  line: number;
  says: string;
}

/** What the shop has seen of a model, and of parts of a making, in its other jobs. */
export interface ShopHistory {
  /** Other jobs with an amp of this model. */
  jobs: number;
  /** In how many of them a part was replaced, by its position in upper case. */
  replaced: Record<string, number>;
  /** The last of those. */
  cases?: Record<string, Case[]>;
  /** Of the jobs whose complaint was like this one and is gone: how many, and what cured it, by position. */
  like?: { jobs: number; cured: Record<string, number>; cases: Record<string, Case[]> };
  /** By series of parts, in amps of any model: how many there were, and how many were replaced. */
  series?: Record<string, { had: number; failed: number; cases: Case[] }>;
  /** By test point, of amps that went home in order: volts a volt of mains, from the tenth to the ninetieth in a hundred. */
  normal?: Record<string, { low: number; middle: number; high: number; count: number; jobs: number[] }>;
  /** What tasks took here, by kind. */
  minutes?: Partial<Record<string, { minutes: number; count: number }>>;
}

export interface PartHistory {
  shop?: ShopHistory;
  /** Replaced in this job, upper case. */
  renewed: string[];
  /** Named by an open finding of the eye, with how bad it looked: 1 for "watch", 2 for worse. */
  looked: Record<string, number>;
  /** Of a kind with a bad name in this shop: how many times likelier to fail, and what they do. */
  named: Record<string, { times: number; does: string }>;
  /** Series of each part (`seriesOf`), where the file says what it is made of. */
  series: Record<string, string>;
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
  const series: PartHistory["series"] = {};
  for (const e of circuit.elements) {
    const making = seriesOf(e);
    if (making && shop?.series?.[making] && !renewed.includes(e.name)) series[e.name] = making;
    const noted = state.capacitors.filter((c) => c.part.toUpperCase() === e.name);
    const text = [e.type, e.notes.kind, e.notes.label, ...noted.flatMap((c) => [c.marking, c.kind])].filter(Boolean).join(" ");
    const year = noted.findLast((c) => c.year !== undefined)?.year ?? e.notes.year;
    const own = badNames.filter((n) => hasBadName({ letter: e.tube ? "V" : e.letter, text, year }, n));
    if (own.length > 0 && !renewed.includes(e.name)) named[e.name] = { times: badNameFactor(own), does: own.map((n) => n.does).join(", ") };
  }
  return { ...(shop ? { shop } : {}), renewed: [...new Set(renewed)], looked, named, series };
}

/** (n + 2)/(0.05·N + 2): a frequency that is pulled to the usual one as long as few were seen. Scutum's own figures. */
const pulled = (seen: number, of: number): number => (seen + OPINION) / (USUAL * of + OPINION);
/** A making fails everywhere at its own rate, but it does not say which of its parts. */
const MOST_BY_SERIES = 4;

/**
 * How many times likelier than by kind and age alone, by the parts that a fault is of. Of what was seen in this model the stronger counts:
 * that it is replaced often, or that it cured complaints like this one. A making that fails often comes on top.
 */
export function historyFactor(fault: Pick<Fault, "refs">, history: PartHistory | undefined): number {
  if (!history) return 1;
  const { shop, renewed, looked, named, series } = history;
  const own = (ref: string) => [ref.toUpperCase(), envelopeOf(ref.toUpperCase())];
  return fault.refs.reduce((factor, ref) => {
    const seen = shop ? Math.max(...own(ref).map((r) => shop.replaced[r] ?? 0)) : 0;
    const cured = shop?.like ? Math.max(...own(ref).map((r) => shop.like!.cured[r] ?? 0)) : 0;
    const known = shop ? Math.max(pulled(seen, shop.jobs), shop.like?.jobs ? pulled(cured, shop.like.jobs) : 0) : 1;
    const making = shop?.series?.[series[ref.toUpperCase()] ?? ""];
    const fails = making ? Math.min(MOST_BY_SERIES, pulled(making.failed, making.had)) : 1;
    const fresh = own(ref).some((r) => renewed.includes(r)) ? RENEWED : 1;
    const bad = Math.max(...own(ref).map((r) => named[r]?.times ?? 1));
    return factor * known * fails * fresh * bad * LOOKED[Math.max(...own(ref).map((r) => looked[r] ?? 0))]!;
  }, 1);
}

/** The jobs behind what the history says of a fault's parts, the likest first. */
export function historyCases(refs: readonly string[], { shop, series }: PartHistory): Case[] {
  const all = refs.flatMap((ref) => {
    const own = [ref.toUpperCase(), envelopeOf(ref.toUpperCase())];
    return [
      ...own.flatMap((r) => shop?.like?.cases[r] ?? []),
      ...own.flatMap((r) => shop?.cases?.[r] ?? []),
      ...(shop?.series?.[series[ref.toUpperCase()] ?? ""]?.cases ?? []),
    ];
  });
  return all.filter((c, i) => all.findIndex((d) => d.job === c.job && d.line === c.line) === i);
}

/** What the history says of a fault's parts, in words for the screen; empty where it says nothing. */
export function historyWords(refs: readonly string[], { shop, renewed, looked, named, series }: PartHistory): string {
  const words = refs.flatMap((ref) => {
    const own = [ref.toUpperCase(), envelopeOf(ref.toUpperCase())];
    const seen = Math.max(...own.map((r) => shop?.replaced[r] ?? 0));
    return [
      ...(own.some((r) => looked[r]) ? [texts.foundLook(ref)] : []),
      ...(own.some((r) => renewed.includes(r)) ? [texts.replacedJob(ref)] : []),
      ...own.slice(0, 1).flatMap((r) => (named[r] ? [texts.badNameHere(ref, named[r].does)] : [])),
      ...own.flatMap((r) => {
        const cured = shop?.like?.cured[r] ?? 0;
        return cured > 0 ? [memory.curedLike(ref, cured, shop!.like!.jobs)] : [];
      }),
      ...own.slice(0, 1).flatMap((r) => {
        const making = shop?.series?.[series[r] ?? ""];
        return making ? [memory.seriesFailed(series[r], making.failed, making.had)] : [];
      }),
      ...(seen > 0 ? [texts.replacedHereOthersModel(ref, seen, shop!.jobs)] : []),
    ];
  });
  return words.join("; ");
}
