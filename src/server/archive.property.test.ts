/** An archive that was damaged anywhere is refused with the reason, and nothing of it is in the shop. */

import { readFileSync } from "node:fs";
import fc from "fast-check";
import "@/fixed-draws-for-tests";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { exportJob, importJob } from "./archive";
import type { Database } from "./database";
import { freshShop } from "./fresh-shop-for-tests";
import { UserError } from "./errors";
import { addModel } from "./models";
import { append, openJob } from "./tape";
import { readTape } from "./tape-read";

let from: Database;
let to: Database;
let whole: Uint8Array;
beforeAll(async () => {
  [from, to] = [await freshShop(), await freshShop()];
  const model = await addModel(from, readFileSync("demo/amps/wren-5.cir", "utf8"));
  const { id } = await from.transaction((sql) => openJob(sql, { owner: "Osric Venn", amp: "Wren 5", modelId: model.id, who: "J.M." }));
  await append(
    from,
    id,
    Array.from(
      { length: 12 },
      (_, i) =>
        ({ type: "reading", who: "J.M.", payload: { point: "B1", kind: "dcv", value: 270 + i, conditions: { mains: 230 } } }) as const,
    ),
  );
  whole = await exportJob(from, id);
});
afterAll(async () => {
  await from.close();
  await to.close();
});
const count = async () => (await to.query<{ n: number }>("select count(*)::int as n from jobs"))[0]!.n;
/** A job that got in is taken out again, so that the next case starts alike. */
const refused = async (bytes: Uint8Array): Promise<string | undefined> => {
  const before = await count();
  try {
    await importJob(to, bytes);
    return undefined;
  } catch (error) {
    expect(error).toBeInstanceOf(UserError);
    expect((error as UserError).status).toBeLessThan(500);
    expect(await count()).toBe(before);
    return (error as Error).message;
  }
};

test("bytes changed, cut or added: refused in words", async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.integer({ min: 0, max: 99 }),
      fc.integer({ min: 1, max: 255 }),
      fc.constantFrom("change", "cut", "add"),
      async (part, by, how) => {
        const at = Math.floor((part / 100) * whole.length);
        const bytes =
          how === "cut"
            ? whole.slice(0, at)
            : how === "add"
              ? new Uint8Array([...whole.slice(0, at), by, ...whole.slice(at)])
              : Uint8Array.from(whole, (b, i) => (i === at ? b ^ by : b));
        const why = await refused(bytes);
        // A changed byte in a time stamp of the ZIP's table harms nothing: then it is there, once, and cannot come again.
        if (why === undefined) expect(await refused(bytes)).toMatch(/already/);
        else expect(why.length).toBeGreaterThan(20);
      },
    ),
    { numRuns: 60, seed: 7 },
  );
});

test("any part of its file replaced by something else: refused in words", async () => {
  const files = unzipSync(whole);
  const file = JSON.parse(strFromU8(files["job.json"]!)) as Record<string, unknown>;
  const keys = ["format", "version", "job", "owner", "amp", "events", "attachments", "netlist"];
  const junk = fc.oneof(
    fc.constant(null),
    fc.integer(),
    fc.string({ maxLength: 8 }),
    fc.constant([]),
    fc.constant([null]),
    fc.constant({}),
    fc.constant(true),
  );
  await fc.assert(
    fc.asyncProperty(fc.constantFrom(...keys), junk, async (key, other) => {
      const bytes = zipSync({ ...files, "job.json": strToU8(JSON.stringify({ ...file, [key]: other })) });
      const why = await refused(bytes);
      if (why !== undefined) expect(why.length).toBeGreaterThan(10);
    }),
    { numRuns: 80, seed: 11 },
  );
});

test("as it was exported it comes in, with the same tape", async () => {
  const there = await to.query<{ id: number }>("select id from jobs");
  if (there.length === 0) await importJob(to, whole);
  const [{ id }] = (await to.query<{ id: number }>("select id from jobs")) as [{ id: number }];
  const tape = await readTape(to, id);
  expect(tape.slice(0, -1).map((e) => e.payload)).toEqual((await readTape(from, 1001)).map((e) => e.payload));
  expect(tape.at(-1)).toMatchObject({ type: "brought-in" });
});
