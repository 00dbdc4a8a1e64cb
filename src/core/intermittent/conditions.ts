/**
 * A fault that depends on circumstances: runs with settings, and which single condition, or pair of them, explains all runs.
 * The next run is the one that leaves the fewest in the worst case; where there are few enough, that is worked out to the end.
 */

import * as texts from "../texts/intermittent";

export interface Condition {
  name: string;
  settings: readonly string[];
}

export interface Run {
  /** By condition, the setting. */
  settings: Readonly<Record<string, string>>;
  /** Whether the fault showed, and how badly. */
  bad: "none" | "some" | "bad";
}

/** One or two conditions with the setting that each must have; none: it shows whatever is set. */
export type Explanation = readonly { name: string; setting: string }[];

export interface MatrixAnswer {
  /** What explains every run, the simplest first. */
  left: Explanation[];
  ruledOut: { explanation: Explanation; by: number }[];
  /** The run that tells most; undefined when nothing is left to tell. */
  next?: { settings: Record<string, string>; showing: number; silent: number };
  /** Runs, by number from 0, that were alike and had different outcomes, or that leave no explanation. */
  contradictions: { runs: number[]; says: string }[];
  /** Runs that will do in the worst case from here; undefined where it was only estimated. */
  worst?: number;
}

/** Every single condition and every pair, and "always". */
export function explanations(conditions: readonly Condition[]): Explanation[] {
  const singles = conditions.flatMap((c) => c.settings.map((setting) => ({ name: c.name, setting })));
  const pairs = singles.flatMap((a, i) => singles.slice(i + 1).flatMap((b) => (a.name === b.name ? [] : [[a, b]])));
  return [[], ...singles.map((s) => [s]), ...pairs];
}

export const holds = (e: Explanation, settings: Readonly<Record<string, string>>) => e.every((c) => settings[c.name] === c.setting);

/** Explanations that stand for the same runs, as seen from the settings: of a condition with two settings in a pair, none do. */
export function judgeRuns(conditions: readonly Condition[], runs: readonly Run[]): MatrixAnswer {
  const all = explanations(conditions);
  const showed = (r: Run) => r.bad !== "none";
  const left: Explanation[] = [];
  const ruledOut: MatrixAnswer["ruledOut"] = [];
  for (const e of all) {
    const by = runs.findIndex((r) => holds(e, r.settings) !== showed(r));
    if (by < 0) left.push(e);
    else ruledOut.push({ explanation: e, by });
  }
  const contradictions = alikeButDifferent(conditions, runs);
  if (left.length === 0 && contradictions.length === 0)
    contradictions.push({
      runs: runs.map((_, i) => i),
      says: texts.noSingleConditionNo(),
    });
  const chosen = left.length > 1 ? bestRun(conditions, left, runs) : undefined;
  return { left, ruledOut, contradictions, ...(chosen ? { next: chosen.run, worst: chosen.worst } : {}) };
}

function alikeButDifferent(conditions: readonly Condition[], runs: readonly Run[]): MatrixAnswer["contradictions"] {
  const groups = new Map<string, number[]>();
  runs.forEach((r, i) => {
    const key = conditions.map((c) => r.settings[c.name]).join("|");
    groups.set(key, [...(groups.get(key) ?? []), i]);
  });
  return [...groups.values()]
    .filter((g) => new Set(g.map((i) => runs[i]!.bad !== "none")).size > 1)
    .map((g) => ({
      runs: g,
      says: texts.runsHadSameSettings(g.map((i) => i + 1).join(" and ")),
    }));
}

/** Settings beyond this many are drawn near the last run rather than all tried. */
const MOST_SETTINGS = 4096;
/** Up to so many explanations the plan is worked out to its end. */
const TO_THE_END = 26;
const MOST_LOOKS = 60_000;

