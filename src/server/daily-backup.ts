/** Backs a running shop up by itself: once a day, looked at every quarter of an hour. What failed is told on the board and at Settings. */

import { join } from "node:path";
import { backupName, backupPlace, backupsIn, pruneBackups, type BackupFile } from "./backup-files";
import { readBackupApart, writeBackup } from "./backup";
import { dataFolder } from "./db";
import type { Database } from "./database";
import { getSettings } from "./settings";

const LOOK_EVERY_MS = 15 * 60_000;
/** The first page is not made to wait for it. */
const FIRST_LOOK_MS = 60_000;
const DAY_MS = 24 * 3600_000;

/** Next bundles pages and start-up apart; both must see the same failure. */
const shared = globalThis as typeof globalThis & { scutumBackupFailure?: string };

export interface BackupState {
  place: string;
  last?: BackupFile;
  /** Why the last try failed, until one succeeds. */
  failure?: string;
}

/** How the backups of this shop stand; undefined on a PostgreSQL server, which is backed up with its own tools. */
export async function backupState(database: Database): Promise<BackupState | undefined> {
  if (!database.dump) return undefined;
  const place = backupPlace(dataFolder(), await getSettings(database));
  return { place, last: backupsIn(place)[0], failure: shared.scutumBackupFailure };
}

/** Makes a backup where the last one is a day old, and deletes those beyond the kept number. Gives the one that was made. */
export async function backUpWhenDue(database: Database, now = new Date(), readBack = readBackupApart): Promise<string | undefined> {
  const settings = await getSettings(database);
  const { keep } = settings.backups;
  if (!database.dump || keep === 0) return undefined;
  const place = backupPlace(dataFolder(), settings);
  const [last] = backupsIn(place);
  // One of a time that has not come, because the clock was set back, does not count.
  const age = last && now.getTime() - Date.parse(last.at);
  if (age !== undefined && age >= 0 && age < DAY_MS) return undefined;
  try {
    const { file } = await writeBackup(database, join(place, backupName(now)), readBack);
    pruneBackups(place, keep);
    shared.scutumBackupFailure = undefined;
    return file;
  } catch (error) {
    shared.scutumBackupFailure = (error as Error).message;
    console.error(`scutum: the daily backup failed: ${(error as Error).message}`);
    return undefined;
  }
}

/** Looks for what is due from now on until the process ends. */
export function keepBackups(database: Database): void {
  const look = () => void backUpWhenDue(database).catch((error: unknown) => console.error("scutum: the daily backup failed:", error));
  setTimeout(look, FIRST_LOOK_MS).unref();
  setInterval(look, LOOK_EVERY_MS).unref();
}
