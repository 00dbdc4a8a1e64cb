/**
 * The server of the built application: node scripts/serve.mjs, with SCUTUM_DATA, SCUTUM_HOST and PORT.
 * What Next.js would answer with an error of its own, an address that cannot be read, is refused before it gets there.
 */

import { createServer } from "node:http";
import next from "next";

const host = process.env.SCUTUM_HOST ?? "127.0.0.1";
const port = Number(process.env.PORT ?? 4720);
/** A connection that the server closes just as a client uses it again is a lost request: it is kept longer than any client keeps it. */
const KEEP_ALIVE_MS = 75_000;

/** Why an address cannot be read, or undefined. */
function addressProblem(url = "/") {
  if (url.length > 4000) return { status: 414, error: `The address has ${url.length} characters; up to 4000 are read.` };
  try {
    if (decodeURIComponent(url.split("?")[0]).includes("\0")) return { status: 400, error: "The address holds a NUL character." };
    return undefined;
  } catch {
    return { status: 400, error: `The address ${JSON.stringify(url.slice(0, 80))} holds a percent sign that is followed by no UTF-8.` };
  }
}

const app = next({ dev: false, hostname: host, port });
await app.prepare();
const handle = app.getRequestHandler();

const server = createServer((request, response) => {
  const problem = addressProblem(request.url);
  if (problem) {
    response.writeHead(problem.status, { "content-type": "application/json", "x-content-type-options": "nosniff", connection: "close" });
    response.end(JSON.stringify({ error: problem.error }));
    return;
  }
  void handle(request, response);
});
server.keepAliveTimeout = KEEP_ALIVE_MS;
server.headersTimeout = KEEP_ALIVE_MS + 5000;
server.on("error", (error) => {
  console.error(`scutum: cannot listen on ${host}:${port}: ${error.message}`);
  process.exit(1);
});
server.listen(port, host);
