/** npm run fuzz -- [--requests 20000] [--lines 2000] [--seed 1]: attacks the built application on a demo shop of its own and reports what broke. */

import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { execFileSync } from "node:child_process";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { Client } from "../tests/hostile/client";
import { attackWithLines, storeBoth } from "../tests/hostile/lines";
import { attackWithRequests } from "../tests/hostile/requests";
import { ensureBuilt, freePort, startServer } from "./setup.mjs";

const { values } = parseArgs({
  options: {
    requests: { type: "string", default: "20000" },
    lines: { type: "string", default: "2000" },
    seed: { type: "string", default: "1" },
  },
});
const [requests, lines, seed] = [values.requests, values.lines, values.seed].map(Number) as [number, number, number];

ensureBuilt();
const folder = mkdtempSync(join(tmpdir(), "scutum-fuzz-"));
execFileSync(process.execPath, ["node_modules/tsx/dist/cli.mjs", "demo/main.ts"], { env: { ...process.env, SCUTUM_DATA: folder } });
const server = await startServer({ data: folder, port: await freePort(0), quiet: true });
const client = new Client(server.address);
/** The server's memory in MB, where the system tells it. */
const memory = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.child.pid}/status`, "utf8"))?.[1] ?? 0) / 1024;

const stored = await storeBoth(client);
let failures: string[] = [];
const megabytes = [memory()];
for (let part = 0; part < 10; part++) {
  const outcome = await attackWithRequests(client, stored, Math.ceil(requests / 10), seed * 1000 + part);
  megabytes.push(memory());
  failures = [...failures, ...outcome.failures];
  console.log(
    `${outcome.cases} requests: ${outcome.accepted} taken, ${outcome.refused} refused, ${outcome.failures.length} failed; ${memory().toFixed(0)} MB`,
  );
}
console.log(`slowest answer ${client.slowest.ms.toFixed(0)} ms: ${client.slowest.what}; ${client.slow} over 2 s`);
client.slowest = { ms: 0, what: "" };
const outcome = await attackWithLines(client, lines, seed);
failures = [...failures, ...outcome.failures];
console.log(
  `${outcome.cases} lines: ${outcome.accepted} taken, ${outcome.refused} refused, ${outcome.failures.length} failed; ${memory().toFixed(0)} MB`,
);
console.log(`slowest answer ${client.slowest.ms.toFixed(0)} ms: ${client.slowest.what}; ${client.slow} over 2 s`);
for (const f of failures.slice(0, 40)) console.log(`- ${f}`);
console.log(
  `${failures.length} failures; memory ${megabytes.map((m) => m.toFixed(0)).join(", ")} MB; the server ${server.child.exitCode === null ? "runs" : "HAS ENDED"}`,
);
client.close();
server.child.kill("SIGKILL");
rmSync(folder, { recursive: true, force: true });
process.exit(failures.length === 0 && server.child.exitCode === null ? 0 : 1);
