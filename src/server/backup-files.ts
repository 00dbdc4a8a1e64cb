/** The backups that a shop has made: their names, the newest one, how many are kept. */

import { existsSync, readdirSync, rmSync, statSync } from "node:fs";
import { isAbsolute, join } from "node:path";
import type { Settings } from "@/core/shop/settings";

const NAME = /^scutum-(\d{4}-\d{2}-\d{2})T(\d{2})-(\d{2})-(\d{2})Z\.backup$/;

export interface BackupFile {
  path: string;
  /** When it was made, ISO 8601. */
  at: string;
  bytes: number;
}

/** Where the backups of a data folder are kept; a relative place is one in that folder. */
export function backupPlace(folder: string, settings: Pick<Settings, "backups">): string {
  const place = settings.backups.folder || "backups";
  return isAbsolute(place) ? place : join(/* turbopackIgnore: true */ folder, place);
}

/** The name of a backup that is made now. It sorts by time. */
export const backupName = (now = new Date()): string => `scutum-${now.toISOString().slice(0, 19).replace(/:/g, "-")}Z.backup`;

/** Those in a place, newest first. */
export function backupsIn(place: string): BackupFile[] {
  if (!existsSync(place)) return [];
  return readdirSync(place)
    .sort()
    .reverse()
    .flatMap((name) => {
      const [, day, hour, minute, second] = NAME.exec(name) ?? [];
      const path = join(place, name);
      return day ? [{ path, at: `${day}T${hour}:${minute}:${second}Z`, bytes: statSync(path).size }] : [];
    });
}

/** Deletes all but the newest `keep`. What has another name is left alone. */
export function pruneBackups(place: string, keep: number): void {
  for (const { path } of backupsIn(place).slice(keep)) rmSync(path);
}

/** What to do about a damaged database: the settings are in it, so the usual place is looked at. */
export function lastBackupWords(folder: string): string {
  const [last] = backupsIn(join(folder, "backups"));
  return last
    ? `Restore the last backup: npm run restore -- ${last.path}`
    : `There is no backup in ${join(folder, "backups")}; if the shop keeps them elsewhere: npm run restore -- FILE`;
}