function bestRun(
  conditions: readonly Condition[],
  left: readonly Explanation[],
  runs: readonly Run[],
): { run: NonNullable<MatrixAnswer["next"]>; worst?: number } | undefined {
  const last = runs.at(-1)?.settings;
  // Without a run yet: nearest to all at their last setting, which is how a fault is said to show.
  const moved = (s: Record<string, string>) => conditions.filter((c) => s[c.name] !== (last ? last[c.name] : c.settings.at(-1))).length;
  // Runs that part the explanations alike are one; of them the one with the fewest changes at the bench.
  const byParting = new Map<string, { settings: Record<string, string>; showing: number }>();
  for (const settings of everySetting(conditions)) {
    const parted = left.map((e) => (holds(e, settings) ? "1" : "0")).join("");
    const showing = [...parted].filter((p) => p === "1").length;
    if (showing === 0 || showing === left.length) continue;
    const there = byParting.get(parted);
    if (!there || moved(settings) < moved(there.settings)) byParting.set(parted, { settings, showing });
  }
  const partings = [...byParting].map(([parted, of]) => ({ parted, ...of }));
  if (partings.length === 0) return undefined;
  const uneven = (p: { showing: number }) => Math.abs(left.length - 2 * p.showing);
  partings.sort((a, b) => uneven(a) - uneven(b) || moved(a.settings) - moved(b.settings));
  const planned = left.length <= TO_THE_END ? planToTheEnd(partings.map((p) => p.parted)) : undefined;
  const chosen = planned ? partings.find((p) => p.parted === planned.parted)! : partings[0]!;
  return {
    run: { settings: chosen.settings, showing: chosen.showing, silent: left.length - chosen.showing },
    ...(planned ? { worst: planned.worst } : {}),
  };
}

function* everySetting(conditions: readonly Condition[], at = 0, so: Record<string, string> = {}): Generator<Record<string, string>> {
  const total = conditions.reduce((n, c) => n * c.settings.length, 1);
  if (at === conditions.length) {
    yield { ...so };
    return;
  }
  // Of very many conditions the later ones are left at their first setting.
  const options = total > MOST_SETTINGS && at > 10 ? conditions[at]!.settings.slice(0, 1) : conditions[at]!.settings;
  for (const setting of options) yield* everySetting(conditions, at + 1, { ...so, [conditions[at]!.name]: setting });
}

/** The parting whose worst case needs the fewest runs, by trying all to the end; undefined when that takes too long. */
function planToTheEnd(partings: readonly string[]): { parted: string; worst: number } | undefined {
  const masks = partings.map((p) => [...p].reduce((m, c, i) => (c === "1" ? m | (1 << i) : m), 0));
  const full = 2 ** partings[0]!.length - 1;
  const known = new Map<number, number>();
  let looks = 0;
  const count = (set: number) => {
    let n = 0;
    for (let s = set; s; s &= s - 1) n++;
    return n;
  };
  const least = (set: number) => Math.ceil(Math.log2(count(set)));
  /** Fewest runs that part the set in the worst case, up to `limit`. */
  const worstOf = (set: number, limit: number): number => {
    if (count(set) <= 1) return 0;
    const there = known.get(set);
    if (there !== undefined) return there;
    if (++looks > MOST_LOOKS) return Infinity;
    let best = Infinity;
    for (const m of masks) {
      const [a, b] = [set & m, set & ~m];
      if (a === 0 || b === 0 || 1 + Math.max(least(a), least(b)) >= Math.min(best, limit + 1)) continue;
      const most = Math.min(best, limit + 1) - 2;
      const first = worstOf(count(a) >= count(b) ? a : b, most);
      if (first > most) continue;
      best = Math.min(best, 1 + Math.max(first, worstOf(count(a) >= count(b) ? b : a, most)));
      if (best === least(set)) break;
    }
    // Explanations that no run parts are one to the bench.
    if (best === Infinity && !masks.some((m) => (set & m) !== 0 && (set & ~m) !== 0)) best = 0;
    if (best <= limit) known.set(set, best);
    return best;
  };
  for (let limit = least(full); limit <= 12; limit++) {
    for (let i = 0; i < masks.length; i++) {
      const [a, b] = [full & masks[i]!, full & ~masks[i]!];
      if (1 + Math.max(least(a), least(b)) > limit) continue;
      if (worstOf(a, limit - 1) <= limit - 1 && worstOf(b, limit - 1) <= limit - 1) return { parted: partings[i]!, worst: limit };
      if (looks > MOST_LOOKS) return undefined;
    }
  }
  return undefined;
}

/** "the long lead, together with the treble boost on". */
export function tellExplanation(e: Explanation): string {
  if (e.length === 0) return texts.showsWhateverSet();
  return e.map((c) => `${c.name} ${c.setting}`).join(" together with ");
}
