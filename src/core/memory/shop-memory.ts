/** What the shop knows of a model and of its parts from other jobs. */

import { median, quantileSorted } from "d3-array";
import type { Case, ShopHistory } from "../suspects/history";
import type { TaskKind, TimeTaken } from "../repair/usual-minutes";
import { alike, LIKE } from "./complaint";
import type { JobDigest, RememberedPart } from "./digest";

export interface RememberedJob {
  job: number;
  /** Whether its amp is of the model in question, in any version. */
  sameModel: boolean;
  digest: JobDigest;
}

/** The most cases that are kept of one thing: the count goes on. */
const MOST_CASES = 12;

/**
 * @param jobs the shop's other jobs.
 * @param here complaint of the job in question, by its kinds.
 */
export function shopMemory(jobs: readonly RememberedJob[], here: readonly string[]): ShopHistory {
  const own = jobs.filter((j) => j.sameModel);
  const like = own.filter((j) => j.digest.cured && alike(j.digest.kinds, here) >= LIKE);
  const replaced = byPosition(own, (d) => d.replaced);
  const cured = byPosition(like, (d) => d.cures);
  const series: NonNullable<ShopHistory["series"]> = {};
  for (const { job, digest } of jobs) {
    for (const [name, count] of Object.entries(digest.had)) (series[name] ??= { had: 0, failed: 0, cases: [] }).had += count;
    for (const p of digest.replaced) {
      if (!p.series) continue;
      const s = (series[p.series] ??= { had: 0, failed: 0, cases: [] });
      s.failed++;
      if (s.cases.length < MOST_CASES) s.cases.push(caseOf(job, p));
    }
  }
  return {
    jobs: own.length,
    replaced: counted(replaced),
    cases: lastOf(replaced),
    like: { jobs: like.length, cured: counted(cured), cases: lastOf(cured) },
    series: Object.fromEntries(Object.entries(series).filter(([, s]) => s.failed > 0)),
    normal: normalOf(own),
    minutes: minutesOf(jobs),
  };
}

const counted = (cases: Record<string, Case[]>): Record<string, number> =>
  Object.fromEntries(Object.entries(cases).map(([position, c]) => [position, c.length]));
const lastOf = (cases: Record<string, Case[]>): Record<string, Case[]> =>
  Object.fromEntries(Object.entries(cases).map(([position, c]) => [position, c.slice(-MOST_CASES)]));

const caseOf = (job: number, p: RememberedPart): Case => ({ job, line: p.line, says: `${p.position}: ${p.says}` });

/** One case a job and position, by position in the order of the alphabet. */
function byPosition(jobs: readonly RememberedJob[], of: (d: JobDigest) => readonly RememberedPart[]): Record<string, Case[]> {
  const out: Record<string, Case[]> = {};
  for (const { job, digest } of jobs)
    for (const position of new Set(of(digest).map((p) => p.position)))
      (out[position] ??= []).push(
        caseOf(
          job,
          of(digest).find((p) => p.position === position)!,
        ),
      );
  return Object.fromEntries(Object.entries(out).sort(([a], [b]) => (a < b ? -1 : 1)));
}

/** Volts a volt of mains of the amps that went home in order: their middle, and where most of them lie. */
function normalOf(jobs: readonly RememberedJob[]): NonNullable<ShopHistory["normal"]> {
  const ratios: Record<string, { job: number; ratio: number }[]> = {};
  for (const { job, digest } of jobs)
    for (const [point, { volts, mains }] of Object.entries(digest.normal)) (ratios[point] ??= []).push({ job, ratio: volts / mains });
  return Object.fromEntries(
    Object.entries(ratios).map(([point, seen]) => {
      const sorted = seen.map((s) => s.ratio).sort((a, b) => a - b);
      const at = (q: number) => quantileSorted(sorted, q)!;
      return [point, { low: at(0.1), middle: at(0.5), high: at(0.9), count: seen.length, jobs: seen.slice(-MOST_CASES).map((s) => s.job) }];
    }),
  );
}

function minutesOf(jobs: readonly RememberedJob[]): Partial<Record<TaskKind, TimeTaken>> {
  const all: Partial<Record<TaskKind, number[]>> = {};
  for (const { digest } of jobs)
    for (const [kind, minutes] of Object.entries(digest.minutes) as [TaskKind, number[]][]) (all[kind] ??= []).push(...minutes);
  return Object.fromEntries(Object.entries(all).map(([kind, m]) => [kind, { minutes: Math.round(median(m)!), count: m.length }]));
}

/** What is normal at a point here today, from the amps of the model that went home; undefined where none did. @param mains volts now */
export function normalHere(memory: Pick<ShopHistory, "normal"> | undefined, point: string, mains: number | undefined) {
  const seen = memory?.normal?.[point];
  if (!seen || mains === undefined) return undefined;
  const { low, middle, high, count, jobs } = seen;
  const [a, b] = [low * mains, high * mains].sort((x, y) => x - y);
  return { volts: middle * mains, low: a!, high: b!, count, jobs };
}

/** What the shop knows of one model, to be read in its library. */
export interface ModelMemory {
  history: ShopHistory;
  /** Jobs with a complaint, the last first. */
  jobs: { job: number; complaint: string; cured: boolean; proved: boolean; cures: string[]; worked: number }[];
  /** Median minutes of the jobs whose time was kept. */
  minutes?: number;
}

/** @param jobs all of the shop; `sameModel` says which are of the model. */
export function modelMemory(jobs: readonly RememberedJob[]): ModelMemory {
  const own = jobs.filter((j) => j.sameModel);
  const worked = own.map((j) => j.digest.worked).filter((m) => m > 0);
  return {
    history: shopMemory(jobs, []),
    jobs: own
      .map(({ job, digest: d }) => ({
        job,
        complaint: d.complaint,
        cured: d.cured,
        proved: d.proved,
        cures: d.cures.map((c) => `${c.position}: ${c.says}`),
        worked: d.worked,
      }))
      .sort((a, b) => b.job - a.job),
    ...(worked.length > 0 ? { minutes: Math.round(median(worked)!) } : {}),
  };
}
