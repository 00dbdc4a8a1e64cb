/** Old cases like this one, the likest first: by what is complained of, by the words, by the pattern of readings. */

import MiniSearch from "minisearch";
import * as texts from "../texts/memory";
import { alike } from "./complaint";
import type { JobDigest } from "./digest";

export interface OldJob {
  job: number;
  amp: string;
  owner: string;
  sameModel: boolean;
  digest: JobDigest;
}

export interface OldCase {
  job: number;
  amp: string;
  complaint: string;
  cured: boolean;
  /** What cured it, in words. */
  cures: string[];
  proved: boolean;
  /** From 0 up; only its order matters. */
  score: number;
  /** What the two have in common, in words. */
  why: string[];
}

/** Scutum's own weights: a like complaint, the same words, the same pattern, the same model. */
const WEIGHT = { kinds: 3, words: 1, signs: 3, model: 0.5 };
const MOST = 10;
const LEAST = 0.6;
/** Words that say nothing of a fault. */
const IDLE = new Set(
  "a an and the it its is was of in on at to for with when then that this has have had not no but after before from my our we i".split(" "),
);

/** @param here what is known of the job in question: its own digest. */
export function similarCases(here: Pick<JobDigest, "complaint" | "kinds" | "signs">, old: readonly OldJob[]): OldCase[] {
  const index = new MiniSearch<{ id: number; words: string }>({
    fields: ["words"],
    processTerm: (t) => (IDLE.has(t.toLowerCase()) ? null : t.toLowerCase()),
  });
  index.addAll(old.map((o) => ({ id: o.job, words: o.digest.complaint })));
  const found = new Map(
    here.complaint.trim() ? index.search(here.complaint, { fuzzy: 0.15, prefix: true }).map((r) => [r.id as number, r]) : [],
  );
  const best = Math.max(1e-9, ...[...found.values()].map((r) => r.score));
  return old
    .flatMap((o): OldCase[] => {
      const { digest } = o;
      const kinds = alike(here.kinds, digest.kinds);
      const hit = found.get(o.job);
      const words = (hit?.score ?? 0) / best;
      const { same, other, share } = samePattern(here.signs, digest.signs);
      const likeness = WEIGHT.kinds * kinds + WEIGHT.words * words + WEIGHT.signs * share;
      if (likeness < LEAST) return [];
      const both = here.kinds.filter((k) => digest.kinds.includes(k));
      return [
        {
          job: o.job,
          amp: o.amp,
          complaint: digest.complaint,
          cured: digest.cured,
          cures: digest.cures.map((c) => `${c.position}: ${c.says}`),
          proved: digest.proved,
          score: likeness + (o.sameModel ? WEIGHT.model : 0) + (digest.proved ? 0.25 : 0),
          why: [
            o.sameModel ? texts.sameModel() : "",
            both.length > 0 ? texts.bothComplain(both.join(", ")) : "",
            both.length === 0 && hit ? texts.sameWords(hit.queryTerms.join(", ")) : "",
            same.length > 0 ? texts.samePoints(same.join(", ")) : "",
            other.length > 0 && same.length > 0 ? texts.otherPoints(other.join(", ")) : "",
          ].filter(Boolean),
        },
      ];
    })
    .sort((a, b) => b.score - a.score || b.job - a.job)
    .slice(0, MOST);
}

/** Points that are out the same way, less those that are out the other way, of all that are out in either. */
function samePattern(a: JobDigest["signs"], b: JobDigest["signs"]) {
  const names = [...new Set([...Object.keys(a), ...Object.keys(b)])];
  const same = names.filter((n) => a[n] && a[n] === b[n]);
  const other = names.filter((n) => a[n] && b[n] && a[n] !== b[n]);
  return { same, other, share: names.length === 0 ? 0 : Math.max(0, same.length - other.length) / names.length };
}
