/**
 * npm run long: what npm test does a part of, whole: every random circuit, fault and seed of the unit tests, thousands of odd requests and
 * lines, and forty kills. Takes an hour and more; run it before a release, and after a change of the solver, the drawing or the tape.
 */

import { ensureBuilt, ensureInstalled, ensurePostgres, ensureSpice, run, say } from "./setup.mjs";

ensureInstalled();
ensureSpice();
ensurePostgres();
ensureBuilt();
const node = process.execPath;
const failed = [];
for (const [what, args, env] of [
  [
    "unit tests at length",
    ["--experimental-vm-modules", "--no-warnings", "node_modules/jest/bin/jest.js", "--silent"],
    { SCUTUM_LONG: "1" },
  ],
  ["odd requests and lines", ["node_modules/tsx/dist/cli.mjs", "scripts/fuzz.ts"]],
  ["kills at random moments", ["node_modules/tsx/dist/cli.mjs", "scripts/soak.ts"]],
  ["many benches behind two processes", ["node_modules/tsx/dist/cli.mjs", "scripts/load.ts"]],
]) {
  say(`${what}…`);
  if (run(node, args, { must: false, env }) !== 0) failed.push(what);
}
say(failed.length === 0 ? "all well" : `FAILED: ${failed.join(", ")}`);
process.exit(failed.length === 0 ? 0 : 1);
