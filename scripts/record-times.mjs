/** npm run record-times: keeps how long each unit test file took in the last npm test, for the order of the next (unit-sequencer.mjs). */

import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { fail, say } from "./setup.mjs";
import { slowest } from "./test-times.mjs";

const REPORT = "test-results/unit.json";
const FILE = "tests/unit-times.json";
if (!existsSync(REPORT)) fail(`there is no ${REPORT}: run npm test first.`);
const long = slowest(JSON.parse(readFileSync(REPORT, "utf8")))
  .map(([file, ms]) => [file, Math.round(ms / 1000)])
  .filter(([, seconds]) => seconds >= 2);
writeFileSync(FILE, `${JSON.stringify(Object.fromEntries(long), null, 2)}\n`);
say(`${FILE}: ${long.length} files of two seconds and more`);
