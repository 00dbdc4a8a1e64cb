/** A data folder with an empty shop for a test: a copy of one that was made before, since making a database takes seconds and copying it does not. */

import { createHash } from "node:crypto";
import { cpSync, existsSync, mkdtempSync, readFileSync, readdirSync, renameSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { openDatabase } from "./db";

const MIGRATIONS = "src/server/migrations";

/** Another migration or another PGlite makes another template. */
function templatePath(): string {
  const hash = createHash("sha256").update(readFileSync("node_modules/@electric-sql/pglite/package.json"));
  for (const name of readdirSync(MIGRATIONS).sort()) hash.update(readFileSync(join(MIGRATIONS, name)));
  return join(tmpdir(), `scutum-template-${hash.digest("hex").slice(0, 16)}`);
}

/** @returns the folder; the test deletes it. */
export async function freshShopFolder(): Promise<string> {
  const template = templatePath();
  if (!existsSync(template)) {
    const making = mkdtempSync(join(tmpdir(), "scutum-making-"));
    await (await openDatabase(making, undefined)).close();
    try {
      renameSync(making, template);
    } catch {
      // Another test file was first.
      rmSync(making, { recursive: true, force: true });
    }
  }
  const folder = mkdtempSync(join(tmpdir(), "scutum-shop-"));
  cpSync(template, folder, { recursive: true });
  return folder;
}
