/** Backups: read back before they count, kept in number, made before a migration, never restored onto a running shop. */

import { existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { backupFolder, readBackupApart, restoreFolder, writeBackup } from "./backup";
import { backupsIn } from "./backup-files";
import { backUpWhenDue, backupState } from "./daily-backup";
import { openDatabase } from "./db";
import type { Database } from "./database";
import { freshShopFolder } from "./fresh-folder-for-tests";
import { shopContents } from "./shop-contents";
import { saveSettings, getSettings } from "./settings";
import { append, openJob } from "./tape";
import { readTape } from "./tape-read";
import { storePhoto } from "./attachments";

const folder = mkdtempSync(join(tmpdir(), "scutum-backup-"));
let data: string;
let shop: Database;
let job: number;
const note = (text: string) => ({ type: "note" as const, payload: { text }, who: "J.M." });

beforeAll(async () => {
  data = await freshShopFolder();
  process.env.SCUTUM_DATA = data;
  shop = await openDatabase(data, undefined);
  job = (await shop.transaction((sql) => openJob(sql, { owner: "Osric Venn", amp: "Wren 5", who: "J.M." }))).id;
  await append(shop, job, [{ type: "job-opened", payload: { owner: "Osric Venn", amp: "Wren 5" }, who: "J.M." }, note("hums")]);
  await shop.transaction((sql) => storePhoto(sql, readFileSync("tests/e2e/front.png")));
});
afterAll(async () => {
  await shop.close();
  delete process.env.SCUTUM_DATA;
  for (const f of [folder, data]) rmSync(f, { recursive: true, force: true });
});
/** A folder of its own, closed, with an empty shop. */
const closedShop = async (name: string) => {
  const made = await freshShopFolder();
  renameSync(made, join(folder, name));
  return join(folder, name);
};

test("a running shop is backed up and read back; lines logged meanwhile are in the shop and not in the file", async () => {
  const file = join(folder, "one.backup");
  const logging = append(shop, job, [note("logged beside it")]);
  const { contents } = await writeBackup(shop, file);
  await logging;
  expect(contents).toMatchObject({ jobs: 1, attachments: 1 });
  expect([2, 3]).toContain(contents.lines);
  await append(shop, job, [note("later")]);
  const elsewhere = join(folder, "elsewhere");
  const restored = await restoreFolder(elsewhere, file);
  expect(restored).toEqual({ kept: undefined, contents });
  const copy = await openDatabase(elsewhere, undefined);
  expect(await readTape(copy, job)).toEqual((await readTape(shop, job)).slice(0, contents.lines));
  await copy.close();
  // What is there is kept beside it, and can be gone back to.
  const { kept } = await restoreFolder(elsewhere, file);
  expect([kept, existsSync(join(kept!, "PG_VERSION"))]).toEqual([expect.stringMatching(/pg\.before-/), true]);
});

test("a file that does not read back as what was written is no backup, and leaves nothing behind", async () => {
  const file = join(folder, "two.backup");
  await expect(writeBackup(shop, file, async () => ({ ...(await shopContents(shop)), lines: 1 }))).rejects.toThrow(/does not read back/);
  expect([existsSync(file), existsSync(`${file}.part`)]).toEqual([false, false]);
});

test("a cut or altered file is refused and nothing is changed; so is a restore onto a running shop", async () => {
  const good = readFileSync(join(folder, "one.backup"));
  const cut = join(folder, "cut.backup");
  writeFileSync(cut, good.subarray(0, good.length / 2));
  await expect(restoreFolder(data, cut)).rejects.toThrow(/cut.backup is damaged: unexpected end of file/);
  await expect(readBackupApart(cut)).rejects.toThrow(/damaged/);
  writeFileSync(cut, "PK");
  await expect(restoreFolder(data, cut)).rejects.toThrow(/not a compressed file/);
  await expect(restoreFolder(data, join(folder, "one.backup"))).rejects.toThrow(/open in another Scutum/);
  await expect(backupFolder(data, join(folder, "three.backup"))).rejects.toThrow(/open in another Scutum/);
  expect((await readTape(shop, job)).length).toBeGreaterThan(2);
});

test("one a day, as many as are kept, in the place of the settings; a failure is told until one succeeds", async () => {
  const settings = await getSettings(shop);
  const place = join(folder, "disk");
  await saveSettings(shop, { ...settings, backups: { folder: place, keep: 2 } });
  // What a backup holds is tried above: of the one that is written a day only its name and its place count, so it is a small one.
  const small = Object.create(shop, {
    dump: { value: async () => ({ tar: Buffer.from("a shop"), contents: await shopContents(shop) }) },
  }) as Database;
  const on = (day: number) => backUpWhenDue(small, new Date(Date.UTC(2026, 2, day, 18)), () => shopContents(shop));
  expect(await on(1)).toBe(join(place, "scutum-2026-03-01T18-00-00Z.backup"));
  expect(await on(1)).toBeUndefined();
  await on(2);
  await on(3);
  expect(backupsIn(place).map((b) => b.at)).toEqual(["2026-03-03T18:00:00Z", "2026-03-02T18:00:00Z"]);
  // The clock was set back: the newest one is of a day that has not come.
  expect(await on(2)).toBe(join(place, "scutum-2026-03-02T18-00-00Z.backup"));

  const blocked = join(folder, "blocked");
  writeFileSync(blocked, "a file where a folder is wanted");
  await saveSettings(shop, { ...settings, backups: { folder: join(blocked, "in"), keep: 2 } });
  expect(await on(9)).toBeUndefined();
  expect((await backupState(shop))?.failure).toMatch(/ENOTDIR/);
  await saveSettings(shop, { ...settings, backups: { folder: place, keep: 2 } });
  await on(9);
  expect(await backupState(shop)).toMatchObject({ failure: undefined, last: { at: "2026-03-09T18:00:00Z" } });
  await saveSettings(shop, { ...settings, backups: { folder: place, keep: 0 } });
  expect(await on(20)).toBeUndefined();
});

test("before a migration the shop is backed up; without a backup nothing is changed", async () => {
  const old = await closedShop("old");
  const made = await openDatabase(old, undefined);
  await made.query("drop table bill_numbers, unreadable_lines, point_places, done_once, stock_tube_tests, stock_tube_moves, stock_tubes");
  await made.query("drop table stock_part_minimums, stock_part_pieces, stock_parts, bad_name_evidence, bad_names");
  await made.query("alter table job_summaries drop column digest, drop column technician");
  await made.query("alter table owners add constraint owners_name_key unique (name)");
  await made.query("drop index owners_name_idx");
  await made.query("alter table amp_models drop column example");
  await made.query("drop table bench_tokens, sessions, people, door");
  await made.query("delete from migrations where number >= 4");
  await made.close();
  writeFileSync(join(old, "backups"), "a file where a folder is wanted");
  await expect(openDatabase(old, undefined)).rejects.toThrow(/the backup before it failed.*Nothing was changed/);
  rmSync(join(old, "backups"));
  const opened = await openDatabase(old, undefined);
  expect(backupsIn(join(old, "backups"))).toHaveLength(1);
  expect(await opened.query("select number from migrations where number = 4")).toHaveLength(1);
  await opened.close();
});

test("what was killed in the middle of a first start or a restore is found and told, never taken for an empty shop", async () => {
  const fresh = join(folder, "fresh");
  mkdirSync(join(fresh, "pg", "base"), { recursive: true });
  writeFileSync(join(fresh, "pg.making"), "");
  await (await openDatabase(fresh, undefined)).close();
  expect(readdirSync(fresh).sort()).toEqual(["pg", "scutum.lock"]);
  renameSync(join(fresh, "pg"), join(fresh, "pg.before-2026-03-01"));
  await expect(openDatabase(fresh, undefined)).rejects.toThrow(/A restore into .* was broken off.*rename pg.before-2026-03-01 to pg/);
  expect(existsSync(join(fresh, "pg"))).toBe(false);
});

test("a damaged database is told with the last backup", async () => {
  const broken = await closedShop("broken");
  rmSync(join(broken, "pg", "PG_VERSION"));
  await expect(openDatabase(broken, undefined)).rejects.toThrow(/is damaged: PG_VERSION is missing. There is no backup in/);
  mkdirSync(join(broken, "backups"));
  writeFileSync(join(broken, "backups", "scutum-2026-03-01T18-00-00Z.backup"), "");
  await expect(openDatabase(broken, undefined)).rejects.toThrow(/npm run restore -- .*scutum-2026-03-01T18-00-00Z.backup/);
});
