/** A shop in a data folder: the embedded PGlite, made so that a process may be killed at any moment. */

import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, readdirSync, rmSync, statSync } from "node:fs";
import { join } from "node:path";
import type { Database, Sql } from "./database";
import { lastBackupWords } from "./backup-files";
import { explain, UserError } from "./errors";
import { live } from "./live";
import { lockFolder } from "./lock";
import { shopContents } from "./shop-contents";

/** Where the files of the database are, in the data folder. */
export const clusterOf = (folder: string): string => join(folder, "pg");

/** A database that is being restored: it gets its name when it is whole. */
export const unfinishedOf = (folder: string): string => join(folder, "pg.unfinished");

const damaged = (folder: string, why: string) =>
  new UserError(500, `The database in ${clusterOf(folder)} is damaged: ${why}. ${lastBackupWords(folder)}`);

export async function openFolder(folder: string): Promise<Database> {
  try {
    mkdirSync(folder, { recursive: true });
  } catch (error) {
    throw new UserError(500, `The data folder ${folder} cannot be made: ${(error as Error).message}`);
  }
  const unlock = lockFolder(folder);
  try {
    return await openLocked(folder, unlock);
  } catch (error) {
    unlock();
    throw explain(error);
  }
}

async function openLocked(folder: string, unlock: () => void): Promise<Database> {
  const cluster = clusterOf(folder);
  const { PGlite } = await import("@electric-sql/pglite");
  // A first start that was killed left a database that was never whole, and nothing in it.
  const making = join(folder, "pg.making");
  if (existsSync(making)) rmSync(cluster, { recursive: true, force: true });
  if (!existsSync(cluster)) {
    refuseHalfRestored(folder);
    closeSync(openSync(making, "w"));
  } else if (!existsSync(join(cluster, "PG_VERSION"))) throw damaged(folder, "PG_VERSION is missing");
  // Without -F the server keeps its own order of writes; the sync below makes them durable.
  const startParams = PGlite.defaultStartParams.filter((p) => p !== "-F");
  const pg = await PGlite.create(cluster, { startParams }).catch((error: unknown) => {
    const known = explain(error);
    throw known instanceof UserError ? known : damaged(folder, `it cannot be opened (${(error as Error).message})`);
  });
  rmSync(making, { force: true });
  const wal = join(cluster, "pg_wal");
  const on = (client: Pick<typeof pg, "query">): Sql => ({
    query: async <T>(text: string, params: unknown[] = []) => (await client.query<T>(text, params)).rows,
  });
  const transaction: Database["transaction"] = async (work) => {
    try {
      const result = await pg.transaction((tx) => work(on(tx as never)));
      syncLog(wal);
      return result;
    } catch (error) {
      throw explain(error);
    }
  };
  return {
    ...on(pg),
    transaction,
    async script(text) {
      await pg.exec(text);
      syncLog(wal);
    },
    async dump() {
      // Fewer pages to make good when it is opened again.
      await pg.exec("checkpoint");
      return transaction(async (sql) => {
        const contents = await shopContents(sql);
        // The files are read in one go, with no statement between: as a power cut would leave them, which the log makes good.
        const tar = await pg.dumpDataDir("none");
        return { tar: new Uint8Array(await tar.arrayBuffer()), contents };
      });
    },
    // The folder is this process's alone already.
    alone: (work) => work(),
    async announce(jobId) {
      live().changed(jobId);
    },
    async close() {
      await pg.close();
      unlock();
    },
  };
}

/** Between the two steps of a restore the folder holds the old database under another name: an empty shop must not take its place. */
function refuseHalfRestored(folder: string): void {
  const kept = readdirSync(folder).filter((name) => name.startsWith("pg.before-"));
  if (kept.length > 0)
    throw new UserError(
      500,
      `A restore into ${folder} was broken off: there is no database, and ${kept.sort().at(-1)} beside it. Run npm run restore -- FILE again, or rename ${kept.sort().at(-1)} to pg.`,
    );
}

/** The embedded server's file layer has no fsync of its own, so the write-ahead log is flushed here after each commit. */
function syncLog(wal: string): void {
  const recent = Date.now() - 10_000;
  for (const name of readdirSync(wal)) {
    if (!/^[0-9A-F]{24}$/.test(name)) continue;
    const path = join(wal, name);
    if (statSync(path).mtimeMs < recent) continue;
    const file = openSync(path, "r+");
    try {
      fsyncSync(file);
    } finally {
      closeSync(file);
    }
  }
}
