/** The user guide: pages of docs/guide with the pictures of docs/screenshots. */

import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";

const DOCS = join(/* turbopackIgnore: true */ process.cwd(), "docs");
/** Names only: nothing outside the two folders can be asked for. */
const NAME = /^[a-z][a-z-]*$/;

/** A page as Markdown, its links made those of the application; undefined when there is none of that name. */
export function guidePage(name: string): string | undefined {
  const file = join(DOCS, "guide", `${name}.md`);
  if (!NAME.test(name) || !existsSync(file)) return undefined;
  return readFileSync(file, "utf8")
    .replace(/\]\((?:\.\.\/screenshots\/)([a-z-]+)\.png\)/g, "](/guide/picture/$1)")
    .replace(/\]\(([a-z-]+)\.md\)/g, "](/guide/$1)");
}

/** A picture's bytes, PNG; undefined when there is none of that name. */
export function guidePicture(name: string): Uint8Array | undefined {
  const file = join(DOCS, "screenshots", `${name}.png`);
  return NAME.test(name) && existsSync(file) ? readFileSync(file) : undefined;
}
