/** Runs a general SPICE where the machine has one: the truth that no code of this project had a hand in. */

import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

export const SPICE = "/usr/bin/ngspice";
export const hasSpice = () => existsSync(SPICE);

/** Runs a deck in batch mode. @param control lines of its control block. @returns what it printed. @throws where it stops with an error. */
export function runSpice(deck: string, control: readonly string[], seconds = 60): string {
  const folder = mkdtempSync(join(tmpdir(), "scutum-spice-"));
  try {
    const file = join(folder, "deck.cir");
    // The first line of a deck is its title; a control block anywhere in it is run.
    writeFileSync(file, deck.replace(/\n\.end\s*$/i, `\n.control\n${control.join("\n")}\nquit\n.endc\n.end\n`));
    const run = spawnSync(SPICE, ["-b", file], { encoding: "utf8", timeout: seconds * 1000 });
    // It says on its error output that it gave up, and ends with 0 all the same.
    const aborted = /.*(aborted|too small|no such vector).*/i.exec(run.stderr ?? "")?.[0];
    if (run.status !== 0 || aborted) throw new Error(aborted ?? `${SPICE} ended with ${run.status ?? run.signal}: ${run.stderr}`);
    return run.stdout;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Figures that `print` or `meas` gave, by name in lower case. */
export function figuresIn(output: string): Map<string, number> {
  return new Map(
    [...output.matchAll(/^\s*(?:v\()?([a-z][\w.]*)\)?\s*=\s*([-+.\de]+)/gim)].map(([, name, value]) => [
      name!.toLowerCase(),
      Number(value),
    ]),
  );
}
