/** The whole shop as one file, and back: the files of the embedded database, compressed, and read back before the file counts. */

import { execFile } from "node:child_process";
import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, readFileSync, renameSync, rmSync, writeSync } from "node:fs";
import { dirname, join } from "node:path";
import { promisify } from "node:util";
import { gunzip, gzip } from "node:zlib";
import { DEFAULT_SETTINGS } from "@/core/shop/settings";
import { backupName, backupPlace } from "./backup-files";
import type { Database, ShopContents } from "./database";
import { explain, UserError } from "./errors";
import { clusterOf, openFolder, unfinishedOf } from "./folder-database";
import { lockFolder } from "./lock";
import { shopContents } from "./shop-contents";
import { getSettings } from "./settings";

export interface Backup {
  file: string;
  bytes: number;
  contents: ShopContents;
}

/** The tar in a backup. @throws UserError 404 or 422. */
async function tarOf(file: string): Promise<Blob> {
  if (!existsSync(file)) throw new UserError(404, `There is no file ${file}.`);
  const bytes = readFileSync(file);
  if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) throw new UserError(422, `${file} is not a backup: it is not a compressed file.`);
  try {
    return new Blob([await promisify(gunzip)(bytes)], { type: "application/x-tar" });
  } catch (error) {
    throw new UserError(422, `${file} is damaged: ${(error as Error).message}.`);
  }
}

/** Reads a backup back, in memory, and gives what it holds. @throws UserError 422 when it is no backup or is damaged. */
export async function readBackup(file: string): Promise<ShopContents> {
  const tar = await tarOf(file);
  const { PGlite } = await import("@electric-sql/pglite");
  try {
    const pg = await PGlite.create({ loadDataDir: tar });
    const contents = await shopContents({ query: async <T>(text: string, params?: unknown[]) => (await pg.query<T>(text, params)).rows });
    await pg.close();
    return contents;
  } catch (error) {
    throw new UserError(422, `${file} is not a backup of a shop, or it is damaged (${(error as Error).message}).`);
  }
}

/** `readBackup` in a process of its own: the server goes on answering meanwhile. */
export async function readBackupApart(file: string): Promise<ShopContents> {
  const args = ["node_modules/tsx/dist/cli.mjs", "scripts/read-backup.ts", file];
  try {
    return JSON.parse((await promisify(execFile)(process.execPath, args, { timeout: 600_000 })).stdout) as ShopContents;
  } catch (error) {
    throw new UserError(500, ((error as { stderr?: string }).stderr ?? "").trim() || (error as Error).message);
  }
}

/**
 * Writes the shop to `file` and reads it back.
 * @throws UserError when it cannot be written (507 on a full disk) or does not read back as what was written; then there is no such file.
 */
export async function writeBackup(database: Database, file: string, readBack = readBackup): Promise<Backup> {
  if (!database.dump) throw new UserError(400, "This shop is on a PostgreSQL server: back it up with that server's own tools.");
  // Under another name first: a backup that was cut short must not look like one.
  const part = `${file}.part`;
  try {
    const { tar, contents } = await database.dump();
    const bytes = await promisify(gzip)(tar);
    mkdirSync(dirname(file), { recursive: true });
    writeWhole(part, bytes);
    const read = await readBack(part);
    if (JSON.stringify(read) !== JSON.stringify(contents))
      throw new UserError(
        500,
        `The backup does not read back as what was written: ${JSON.stringify(read)} instead of ${JSON.stringify(contents)}.`,
      );
    renameSync(part, file);
    return { file, bytes: bytes.length, contents };
  } catch (error) {
    rmSync(part, { force: true });
    throw explain(error);
  }
}

function writeWhole(path: string, bytes: Uint8Array): void {
  const file = openSync(path, "w");
  try {
    for (let at = 0; at < bytes.length;) at += writeSync(file, bytes, at);
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
}

/** Backs a folder up that no running shop has open: the lock says so. */
export async function backupFolder(folder: string, file: string): Promise<Backup> {
  if (!existsSync(clusterOf(folder))) throw new UserError(404, `There is no database in ${folder}.`);
  const database = await openFolder(folder);
  try {
    return await writeBackup(database, file);
  } finally {
    await database.close();
  }
}

/** Before a newer program changes the database of an older one. Without a backup nothing is changed. */
export async function backUpBeforeMigration(database: Database, folder: string): Promise<void> {
  if (!database.dump) return;
  const { backups } = await getSettings(database).catch(() => DEFAULT_SETTINGS);
  const file = join(backupPlace(folder, { backups }), backupName());
  try {
    await writeBackup(database, file);
  } catch (error) {
    throw new UserError(
      500,
      `This program has to change the database, and the backup before it failed: ${(error as Error).message} Nothing was changed.`,
    );
  }
  console.log(`scutum: the shop was backed up to ${file} before the database is changed`);
}

/** Makes the database of `folder` anew from a backup. What is there is kept beside it, under a name with the time. Refused while a shop has it open. */
export async function restoreFolder(folder: string, file: string): Promise<{ kept?: string; contents: ShopContents }> {
  const contents = await readBackup(file);
  mkdirSync(folder, { recursive: true });
  const unlock = lockFolder(folder);
  try {
    const fresh = unfinishedOf(folder);
    rmSync(fresh, { recursive: true, force: true });
    const { PGlite } = await import("@electric-sql/pglite");
    const pg = await PGlite.create({ dataDir: fresh, loadDataDir: await tarOf(file) });
    await pg.close();
    const cluster = clusterOf(folder);
    let kept: string | undefined;
    if (existsSync(cluster)) {
      kept = join(folder, `pg.before-${new Date().toISOString().replace(/[:.]/g, "-")}`);
      renameSync(cluster, kept);
    }
    renameSync(fresh, cluster);
    return { kept, contents };
  } catch (error) {
    throw explain(error);
  } finally {
    unlock();
  }
}
