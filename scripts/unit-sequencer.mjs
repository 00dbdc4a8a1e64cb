/** Starts the longest test files first, by times that were recorded (npm run record-times): at the end no core waits for one of them. */

import { readFileSync } from "node:fs";
import { relative, sep } from "node:path";
import Sequencer from "@jest/test-sequencer";

const root = process.cwd();
/** Seconds by file; what is not there is short. */
const recorded = JSON.parse(readFileSync("tests/unit-times.json", "utf8"));

export default class LongestFirst extends Sequencer {
  sort(tests) {
    const seconds = ({ path }) => recorded[relative(root, path).split(sep).join("/")] ?? 0;
    return [...tests].sort((a, b) => seconds(b) - seconds(a) || (a.path < b.path ? -1 : 1));
  }
}
