/** npm start: a shop's own data, in the folder of SCUTUM_DATA (default: data). */

import { ensureBuilt, ensureInstalled, fail, freePort, serve, startServer } from "./setup.mjs";

ensureInstalled();
ensureBuilt();
const data = process.env.SCUTUM_DATA ?? "data";
const server = await startServer({ data, port: await freePort(Number(process.env.PORT ?? 4720)) });
if (server.failed !== undefined) fail("the server did not start; the lines above say why.", server.failed || 1);
console.log(`\n  Scutum: ${server.address}\n  Data: ${data}. Stop it with Ctrl+C.\n`);
await serve(server);
