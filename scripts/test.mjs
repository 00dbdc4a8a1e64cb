/** npm test: lint, types, unit tests, build, end-to-end tests. Ends with one line that counts them all. */

import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { ensureBuilt, ensureChromium, ensureInstalled, ensurePostgres, ensureSpice, run, say } from "./setup.mjs";
import { beside } from "./side-by-side.mjs";

ensureInstalled();
const node = process.execPath;
mkdirSync("test-results", { recursive: true });
let passed = 0;
let failed = 0;
const count = (ok) => (ok ? passed++ : failed++);
const step = (what, args, env) => {
  say(`${what}…`);
  const started = Date.now();
  const code = run(node, args, { must: false, env });
  say(`${what}: ${code === 0 ? "passed" : `FAILED (exit ${code})`}, ${Math.round((Date.now() - started) / 1000)} s`);
  return code === 0;
};
const readJson = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : undefined);

// Next writes its route types at the build; the check of types before it must not depend on an old one.
say("lint, dead code and types, side by side…");
const checks = [
  beside("lint", ["node_modules/eslint/bin/eslint.js", "."]),
  beside("dead code", ["node_modules/knip/bin/knip.js", "--no-progress"]),
  beside("types", ["node_modules/typescript/bin/tsc", "--noEmit"]),
];
for (const ok of await Promise.all(checks)) count(ok);

ensureSpice();
ensurePostgres();
const unitFile = "test-results/unit.json";
rmSync(unitFile, { force: true });
const unitOk = step("unit tests", [
  "--experimental-vm-modules",
  "--no-warnings",
  "node_modules/jest/bin/jest.js",
  "--json",
  `--outputFile=${unitFile}`,
  "--silent",
]);
const unit = readJson(unitFile);
passed += unit?.numPassedTests ?? 0;
failed += unit?.numFailedTests ?? 0;
// A suite that could not even be loaded has no tests to count.
if (!unitOk && !unit?.numFailedTests) failed++;

const chromium = ensureChromium();
ensureBuilt();
const e2eFile = "test-results/e2e.json";
rmSync(e2eFile, { force: true });
const e2eOk = step("end-to-end tests", ["node_modules/@playwright/test/cli.js", "test"], { SCUTUM_CHROMIUM: chromium });
const e2e = readJson(e2eFile)?.stats;
passed += e2e?.expected ?? 0;
failed += (e2e?.unexpected ?? 0) + (e2e?.flaky ?? 0);
if (!e2eOk && !e2e?.unexpected) failed++;

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
