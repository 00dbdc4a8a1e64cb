/**
 * npm run check: what a change touched, in under a minute: format, lint, types, dead code, and the tests that depend on it.
 * A change is what differs from the main branch of the origin, or from the last commit where there is none.
 */

import { execFileSync } from "node:child_process";
import { existsSync } from "node:fs";
import { ensureInstalled, say } from "./setup.mjs";
import { beside } from "./side-by-side.mjs";

/** Tests of ten seconds and more: they solve circuits by the hundred, or open a shop for each case. `npm test` runs them. */
const LONG = [
  "src/bench/(noise-isolation|recordings|ripple)",
  "src/core/suspects/(bed/bed|faults|rank)",
  "src/core/solver/(every-fault|reservoir)",
  "src/core/bring-up/fuse-isolation",
  "src/server/(archive.property|bench|postgres|server|paper/report-pdf)",
  "src/app/api/routes",
];

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
  ]);
}
say(failed.length === 0 ? `${files.length} ${files.length === 1 ? "file" : "files"} checked: all well` : `FAILED: ${failed.join(", ")}`);
process.exit(failed.length === 0 ? 0 : 1);
