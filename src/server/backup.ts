/** The whole shop as one file, and back. The embedded server's own dump of its data folder, compressed. */

import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { lockFolder } from "./lock";
import { UserError } from "./errors";

/** Writes the data folder's database to `file`. The shop must be stopped: the lock says so. Gives the bytes written. */
export async function backupFolder(folder: string, file: string): Promise<number> {
  const cluster = join(folder, "pg");
  if (!existsSync(cluster)) throw new UserError(404, `There is no database in ${folder}.`);
  const unlock = lockFolder(folder);
  try {
    const { PGlite } = await import("@electric-sql/pglite");
    const pg = await PGlite.create(cluster);
    const dump = await pg.dumpDataDir("gzip");
    await pg.close();
    const bytes = Buffer.from(await dump.arrayBuffer());
    // Under another name first: a backup that was cut short must not look like one.
    writeFileSync(`${file}.part`, bytes);
    renameSync(`${file}.part`, file);
    return bytes.length;
  } finally {
    unlock();
  }
}

/** Makes the database of `folder` anew from a backup. What is there is kept beside it, under a name with the time. */
export async function restoreFolder(folder: string, file: string): Promise<{ kept?: string }> {
  if (!existsSync(file)) throw new UserError(404, `There is no file ${file}.`);
  const bytes = readFileSync(file);
  if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) throw new UserError(422, `${file} is not a backup: it is not a compressed file.`);
  mkdirSync(folder, { recursive: true });
  const unlock = lockFolder(folder);
  try {
    const fresh = join(folder, "pg.restoring");
    rmSync(fresh, { recursive: true, force: true });
    const { PGlite } = await import("@electric-sql/pglite");
    try {
      const pg = await PGlite.create({ dataDir: fresh, loadDataDir: new Blob([bytes]) });
      await pg.query("select count(*) from events");
      await pg.close();
    } catch (error) {
      rmSync(fresh, { recursive: true, force: true });
      throw new UserError(422, `${file} is not a backup of a shop, or it is damaged (${(error as Error).message}). Nothing was changed.`);
    }
    const cluster = join(folder, "pg");
    let kept: string | undefined;
    if (existsSync(cluster) && readdirSync(cluster).length > 0) {
      kept = join(folder, `pg.before-${new Date().toISOString().replace(/[:.]/g, "-")}`);
      renameSync(cluster, kept);
    }
    renameSync(fresh, cluster);
    return { kept };
  } finally {
    unlock();
  }
}
