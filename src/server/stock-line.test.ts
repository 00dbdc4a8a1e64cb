/** A line that takes a part out of the shop's stock, and the drawer: one act. */

import { randomUUID } from "node:crypto";
import type { Database } from "./database";
import { freshShop } from "./fresh-shop-for-tests";
import type { IncomingEvent } from "./incoming";
import { addStockPart, stockParts } from "./stock-parts";
import { append, openJob } from "./tape";
import { readTape } from "./tape-read";

let shop: Database;
let job: number;
let part: number;
beforeAll(async () => {
  shop = await freshShop();
  ({ id: job } = await shop.transaction((sql) => openJob(sql, { owner: "Osric Venn", amp: "Wren 5", who: "J.M." })));
  part = await addStockPart(shop, { letter: "C", value: 22e-9, rating: 630, kind: "film", pieces: 2 }, "J.M.");
});
afterAll(() => shop.close());

const pieces = async () => (await stockParts(shop)).find((p) => p.number === part)!.pieces;
const change = (more: object = {}, id = randomUUID()): IncomingEvent =>
  ({
    id,
    type: "change",
    who: "J.M.",
    payload: { position: "C6", kind: "replacement", newPart: "22 nF", reversible: true, source: "stock", stock: part, ...more },
  }) as IncomingEvent;

test("a line that is sent twice takes one piece", async () => {
  const line = change();
  await append(shop, job, [line]);
  expect(await pieces()).toBe(1);
  await append(shop, job, [line]);
  expect(await pieces()).toBe(1);
});

test("a line that is refused takes none; a line that finds none is refused", async () => {
  const before = (await readTape(shop, job)).length;
  await expect(append(shop, job, [change(), { type: "undo", payload: {}, who: "J.M.", supersedes: 99 }])).rejects.toMatchObject({
    status: 422,
  });
  expect(await pieces()).toBe(1);
  await expect(append(shop, job, [change({ pieces: 5 })])).rejects.toMatchObject({ status: 409 });
  expect((await readTape(shop, job)).length).toBe(before);
  expect(await pieces()).toBe(1);
});

test("struck, the piece is back; restored, it is gone again; corrected to another number of pieces, the rest is", async () => {
  const [line] = await append(shop, job, [change()]);
  expect(await pieces()).toBe(0);
  const [undone] = await append(shop, job, [{ type: "undo", payload: {}, who: "J.M.", supersedes: line!.seq, reason: "wrong drawer" }]);
  expect(await pieces()).toBe(1);
  await append(shop, job, [{ type: "undo", payload: {}, who: "J.M.", supersedes: undone!.seq, reason: "the right one" }]);
  expect(await pieces()).toBe(0);
  await append(shop, job, [{ ...change({ pieces: 0 }), supersedes: line!.seq, reason: "from the owner" }]);
  expect(await pieces()).toBe(1);
});
