/** The isolation solved: what each cause would make of each test, what the answers leave, which test splits the rest best. */

import { ENOUGH } from "./evidence";
import * as texts from "../texts/diagnosis";

/** What a table of causes and tests has to say: of a blown fuse, of a noise. */
export interface ProcedureTable {
  readonly causes: readonly { id: string; says: string; refs: string[]; prior: number }[];
  readonly tests: readonly { id: string; what: string; outcomes: readonly string[]; cost: number }[];
  /** Probability of an outcome of a test under a cause; 1 for an outcome that says nothing. */
  chance(test: string, cause: number, outcome: string): number;
  /** Ohms of a sound amp at a resistance test. */
  soundOhms(test: string): number | undefined;
  /** Outcomes that every test takes besides its own. */
  readonly anyway?: readonly string[];
}

export interface Answer {
  test: string;
  outcome: string;
}

export interface CauseLeft {
  id: string;
  says: string;
  refs: string[];
  probability: number;
}

/** One step of the proof. */
export interface ProofLine {
  test: string;
  what: string;
  outcome: string;
  /** Causes that this step made less than a twentieth as likely as the best one left. */
  ruledOut: string[];
  left: string[];
}

export interface NextTest {
  id: string;
  what: string;
  outcomes: readonly string[];
  bits: number;
  cost: number;
  /** What each outcome would leave, in words. */
  why: string;
  /** Ohms of a sound amp there, for a resistance. */
  expectedOhms?: number;
}

export interface Isolation {
  causes: CauseLeft[];
  proof: ProofLine[];
  next: NextTest[];
  /** Set once one cause holds enough. */
  found?: CauseLeft;
  /** Tests whose answers the likeliest cause does not explain: to be done once more before the result is believed. */
  recheck: { id: string; what: string; outcomes: readonly string[]; expectedOhms?: number }[];
  /** Two or more such answers: no single cause explains them together. */
  doubtful: boolean;
}

/** The cause of a blown fuse that leaves nothing to find: it was tired. */
export const NOTHING_SHORTED = "nothing-now";
/** Below this chance an answer is not explained. */
const UNEXPLAINED = 0.08;
/** With no test left that tells more, so much is enough. */
export const ENOUGH_AT_END = 0.7;
/** Below this part of the best one left a cause is ruled out. */
const GONE = 0.05;

/**
 * Weighs the answers; the order is that of the bench. A test that was answered again counts as last answered.
 * @param priors weight of each cause before any answer, where other evidence has moved it.
 */
export function isolate(table: ProcedureTable, answers: readonly Answer[], priors = table.causes.map((c) => c.prior)): Isolation {
  const { causes, tests } = table;
  const anyway = table.anyway ?? [];
  const valid = answers.filter((a) => tests.some((t) => t.id === a.test && [...t.outcomes, ...anyway].includes(a.outcome)));
  const known = valid.filter((a, i) => !valid.slice(i + 1).some((later) => later.test === a.test));
  const sum = priors.reduce((s, p) => s + p, 0);
  let weights = priors.map((p) => p / sum);
  const proof: ProofLine[] = [];
  for (const { test, outcome } of known) {
    const before = weights;
    const next = weights.map((w, i) => w * table.chance(test, i, outcome));
    const total = next.reduce((s, w) => s + w, 0);
    weights = next.map((w) => w / total);
    const best = Math.max(...weights);
    const gone = (w: readonly number[], i: number) => w[i]! < GONE * Math.max(...w);
    proof.push({
      test,
      what: tests.find((t) => t.id === test)!.what,
      outcome,
      ruledOut: causes.flatMap((c, i) => (gone(weights, i) && !gone(before, i) ? [c.says] : [])),
      left: causes
        .map((c, i) => ({ c, w: weights[i]! }))
        .filter(({ w }) => w >= GONE * best)
        .sort((x, y) => y.w - x.w)
        .map(({ c }) => c.says),
    });
  }
  const ranked = causes
    .map((c, i): CauseLeft => ({ id: c.id, says: c.says, refs: c.refs, probability: weights[i]! }))
    .sort((a, b) => b.probability - a.probability);
  const first = causes.findIndex((c) => c.id === ranked[0]!.id);
  const recheck = known.flatMap(({ test, outcome }) => {
    const again = valid.filter((a) => a.test === test).length > 1;
    if (again || table.chance(test, first, outcome) >= UNEXPLAINED) return [];
    const { id, what, outcomes } = tests.find((t) => t.id === test)!;
    return [{ id, what, outcomes, expectedOhms: table.soundOhms(id) }];
  });
  const next = tests
    .filter((t) => !known.some((a) => a.test === t.id))
    .map((t): NextTest => {
      const bits = gain(table, t, weights);
      return {
        id: t.id,
        what: t.what,
        outcomes: t.outcomes,
        bits,
        cost: t.cost,
        why: splits(table, t, weights),
        expectedOhms: table.soundOhms(t.id),
      };
    })
    .filter((t) => t.bits > 0.01)
    .sort((a, b) => b.bits / b.cost - a.bits / a.cost);
  // With no test left that tells more, the best that is left is the answer, if it stands well above the rest.
  const enough = next.length === 0 ? ENOUGH_AT_END : ENOUGH;
  const found = ranked[0]!.probability >= enough ? ranked[0] : undefined;
  return { causes: ranked, proof, next, found, recheck, doubtful: recheck.length > 1 };
}

function gain(table: ProcedureTable, test: ProcedureTable["tests"][number], weights: readonly number[]): number {
  let bits = entropy(weights);
  const after = new Array<number>(weights.length);
  for (const outcome of test.outcomes) {
    let p = 0;
    for (let i = 0; i < weights.length; i++) {
      // What is as good as ruled out tells nothing more.
      after[i] = weights[i]! < 1e-6 ? 0 : weights[i]! * table.chance(test.id, i, outcome);
      p += after[i]!;
    }
    if (p < 1e-9) continue;
    for (let i = 0; i < after.length; i++) after[i]! /= p;
    bits -= p * entropy(after);
  }
  return bits;
}

function entropy(w: readonly number[]): number {
  let sum = 0;
  for (const p of w) if (p > 1e-12) sum -= p * Math.log2(p);
  return sum;
}

/** What each answer would speak for, among the likeliest causes: “bright” points to …; “dark” to …. */
function splits(table: ProcedureTable, test: ProcedureTable["tests"][number], weights: readonly number[]): string {
  const top = weights
    .map((w, i) => ({ w, i }))
    .sort((a, b) => b.w - a.w)
    .slice(0, 6)
    .filter(({ w }) => w > 0.02);
  const groups = new Map<string, string[]>();
  for (const { i } of top) {
    const likely = test.outcomes.reduce((a, b) => (table.chance(test.id, i, b) > table.chance(test.id, i, a) ? b : a));
    const cause = table.causes[i]!;
    groups.set(likely, [
      ...(groups.get(likely) ?? []),
      cause.id === NOTHING_SHORTED ? texts.nothingShorted() : cause.refs.join(", ") || cause.id,
    ]);
  }
  return [...groups].map(([outcome, who], i) => texts.answerPointsTo(outcome, [...new Set(who)].join(", "), i === 0)).join("; ");
}
