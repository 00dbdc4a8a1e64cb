/** The same SQL on a PostgreSQL server, where the machine has one: a cluster of its own, thrown away after. */

import { readFileSync } from "node:fs";
import { randomUUID } from "node:crypto";
import { exportJob } from "./archive";
import { storePhoto } from "./attachments";
import { board, search } from "./board";
import { addPerson, personBy } from "./door/people";
import { openDatabase } from "./db";
import type { Database } from "./database";
import { freshShopFolder } from "./fresh-folder-for-tests";
import { live } from "./live";
import { addModel } from "./models";
import { postgresPossible, startCluster, type Cluster } from "./postgres-for-tests";
import { moveShop } from "./move-shop";
import { getSettings, saveSettings } from "./settings";
import type { IncomingEvent } from "./incoming";
import { rebuildSummaries } from "./summaries";
import { append, openJob } from "./tape";
import { getJob, readTape } from "./tape-read";

(postgresPossible ? describe : describe.skip)("on a PostgreSQL server", () => {
  let cluster: Cluster;
  let local: Database;
  let server: Database;
  let address: string;

  beforeAll(async () => {
    cluster = await startCluster();
    address = cluster.url;
    server = await openDatabase("unused", address);
    local = await openDatabase(await freshShopFolder(), undefined);
  });
  afterAll(async () => {
    await server?.close();
    await local?.close();
    cluster.stop();
  });

  const reading = (value: number, more: object = {}): IncomingEvent =>
    ({ type: "reading", payload: { point: "B1", kind: "dcv", value, conditions: { mains: 231 } }, who: "J.M.", ...more }) as IncomingEvent;

  test("a job made on the server is the same job in a folder, byte for byte", async () => {
    const model = await addModel(server, readFileSync("demo/amps/wren-5.cir", "utf8"));
    const { id } = await server.transaction((sql) =>
      openJob(sql, { owner: "Osric Venn", amp: "Wren 5", serial: "B9", modelId: model.id, who: "J.M." }),
    );
    await append(server, id, [
      { type: "job-opened", payload: { owner: "Osric Venn", amp: "Wren 5" }, who: "J.M." },
      reading(281),
      { type: "power", payload: { state: "on", through: "variable" }, who: "J.M." },
    ]);
    // Twelve benches at once: every line has its own place.
    await Promise.all(Array.from({ length: 12 }, (_, i) => append(server, id, [reading(300 + i)])));
    await expect(append(server, id, [reading(1, { supersedes: 99 })])).rejects.toThrow(/not on this tape/);
    expect((await readTape(server, id)).map((e) => e.seq)).toEqual(Array.from({ length: 15 }, (_, i) => i + 1));
    await expect(server.query("delete from events")).rejects.toThrow(/append-only/);

    const archive = await exportJob(server, id);
    const sameModel = await addModel(local, readFileSync("demo/amps/wren-5.cir", "utf8"));
    const { uid } = await getJob(server, id);
    await local.transaction((sql) =>
      openJob(sql, { id, uid, owner: "Osric Venn", amp: "Wren 5", serial: "B9", modelId: sameModel.id, who: "J.M." }),
    );
    await append(local, id, (await readTape(server, id)) as IncomingEvent[]);
    expect(Buffer.compare(Buffer.from(await exportJob(local, id)), Buffer.from(archive))).toBe(0);
    expect(await board(server)).toEqual(await board(local));
    expect(await search(server, "osric wren")).toEqual(await search(local, "osric wren"));
    expect((await board(server)).jobs[0]).toMatchObject({ energy: "live", readings: 13 });
    const before = await board(server);
    expect(await rebuildSummaries(server)).toEqual({ jobs: 1, unreadable: [] });
    expect(await board(server)).toEqual(before);
  });

  test("a line that one process stores is told to the screens of another; the tables are changed by one at a time", async () => {
    const head = await server.transaction((sql) => openJob(sql, { owner: "Osric Venn", amp: "Drover 40", who: "J.M." }));
    const told = new Promise<void>((resolve) => {
      // Both processes are this one here: what the database says comes back by its own connection.
      const leave = live().watch(head.id, () => (leave(), resolve()));
    });
    await append(server, head.id, [{ type: "job-opened", payload: { owner: "Osric Venn", amp: "Drover 40" }, who: "J.M." }]);
    await told;

    const order: string[] = [];
    const step = (name: string) => async () => {
      order.push(`${name} begins`);
      await new Promise((resolve) => setTimeout(resolve, 50));
      order.push(`${name} ends`);
    };
    const other = await openDatabase("unused", address);
    await Promise.all([server.alone(step("one")), other.alone(step("two"))]);
    expect(order.map((o) => o.split(" ")[1])).toEqual(["begins", "ends", "begins", "ends"]);
    await other.close();
  });

  test("connections that the server ends are made anew; lines that were acknowledged are there, none twice", async () => {
    const head = await server.transaction((sql) => openJob(sql, { owner: "Osric Venn", amp: "Wren 5", who: "J.M." }));
    const other = await openDatabase("unused", address);
    const stored: string[] = [];
    for (let i = 0; i < 30; i++) {
      const id = randomUUID();
      const line: IncomingEvent = { id, type: "note", payload: { text: `note ${i}` }, who: "J.M." };
      if (i % 7 === 3)
        await other
          .query("select pg_terminate_backend(pid) from pg_stat_activity where pid <> pg_backend_pid() and usename = 'scutum'")
          .catch(() => []);
      // As a browser does: sent again until it is answered.
      for (let tries = 0; ; tries++) {
        const done = await append(server, head.id, [line]).then(
          () => true,
          (error: { status?: number }) => {
            if (error.status !== 503 || tries > 20) throw error;
            return false;
          },
        );
        if (done) break;
      }
      stored.push(id);
    }
    expect((await readTape(server, head.id)).map((e) => e.id)).toEqual(stored);
    await other.close();
  });

  test("a shop moves from a folder to the server and back: the same archives, byte for byte; never onto a shop that has jobs", async () => {
    const home = await openDatabase(await freshShopFolder(), undefined);
    const model = await addModel(home, readFileSync("demo/amps/wren-5.cir", "utf8"));
    const stored = await home.transaction((sql) => storePhoto(sql, readFileSync("tests/e2e/front.png")));
    for (const owner of ["Osric Venn", "Mrs. Tilda Marrowby"]) {
      const { id } = await home.transaction((sql) => openJob(sql, { owner, amp: "Wren 5", modelId: model.id, who: "J.M." }));
      await append(home, id, [
        { type: "job-opened", payload: { owner, amp: "Wren 5" }, who: "J.M." },
        { type: "photo", payload: { hash: stored.hash, caption: "underside", station: "look" }, who: "J.M." },
        reading(275.4),
      ]);
    }
    await addPerson(home, { initials: "J.M.", name: "Jonas Mell", role: "owner", passphrase: "the lathe hums at night" });
    await saveSettings(home, { ...(await getSettings(home)), shopName: "Saltmarsh Lane" });

    await server.query("create database moved");
    const away = await openDatabase("unused", address.replace(/postgres$/, "moved"));
    const compared: number[] = [];
    expect(await moveShop(home, away, (job) => compared.push(job))).toMatchObject({ jobs: 2, lines: 6, attachments: 1 });
    expect(compared).toEqual([1001, 1002]);
    expect((await getSettings(away)).shopName).toBe("Saltmarsh Lane");
    expect(await personBy(away, "J.M.", "the lathe hums at night")).toMatchObject({ role: "owner" });
    // Numbers go on where they were.
    expect(await addPerson(away, { initials: "R.T.", name: "R. T.", role: "technician", passphrase: "coffee in the field" })).toMatchObject(
      { id: 2 },
    );
    await append(away, 1001, [reading(281)]);
    await expect(moveShop(home, away)).rejects.toMatchObject({ status: 409 });

    const back = await openDatabase(await freshShopFolder(), undefined);
    expect(await moveShop(away, back)).toMatchObject({ jobs: 2, lines: 7 });
    expect((await readTape(back, 1001)).map((e) => e.at)).toEqual((await readTape(away, 1001)).map((e) => e.at));
    for (const shop of [home, away, back]) await shop.close();
  });
});
