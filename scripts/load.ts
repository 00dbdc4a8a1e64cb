/** npm run load -- [--benches 20] [--seconds 600] [--every 2000]: benches on one shop behind two processes and a PostgreSQL, each process killed once. */

import { parseArgs } from "node:util";
import { load } from "../tests/load/load";
import { ensureBuilt } from "./setup.mjs";

const { values } = parseArgs({
  options: {
    benches: { type: "string", default: "20" },
    seconds: { type: "string", default: "600" },
    every: { type: "string", default: "2000" },
  },
});
ensureBuilt();
const told = await load({ benches: Number(values.benches), seconds: Number(values.seconds), everyMs: Number(values.every) });
const at = (times: number[], part: number) => `${(times[Math.min(times.length - 1, Math.floor(times.length * part))] ?? 0).toFixed(0)} ms`;
console.log(`${told.posted} readings acknowledged, ${told.retried} tries more while a process was away`);
console.log(`acknowledged after: median ${at(told.times, 0.5)}, 95th percentile ${at(told.times, 0.95)}, longest ${at(told.times, 1)}`);
console.log(
  `on the other bench after: median ${at(told.shown, 0.5)}, 95th percentile ${at(told.shown, 0.95)}, longest ${at(told.shown, 1)}`,
);
console.log(`memory of both processes: ${told.memory.map((m) => m.toFixed(0)).join(", ")} MB`);
for (const f of told.failures.slice(0, 20)) console.log(`- ${f}`);
console.log(`${told.failures.length} failures`);
process.exit(told.failures.length === 0 ? 0 : 1);
