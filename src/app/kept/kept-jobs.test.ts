import "fake-indexeddb/auto";
import { DEFAULT_SETTINGS } from "@/core/shop/settings";
import { tape } from "@/core/tape/tape-for-tests";
import { forgetKeptJobs, keepJob, keepTape, keptJob, keptJobs, type JobData } from "./kept-jobs";

const lines = tape([0, { type: "note", payload: { text: "one" } }], [10, { type: "note", payload: { text: "two" } }]);
const job = (jobId: number, minutesAhead = 0): JobData => ({
  jobId,
  events: lines.slice(0, 1),
  settings: DEFAULT_SETTINGS,
  who: "J.M.",
  serverNow: new Date(Date.now() + minutesAhead * 60_000).toISOString(),
});
beforeEach(forgetKeptJobs);

test("a job is kept with its tape, and by the server's clock", async () => {
  await keepJob(job(3, 60));
  const kept = (await keptJob(3))!;
  expect(kept.events).toEqual(lines.slice(0, 1));
  expect(kept.offset / 60_000).toBeCloseTo(60, 1);
  await keepTape(3, lines);
  const later = (await keptJob(3))!;
  expect(later.events).toEqual(lines);
  expect((Date.parse(later.keptAt) - Date.now()) / 60_000).toBeCloseTo(60, 1);
});

test("a page that has seen less does not take away what another has kept; what is not kept is not begun by a line", async () => {
  await keepJob({ ...job(3), events: lines });
  await keepTape(3, lines.slice(0, 1));
  expect((await keptJob(3))!.events).toHaveLength(2);
  await keepTape(4, lines);
  expect(await keptJob(4)).toBeUndefined();
  expect((await keptJobs()).map((k) => k.jobId)).toEqual([3]);
  // The server gave a shorter tape: a backup was restored.
  await keepJob(job(3));
  expect((await keptJob(3))!.events).toHaveLength(1);
});

test("the newest twelve are kept, and none after signing out", async () => {
  for (let i = 1; i <= 15; i++) await keepJob(job(i, i));
  expect((await keptJobs()).map((k) => k.jobId)).toEqual([15, 14, 13, 12, 11, 10, 9, 8, 7, 6, 5, 4]);
  await forgetKeptJobs();
  expect(await keptJobs()).toEqual([]);
});
