/** A shop with 2,000 jobs and 200,000 readings, for measuring the board and the search. */

import "reflect-metadata";
import { readFileSync } from "node:fs";
import { randomUUID } from "node:crypto";
import type { JobEvent } from "@/core/tape/events/event";
import { openDatabase } from "@/server/db";
import { addModel } from "@/server/models";
import { writeSummary } from "@/server/summaries";
import { insert, openJob } from "@/server/tape";

const OWNERS = [
  "Mrs. Tilda Marrowby",
  "Ferry Dance Orchestra",
  "Osric Venn",
  "Captain Isolde Rusk",
  "Netmakers' Hall committee",
  "The Lamplight Picture House",
];
const NOTES = [
  "hum drops with V2 out",
  "crackle when the board is flexed",
  "quiet after forty minutes",
  "smells of warm wax",
  "microphonic input tube",
  "fuse held at 230 V",
];
const POINTS = ["B1", "B2", "B3", "V2.k", "V2.p", "V2.s", "V2.g", "V1A.p", "V1A.k", "V1B.p"];

const database = await openDatabase();
const model = await addModel(database, readFileSync("demo/amps/wren-5.cir", "utf8"));
const begin = Date.parse("2024-01-08T09:00:00Z");
for (let batch = 0; batch < 2000; batch += 50) {
  await database.transaction(async (sql) => {
    for (let n = batch; n < batch + 50; n++) {
      const owner = `${OWNERS[n % OWNERS.length]!}${n < OWNERS.length ? "" : ` ${n}`}`;
      const head = await openJob(sql, { id: 1001 + n, owner, amp: "Wren 5", serial: `B${3000 + n}`, modelId: model.id, who: "J.M." });
      const events: JobEvent[] = [];
      const log = (type: JobEvent["type"], payload: object) =>
        events.push({
          seq: events.length + 1,
          id: randomUUID(),
          at: new Date(begin + n * 3.6e6 + events.length * 20_000).toISOString(),
          who: "J.M.",
          type,
          payload,
        } as JobEvent);
      log("job-opened", { owner, amp: "Wren 5" });
      log("complaint", { words: `It hums and it is number ${n}`, when: ["always"] });
      for (let i = 0; i < 100; i++)
        log("reading", {
          point: POINTS[i % POINTS.length],
          kind: "dcv",
          value: 100 + ((n * 7 + i * 13) % 250),
          conditions: { mains: 230 },
        });
      for (let i = 0; i < 4; i++) log("note", { text: `${NOTES[(n + i) % NOTES.length]}, job ${n}` });
      log("change", {
        position: "C6",
        kind: "replacement",
        newPart: `22 nF ${n % 3 === 0 ? 630 : 400} V film`,
        reason: "leaky",
        reversible: true,
      });
      if (n % 4) log("returned", { to: owner, oldPartsHanded: true });
      await insert(sql, head.id, events);
      await writeSummary(sql, head.id, events);
    }
  });
}
await database.close();
