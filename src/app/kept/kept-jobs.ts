/**
 * The jobs that this browser keeps, so that a bench goes on without the server: each as it last stood here, with its tape. In the browser's
 * own database; forgotten when somebody signs out.
 */

import { createStore, del, entries, set, update, get, clear, type UseStore } from "idb-keyval";
import type { JobProviderProps } from "@/ui/job/job-context";

/** What the pages of a job are drawn from. */
export type JobData = Omit<
  JobProviderProps,
  "port" | "solver" | "output" | "capacitors" | "stock" | "parts" | "instruments" | "sounds" | "drawings" | "children" | "keptAt"
>;

export interface KeptJob extends Omit<JobData, "serverNow"> {
  /** When the server was last in touch, by its clock, ISO. */
  keptAt: string;
  /** Milliseconds to add to this device's clock to get the server's. */
  offset: number;
}

/** The newest so many are kept. */
const MOST_KEPT = 12;

// Made at the first use: on the server there is no such database.
let store: UseStore | undefined;
const jobs = () => (store ??= createStore("scutum-kept", "jobs"));

/** Keeps a job as the server gave it, and lets the oldest go. @throws DOMException where storage is full or forbidden. */
export async function keepJob(data: JobData): Promise<void> {
  const { serverNow, ...rest } = data;
  await set(data.jobId, { ...rest, keptAt: serverNow, offset: Date.parse(serverNow) - Date.now() } satisfies KeptJob, jobs());
  const kept = await keptJobs();
  for (const old of kept.slice(MOST_KEPT)) await del(old.jobId, jobs());
}

/** The server was in touch with the tape as it is now; nothing where the job is not kept, or where another page has kept more of it. */
export async function keepTape(jobId: number, events: KeptJob["events"]): Promise<void> {
  await update<KeptJob | undefined>(
    jobId,
    (kept) =>
      kept && kept.events.length <= events.length ? { ...kept, events, keptAt: new Date(Date.now() + kept.offset).toISOString() } : kept,
    jobs(),
  );
}

export const keptJob = (jobId: number): Promise<KeptJob | undefined> => get<KeptJob>(jobId, jobs());

/** All that are kept, the newest first. */
export async function keptJobs(): Promise<KeptJob[]> {
  const all = await entries<number, KeptJob | undefined>(jobs());
  return all.flatMap(([, job]) => job ?? []).sort((a, b) => (a.keptAt < b.keptAt ? 1 : -1));
}

/** Nothing of the shop stays here, but for lines that are not sent yet: those are lost nowhere else. */
export async function forgetKeptJobs(): Promise<void> {
  await clear(jobs());
}
