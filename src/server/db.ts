/** The one door to SQL: PGlite in a data folder, or a PostgreSQL server when DATABASE_URL is set. */

import { existsSync, fsyncSync, mkdirSync, openSync, closeSync, readdirSync, readFileSync, statSync } from "node:fs";
import { join, resolve } from "node:path";
import { explain, UserError } from "./errors";
import { lockFolder } from "./lock";

export interface Sql {
  /** Parameterised; a JSON parameter is passed as its text. */
  query<T = Record<string, unknown>>(text: string, params?: unknown[]): Promise<T[]>;
}

export interface Database extends Sql {
  /** Committed and on disk when the promise resolves; rolled back when `work` throws. */
  transaction<T>(work: (sql: Sql) => Promise<T>): Promise<T>;
  /** Several statements without parameters: migrations. */
  script(text: string): Promise<void>;
  close(): Promise<void>;
}

export function dataFolder(): string {
  return resolve(/* turbopackIgnore: true */ process.env.SCUTUM_DATA ?? "data");
}

/** Next bundles pages and route handlers apart; the process must still have one database. */
const shared = globalThis as typeof globalThis & { scutumDatabase?: Promise<Database> };

/** The shop's database, opened and migrated at the first call. A failed opening is tried again at the next. */
export function db(): Promise<Database> {
  shared.scutumDatabase ??= openDatabase().catch((error: unknown) => {
    shared.scutumDatabase = undefined;
    throw error;
  });
  return shared.scutumDatabase;
}

/** Closes the shared database, if it is open. */
export async function closeDb(): Promise<void> {
  const open = shared.scutumDatabase;
  shared.scutumDatabase = undefined;
  await (await open)?.close();
}

export async function openDatabase(folder = dataFolder(), url = process.env.DATABASE_URL): Promise<Database> {
  const database = url ? await openServer(url) : await openFolder(folder);
  try {
    await migrate(database);
    return database;
  } catch (error) {
    await database.close();
    throw error;
  }
}

async function openServer(url: string): Promise<Database> {
  const { Pool } = await import("pg");
  const pool = new Pool({ connectionString: url, max: 8 });
  const on = (client: { query(text: string, params?: unknown[]): Promise<{ rows: unknown[] }> }): Sql => ({
    async query<T>(text: string, params: unknown[] = []) {
      return (await client.query(text, params)).rows as T[];
    },
  });
  return {
    ...on(pool),
    async transaction(work) {
      const client = await pool.connect();
      try {
        await client.query("begin");
        const result = await work(on(client));
        await client.query("commit");
        return result;
      } catch (error) {
        await client.query("rollback").catch(() => undefined);
        throw explain(error);
      } finally {
        client.release();
      }
    },
    async script(text) {
      await pool.query(text);
    },
    close: () => pool.end(),
  };
}

async function openFolder(folder: string): Promise<Database> {
  try {
    mkdirSync(folder, { recursive: true });
  } catch (error) {
    throw new UserError(500, `The data folder ${folder} cannot be made: ${(error as Error).message}`);
  }
  const unlock = lockFolder(folder);
  const cluster = join(folder, "pg");
  try {
    if (existsSync(cluster) && !existsSync(join(cluster, "PG_VERSION"))) {
      throw new UserError(500, `The database in ${cluster} is damaged: PG_VERSION is missing. Restore the last backup (npm run restore).`);
    }
    const { PGlite } = await import("@electric-sql/pglite");
    // Without -F the server keeps its own order of writes; the sync below makes them durable.
    const startParams = PGlite.defaultStartParams.filter((p) => p !== "-F");
    const pg = await PGlite.create(cluster, { startParams }).catch((error: unknown) => {
      throw explain(error) instanceof UserError
        ? explain(error)
        : new UserError(
            500,
            `The database in ${cluster} cannot be opened and may be damaged (${(error as Error).message}). Restore the last backup (npm run restore).`,
          );
    });
    const wal = join(cluster, "pg_wal");
    return {
      async query<T>(text: string, params: unknown[] = []) {
        return (await pg.query<T>(text, params)).rows;
      },
      async transaction(work) {
        try {
          const result = await pg.transaction((tx) =>
            work({ query: async <T>(text: string, params: unknown[] = []) => (await tx.query<T>(text, params)).rows }),
          );
          syncLog(wal);
          return result;
        } catch (error) {
          throw explain(error);
        }
      },
      async script(text) {
        await pg.exec(text);
        syncLog(wal);
      },
      async close() {
        await pg.close();
        unlock();
      },
    };
  } catch (error) {
    unlock();
    throw error;
  }
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

const MIGRATIONS = join(/* turbopackIgnore: true */ process.cwd(), "src/server/migrations");

/** Runs the numbered files that have not run, each in a transaction of its own. Refuses a newer database. */
export async function migrate(database: Database, folder = MIGRATIONS): Promise<void> {
  await database.script(
    "create table if not exists migrations (number integer primary key, name text not null, at timestamptz not null default now())",
  );
  const files = readdirSync(folder)
    .filter((f) => /^\d{4}_.+\.sql$/.test(f))
    .sort();
  const done = (await database.query<{ number: number }>("select number from migrations order by number")).map((r) => r.number);
  const newest = Number(files.at(-1)?.slice(0, 4) ?? 0);
  const ahead = done.filter((n) => n > newest);
  if (ahead.length > 0) {
    throw new UserError(
      500,
      `This database was written by a newer Scutum (step ${ahead.at(-1)}; this program knows up to ${newest}). Update the program; nothing was changed.`,
    );
  }
  for (const file of files) {
    const number = Number(file.slice(0, 4));
    if (done.includes(number)) continue;
    const text = readFileSync(join(folder, file), "utf8");
    const name = file.slice(5, -4).replace(/[^a-z0-9_-]/gi, "");
    await database.script(`begin;\n${text}\ninsert into migrations (number, name) values (${number}, '${name}');\ncommit;`);
  }
}
