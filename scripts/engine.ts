/** npm run --silent engine -- op|ohm|ac|tran|rank|spice|spectrum …: the engine without the interface. */

import { runEngine } from "@/core/headless/headless";
import { readFileSync } from "node:fs";

const outcome = runEngine(
  process.argv.slice(2),
  (file) => readFileSync(file, "utf8"),
  (file) => readFileSync(file),
);
if (outcome.out !== undefined) process.stdout.write(outcome.out);
if (outcome.error !== undefined) process.stderr.write(outcome.error);
process.exitCode = outcome.code;
