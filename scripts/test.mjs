/**
 * npm test: everything, as CI runs it. Static checks and the build, which checks the types, side by side; then the unit tests beside the server under attack; then
 * the real interface. Ends with the time of each step, the slowest files, and one line that counts all tests.
 */

import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { beside } from "./side-by-side.mjs";
import { buildStep, ensureChromium, ensureHeadlessShell, ensureInstalled, ensurePostgres, ensureSpice, fail } from "./setup.mjs";
import { slowest, tell } from "./test-times.mjs";

const begun = Date.now();
ensureInstalled();
mkdirSync("test-results", { recursive: true });
const [chromium, shell] = [ensureChromium(), ensureHeadlessShell()];
ensureSpice();
ensurePostgres();
const steps = [["packages, browser, SPICE, database", Date.now() - begun]];
const timed = async (what, args, options) => {
  const started = Date.now();
  const ok = await beside(what, args, options);
  steps.push([what, Date.now() - started]);
  return ok;
};
const readJson = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : undefined);
const result = (name) => {
  const file = `test-results/${name}.json`;
  rmSync(file, { force: true });
  return file;
};
let passed = 0;
let failed = 0;

// The demo shop's data, for every test that wants a shop with work in it.
const demo = mkdtempSync(join(tmpdir(), "scutum-test-demo-"));
process.once("exit", () => rmSync(demo, { recursive: true, force: true }));
const [built, ...checks] = await Promise.all([
  buildStep(timed),
  timed("lint", ["node_modules/eslint/bin/eslint.js", "."]),
  timed("dead code", ["node_modules/knip/bin/knip.js", "--no-progress"]),
  timed("demo shop", ["node_modules/tsx/dist/cli.mjs", "demo/main.ts"], { env: { SCUTUM_DATA: demo } }),
]);
const count = (ok) => (ok ? passed++ : failed++);
for (const ok of checks) count(ok);
if (!built) fail("the application could not be built, or its types are wrong: nothing of it is tried.");

const playwright = (what, projects, file) =>
  timed(what, ["node_modules/@playwright/test/cli.js", "test", ...projects.map((p) => `--project=${p}`)], {
    env: { SCUTUM_CHROMIUM: chromium, SCUTUM_SHELL: shell, SCUTUM_E2E_DEMO: demo, SCUTUM_PLAYWRIGHT_JSON: file },
    show: true,
  });
const unitFile = result("unit");
const serverFile = result("server");
const browserFile = result("browser");
const [unitOk, serverOk] = await Promise.all([
  timed(
    "unit tests",
    [
      "--liftoff-only",
      "--experimental-vm-modules",
      "--no-warnings",
      "node_modules/jest/bin/jest.js",
      "--json",
      `--outputFile=${unitFile}`,
      "--silent",
    ],
    {
      show: true,
    },
  ),
  playwright("server under attack", ["server"], serverFile),
]);
const browserOk = await playwright("real interface", ["long", "whole", "short", "screens"], browserFile);

const unit = readJson(unitFile);
passed += unit?.numPassedTests ?? 0;
failed += unit?.numFailedTests ?? 0;
// A suite that could not even be loaded has no tests to count.
if (!unitOk && !unit?.numFailedTests) failed++;
for (const [ok, file] of [
  [serverOk, serverFile],
  [browserOk, browserFile],
]) {
  const stats = readJson(file)?.stats;
  passed += stats?.expected ?? 0;
  failed += (stats?.unexpected ?? 0) + (stats?.flaky ?? 0);
  if (!ok && !stats?.unexpected && !stats?.flaky) failed++;
}

steps.push(["all of it", Date.now() - begun]);
writeFileSync("test-results/times.json", JSON.stringify(steps));
tell(steps, slowest(unit, readJson(serverFile), readJson(browserFile)));
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
