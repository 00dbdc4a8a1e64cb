/** npm run demo: installs and builds if needed, makes the demo shop, starts it on 127.0.0.1. */

import { existsSync } from "node:fs";
import { ensureBuilt, ensureInstalled, fail, freePort, run, say, serve, startServer } from "./setup.mjs";

ensureInstalled();
ensureBuilt();
const data = process.env.SCUTUM_DATA ?? "demo-data";
if (!existsSync(`${data}/pg`)) {
  say(`making the demo shop in ${data}…`);
  run(process.execPath, ["node_modules/tsx/dist/cli.mjs", "demo/main.ts"], { env: { SCUTUM_DATA: data }, what: "making the demo shop" });
}
const port = await freePort(Number(process.env.PORT ?? 4730));
say("starting…");
const server = await startServer({ data, port });
if (server.failed !== undefined) fail("the server did not start; the lines above say why.", server.failed || 1);
console.log(`\n  Scutum, demo shop: ${server.address}\n  Stop it with Ctrl+C. To begin anew, delete the folder ${data}.\n`);
await serve(server);
