/** The one door to SQL: PGlite in a data folder, or a PostgreSQL server when DATABASE_URL is set. */

import { readdirSync, readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { UserError } from "./errors";
import { backUpBeforeMigration } from "./backup";
import { openFolder } from "./folder-database";
import { openServer } from "./server-database";
import type { Database } from "./database";

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
    await database.alone(() => migrate(database, MIGRATIONS, () => backUpBeforeMigration(database, folder)));
    return database;
  } catch (error) {
    await database.close();
    throw error;
  }
}

const MIGRATIONS = join(/* turbopackIgnore: true */ process.cwd(), "src/server/migrations");

/**
 * Runs the numbered files that have not run, each in a transaction of its own. Refuses a newer database.
 * @param before done first, where a database that is in use will be changed.
 */
export async function migrate(database: Database, folder = MIGRATIONS, before = async () => {}): Promise<void> {
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
  if (done.length > 0 && done.length < files.length) await before();
  for (const file of files) {
    const number = Number(file.slice(0, 4));
    if (done.includes(number)) continue;
    const text = readFileSync(join(folder, file), "utf8");
    const name = file.slice(5, -4).replace(/[^a-z0-9_-]/gi, "");
    await database.script(`begin;\n${text}\ninsert into migrations (number, name) values (${number}, '${name}');\ncommit;`);
  }
}
