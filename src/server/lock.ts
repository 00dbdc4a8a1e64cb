/** A lock file in the data folder: one process at a time; a lock whose process is gone is taken over. */

import { closeSync, openSync, readFileSync, unlinkSync, writeSync } from "node:fs";
import { hostname } from "node:os";
import { join } from "node:path";
import { UserError } from "./errors";

const NAME = "scutum.lock";

interface Holder {
  pid: number;
  host: string;
  /** Start of the process in clock ticks, where the system tells it: a recycled process id is then no holder. */
  started: string;
}

function startOf(pid: number): string {
  try {
    // The command name, in brackets, may hold spaces; the start time is the 20th field after it.
    return (
      readFileSync(`/proc/${pid}/stat`, "utf8")
        .replace(/^.*\) /s, "")
        .split(" ")[19] ?? ""
    );
  } catch {
    return "";
  }
}

function alive(holder: Holder): boolean {
  if (holder.host !== hostname()) return true;
  try {
    process.kill(holder.pid, 0);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ESRCH") return false;
  }
  return holder.started === "" || startOf(holder.pid) === holder.started;
}

/**
 * Takes the folder for this process.
 * @returns what gives it back.
 * @throws UserError naming the process that holds it.
 */
export function lockFolder(folder: string): () => void {
  const path = join(folder, NAME);
  for (let attempt = 0; attempt < 2; attempt++) {
    try {
      const file = openSync(path, "wx");
      writeSync(file, JSON.stringify({ pid: process.pid, host: hostname(), started: startOf(process.pid) } satisfies Holder));
      closeSync(file);
      let held = true;
      const release = () => {
        if (!held) return;
        held = false;
        process.off("exit", release);
        try {
          unlinkSync(path);
        } catch {
          // Gone already, with its folder perhaps; there is nothing left to give back.
        }
      };
      process.on("exit", release);
      return release;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
    }
    let holder: Holder | undefined;
    try {
      holder = JSON.parse(readFileSync(path, "utf8")) as Holder;
    } catch {
      // Half-written by a process that died at once: nobody's.
    }
    if (holder && alive(holder)) {
      throw new UserError(
        503,
        `The data folder ${folder} is open in another Scutum (process ${holder.pid} on ${holder.host}). Stop that one, or set SCUTUM_DATA to another folder.`,
      );
    }
    try {
      unlinkSync(path);
    } catch {
      // Another process took the stale lock away first; the next attempt tells.
    }
  }
  throw new UserError(503, `The data folder ${folder} could not be locked. Try again.`);
}
