/** npm run soak -- [--rounds 60] [--minutes 0] [--seed 1]: kills a shop at random moments and tells what was lost. By rounds, or for so many minutes. */

import { parseArgs } from "node:util";
import { MOMENTS, Soak } from "../tests/soak/soak";
import { ensureBuilt } from "./setup.mjs";

const { values } = parseArgs({
  options: { rounds: { type: "string", default: "60" }, minutes: { type: "string", default: "0" }, seed: { type: "string", default: "1" } },
});
ensureBuilt();
const soak = new Soak(Number(values.seed));
const end = Date.now() + Number(values.minutes) * 60_000;
for (let round = 0; values.minutes === "0" ? round < Number(values.rounds) : Date.now() < end; round++) {
  await soak.round(MOMENTS[round % MOMENTS.length]!);
  if (round % 12 === 11)
    console.log(`${round + 1} rounds, ${soak.told.failures.length} failures, ${soak.told.acknowledged.lines} lines acknowledged`);
}
const { rounds, acknowledged, failures, starts } = soak.told;
starts.sort((a, b) => a - b);
console.log(
  `rounds: ${Object.entries(rounds)
    .map(([moment, n]) => `${moment} ${n}`)
    .join(", ")}`,
);
console.log(
  `acknowledged: ${Object.entries(acknowledged)
    .map(([what, n]) => `${n} ${what}`)
    .join(", ")}`,
);
console.log(
  `first page after a start: median ${starts[Math.floor(starts.length / 2)]} ms, 95th percentile ${starts[Math.floor(starts.length * 0.95)]} ms`,
);
for (const f of failures.slice(0, 30)) console.log(`- ${f}`);
console.log(`${failures.length} failures`);
soak.end();
process.exit(failures.length === 0 ? 0 : 1);
