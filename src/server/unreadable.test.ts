/** Lines that an older program took and that do not pass the checks of today: found, told, left out, and no page or export breaks by them. */

import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import { energyOf } from "@/core/job/job-view";
import { reportBlocks } from "@/core/papers/report-blocks";
import { tellEvent } from "@/core/tape/tell";
import { foldJob } from "@/core/tape/fold";
import { exportJob, importJob } from "./archive";
import { readingsToCsv } from "./csv";
import type { Database } from "./database";
import { freshShop } from "./fresh-shop-for-tests";
import type { IncomingEvent } from "./incoming";
import { parseJson } from "./json";
import { addModel } from "./models";
import { reportOf, viewOf, wholeJob } from "./shop";
import { refreshSummaries } from "./summaries";
import { append, openJob } from "./tape";
import { readTape } from "./tape-read";

let shop: Database;
beforeAll(async () => void (shop = await freshShop()));
afterAll(() => shop.close());

const OLD: [type: string, payload: object][] = [
  ["reading", { point: "B1", kind: "dcv", value: 275 }],
  ["observation", { name: "V1 cold" }],
  ["brief", { order: [], dueDate: "9999-99-99" }],
  ["photo", { hash: "0".repeat(64), caption: "gone", station: "look" }],
  ["recording", { hash: "1".repeat(64) }],
  ["mains-current", { volts: "much" }],
  ["finding-closed", { finding: 1, how: "x" }],
  ["no-longer-known", { a: 1 }],
  ["waiting", { on: "part", until: "2026-02-31" }],
  ["note", { text: "\u202e ok" }],
];
const say = (type: string, payload: object, more: object = {}) => ({ type, payload, who: "J.M.", ...more }) as IncomingEvent;

async function oldJob(): Promise<number> {
  const model = await addModel(shop, readFileSync("demo/amps/wren-5.cir", "utf8"));
  const { id } = await shop.transaction((sql) => openJob(sql, { owner: "Osric Venn", amp: "Wren 5", modelId: model.id, who: "J.M." }));
  await append(shop, id, [say("job-opened", { owner: "Osric Venn", amp: "Wren 5" })]);
  for (const [i, [type, payload]] of OLD.entries())
    await shop.query("insert into events (job_id, seq, id, at, who, type, payload) values ($1, $2, $3, now(), 'J.M.', $4, $5::jsonb)", [
      id,
      i + 2,
      randomUUID(),
      type,
      JSON.stringify(payload),
    ]);
  await shop.query("update job_summaries set made_by = 0 where job_id = $1", [id]);
  return id;
}

test("an older program's lines are found at the start; every reader of the job goes on; they can be undone and travel in archives", async () => {
  const id = await oldJob();
  const made = await refreshSummaries(shop);
  expect(made.unreadable.map((l) => l.seq)).toEqual([2, 3, 4, 5, 6, 7, 8, 9, 10]);
  expect(made.unreadable[0]!.why).toMatch(/^conditions: /);
  expect(made.unreadable[3]!.why).toMatch(/photo that is stored here is wanted; 00000000… is not stored/);
  expect(await refreshSummaries(shop)).toEqual({ jobs: 0, unreadable: [] });

  const tape = await readTape(shop, id);
  expect(tape.map((e) => e.type).filter((t) => t === "unreadable")).toHaveLength(9);
  expect(tellEvent(tape[1]!)).toMatch(/This line \(reading\) cannot be understood and counts for nothing: conditions/);
  const job = await wholeJob(shop, id);
  expect(foldJob(job.events)).toMatchObject({ readings: [], photos: [], findings: [], recordings: [] });
  expect(foldJob(job.events).brief).toBeUndefined();
  expect(reportBlocks(reportOf(job)).length).toBeGreaterThan(1);
  expect(readingsToCsv(job.events).trim().split("\r\n")).toHaveLength(1);

  await append(shop, id, [say("undo", {}, { supersedes: 2 }), say("reading", { point: "B1", kind: "dcv", value: 275, conditions: {} })]);
  expect(foldJob(await readTape(shop, id)).readings).toHaveLength(1);
  await expect(append(shop, id, [say("note", { text: "instead" }, { supersedes: 3 })])).rejects.toMatchObject({ status: 422 });

  const archive = await exportJob(shop, id);
  const other = await freshShop();
  const there = await importJob(other, archive);
  expect((await readTape(other, there.id)).slice(0, -1)).toEqual(await readTape(shop, id));
  await other.close();
});

test("after a line about power that cannot be understood nothing is proven dead any longer", async () => {
  const { id } = await shop.transaction((sql) => openJob(sql, { owner: "Osric Venn", amp: "no circuit", who: "J.M." }));
  const minute = (n: number) => new Date(Date.UTC(2026, 2, 2, 9, n)).toISOString();
  const read = (n: number, volts: number) => say("discharge-reading", { reservoir: "C1", volts }, { at: minute(n) });
  const meter = (n: number) => say("meter-check", { source: "9 V battery", expected: 9, read: 9 }, { at: minute(n) });
  await append(shop, id, [
    say("job-opened", { owner: "Osric Venn", amp: "no circuit" }, { at: minute(0) }),
    say("reservoir", { name: "C1", farads: 1e-5, volts: 0 }, { at: minute(1) }),
    say("power", { state: "off", plug: "out" }, { at: minute(2) }),
    meter(3),
    read(4, 0.2),
    read(6, 0.1),
    meter(7),
  ]);
  const now = Date.parse(minute(8));
  expect(energyOf(viewOf(await wholeJob(shop, id), now), now).kind).toBe("proven-dead");
  await shop.query(
    `insert into events (job_id, seq, id, at, who, type, payload) values ($1, 8, $2, $3, 'J.M.', 'power', '{"state":"onn"}')`,
    [id, randomUUID(), minute(7)],
  );
  await shop.query("update job_summaries set made_by = 0 where job_id = $1", [id]);
  await refreshSummaries(shop);
  expect(energyOf(viewOf(await wholeJob(shop, id), now), now).kind).toBe("unknown");
});

test.each([
  ["none", "[1,2", /is not JSON; it starts "\[1,2"/],
  ["too deep", "[".repeat(5000) + "]".repeat(5000), /nested more than 12 deep/],
  ["a key that changes objects", '{"__proto__":{"a":1}}', /a field named "__proto__"/],
  ["another such key, deeper", '{"a":{"constructor":1}}', /a field named "constructor"/],
  ["a NUL", '["a\\u0000b"]', /control character/],
  ["half a surrogate pair", '["\\ud800"]', /half a character/],
])("JSON from outside: %s", (_, text, message) => expect(() => parseJson(text)).toThrow(message));
