/**
 * One process at a time has the data folder. The lock is the operating system's, held by an open file: it ends with the process, however that
 * ends, so that there is no stale lock to judge by process ids and clocks, and of several that start at once exactly one gets it.
 */

import { closeSync, ftruncateSync, openSync, readFileSync, realpathSync, writeSync } from "node:fs";
import { hostname } from "node:os";
import { join } from "node:path";
import { tryLock } from "fs-native-extensions";
import { UserError } from "./errors";

const NAME = "scutum.lock";

/** Who has the folder, for the message to the next one; the lock itself does not depend on it. */
interface Holder {
  pid: number;
  host: string;
}

function holderOf(path: string): string {
  try {
    const { pid, host } = JSON.parse(readFileSync(path, "utf8")) as Partial<Holder>;
    if (typeof pid === "number" && typeof host === "string") return `process ${pid} on ${host}`;
  } catch {
    // It has the lock and is about to write who it is.
  }
  return "a process that has just started";
}

/**
 * Takes the folder for this process. Symbolic links and relative paths to one folder are one folder.
 * @returns what gives it back.
 * @throws UserError 503 naming the process that has it, 500 where the folder cannot be written to or its disk knows no locks.
 */
export function lockFolder(folder: string): () => void {
  const path = join(realpathSync(folder), NAME);
  let file: number;
  try {
    // Never made anew and never deleted: two processes must mean the same file.
    file = openSync(path, "a+");
  } catch (error) {
    throw new UserError(500, `The data folder ${folder} cannot be written to: ${(error as Error).message}.`);
  }
  try {
    if (!tryLock(file))
      throw new UserError(
        503,
        `The data folder ${folder} is open in another Scutum (${holderOf(path)}). Stop that one, or set SCUTUM_DATA to another folder.`,
      );
    const holder: Holder = { pid: process.pid, host: hostname() };
    ftruncateSync(file);
    writeSync(file, JSON.stringify(holder));
  } catch (error) {
    closeSync(file);
    if (error instanceof UserError) throw error;
    if ((error as NodeJS.ErrnoException).code === "ENOSPC")
      throw new UserError(507, `The disk with the data folder ${folder} is full. Nothing was changed: make room and start again.`);
    throw new UserError(
      500,
      `The data folder ${folder} cannot be locked: ${(error as Error).message}. Use a folder on a disk of this machine.`,
    );
  }
  let held = true;
  return () => {
    if (!held) return;
    held = false;
    ftruncateSync(file);
    closeSync(file);
  };
}
