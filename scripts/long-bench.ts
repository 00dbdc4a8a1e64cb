/** npm run long-bench -- [--minutes 60] [--streams 10] [--every 2000]: simulated benches on one shop for so long, and the memory of its server. */

import { parseArgs } from "node:util";
import makeDemoShop from "../tests/e2e/demo-shop";
import { longBench } from "../tests/load/long-bench";
import { ensureBuilt } from "./setup.mjs";

const { values } = parseArgs({
  options: {
    minutes: { type: "string", default: "60" },
    streams: { type: "string", default: "10" },
    every: { type: "string", default: "2000" },
  },
});
ensureBuilt();
const clear = makeDemoShop();
const told = await longBench({
  minutes: Number(values.minutes),
  streams: Number(values.streams),
  everyMs: Number(values.every),
  demo: process.env.SCUTUM_E2E_DEMO!,
});
clear();
console.log(`${told.logged} lines logged, ${told.heard} lines of instruments and tapes heard`);
console.log(`memory: ${told.memory.map(({ minute, mb }) => `${minute.toFixed(0)} min ${mb.toFixed(0)}`).join(", ")} MB`);
console.log(`over the second half ${told.slope.toFixed(1)} MB an hour`);
for (const f of told.failures.slice(0, 20)) console.log(`- ${f}`);
console.log(`${told.failures.length} failures`);
process.exit(told.failures.length === 0 ? 0 : 1);
