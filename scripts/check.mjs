/**
 * npm run check: what a change touched, in under a minute: format, lint, types, dead code, and the tests that depend on it.
 * A change is what differs from the main branch of the origin, or from the last commit where there is none.
 */

import { execFileSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import { ensureInstalled, say } from "./setup.mjs";
import { beside } from "./side-by-side.mjs";

/** Files that took longer than this in the last recorded run are left to `npm test`. */
const LONG_SECONDS = 8;
const LONG = Object.entries(JSON.parse(readFileSync("tests/unit-times.json", "utf8"))).flatMap(([file, seconds]) =>
  seconds > LONG_SECONDS ? [file.replace(/[.[\](){}]/g, "\\$&")] : [],
);
/** Looks at the whole tree, so it depends on every file. */
const STRUCTURE = "tests/structure/structure.test.ts";

const git = (...args) =>
  execFileSync("git", args, { encoding: "utf8", stdio: ["ignore", "pipe", "pipe"] })
    .split("\n")
    .filter(Boolean);
function changed() {
  let base = "HEAD";
  try {
    base = git("merge-base", "HEAD", "origin/main")[0];
  } catch {
    say("no origin/main: looking at what differs from the last commit");
  }
  const files = [...git("diff", "--name-only", base), ...git("ls-files", "--others", "--exclude-standard")];
  return [...new Set(files)].filter((f) => existsSync(f));
}

ensureInstalled();
const files = changed();
if (files.length === 0) {
  say("nothing has changed");
  process.exit(0);
}
const code = files.filter((f) => /\.(ts|tsx|mjs)$/.test(f));
const formatted = files.filter((f) => /\.(ts|tsx|mjs|json|css)$/.test(f) && f !== "package-lock.json");
const failed = [];

const step = async (what, args) => {
  if (!(await beside(what, args))) failed.push(what);
};

await Promise.all([
  formatted.length > 0 && step("format", ["node_modules/prettier/bin/prettier.cjs", "--check", "--log-level", "warn", ...formatted]),
  code.length > 0 && step("lint", ["node_modules/eslint/bin/eslint.js", ...code]),
  step("types", ["node_modules/typescript/bin/tsc", "--noEmit"]),
  step("dead code", ["node_modules/knip/bin/knip.js", "--no-progress"]),
]);
const sources = code.filter((f) => /^(src|demo|docs)\//.test(f));
if (sources.length > 0) {
  say(`tests that depend on ${sources.length} ${sources.length === 1 ? "file" : "files"}, the long ones left to npm test…`);
  await step("tests", [
    "--experimental-vm-modules",
    "--no-warnings",
    "node_modules/jest/bin/jest.js",
    "--silent",
    "--passWithNoTests",
    "--testPathIgnorePatterns",
    ...LONG,
    "--findRelatedTests",
    ...sources,
    STRUCTURE,
  ]);
}
say(failed.length === 0 ? `${files.length} ${files.length === 1 ? "file" : "files"} checked: all well` : `FAILED: ${failed.join(", ")}`);
process.exit(failed.length === 0 ? 0 : 1);
