/**
 * The server of the built application: node scripts/serve.mjs, with SCUTUM_DATA, SCUTUM_HOST and PORT.
 * On an address that other machines reach, the door is shut: everybody signs in, over TLS. What Next.js would answer with an error of its
 * own, an address that cannot be read, is refused before it gets there.
 */

import { randomBytes } from "node:crypto";
import { createServer as createPlain } from "node:http";
import { createServer as createSecure } from "node:https";
import { hostname, networkInterfaces } from "node:os";
import next from "next";
import qrcode from "qrcode";
import { certificateFor } from "./certificate.mjs";

const host = process.env.SCUTUM_HOST ?? "127.0.0.1";
const port = Number(process.env.PORT ?? 4720);
/** A connection that the server closes just as a client uses it again is a lost request: it is kept longer than any client keeps it. */
const KEEP_ALIVE_MS = 75_000;

const beyond = !["127.0.0.1", "localhost", "::1"].includes(host);
const asked = process.env.SCUTUM_PLAIN_HTTP;
const PLAIN = "passphrases go over the network unencrypted";
if (beyond && asked !== undefined && asked !== PLAIN) {
  console.error(
    `scutum: SCUTUM_PLAIN_HTTP was asked for. Without TLS everybody on this network can read the passphrases. If that is meant, set SCUTUM_PLAIN_HTTP="${PLAIN}".`,
  );
  process.exit(1);
}
const secure = beyond && asked === undefined;

/** The addresses of this machine, as a tablet would type them. */
const addresses = () =>
  host === "0.0.0.0" || host === "::"
    ? Object.values(networkInterfaces())
        .flat()
        .filter((a) => a.family === "IPv4" && !a.internal)
        .map((a) => a.address)
    : [host];

if (beyond) {
  process.env.SCUTUM_DOOR = "shut";
  // Only by these names, and those that the shop adds: a page elsewhere cannot reach it by a name of its own.
  const names = [process.env.SCUTUM_HOSTS, ...addresses(), hostname(), `${hostname()}.local`].filter(Boolean);
  process.env.SCUTUM_HOSTS = names.join(",");
}
if (process.env.SCUTUM_DOOR === "shut") process.env.SCUTUM_FIRST_CODE ??= randomBytes(9).toString("base64url");
if (secure) process.env.SCUTUM_TLS = "1";

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

const app = next({ dev: false, quiet: true, hostname: host, port });
await app.prepare();
const handle = app.getRequestHandler();

function answer(request, response) {
  const problem = addressProblem(request.url);
  if (problem) {
    response.writeHead(problem.status, { "content-type": "application/json", "x-content-type-options": "nosniff", connection: "close" });
    response.end(JSON.stringify({ error: problem.error }));
    return;
  }
  // Whoever asks cannot choose it: the limit on tries of a passphrase counts by it.
  request.headers["x-scutum-from"] = request.socket.remoteAddress ?? "";
  void handle(request, response);
}

const certificate = secure ? await certificateFor(addresses()) : undefined;
const server = certificate ? createSecure(certificate, answer) : createPlain(answer);
server.keepAliveTimeout = KEEP_ALIVE_MS;
server.headersTimeout = KEEP_ALIVE_MS + 5000;
server.on("error", (error) => {
  console.error(`scutum: cannot listen on ${host}:${port}: ${error.message}`);
  process.exit(1);
});
server.listen(port, host, async () => {
  if (!beyond) return;
  const { ok, first } = await fetchDoor();
  for (const address of addresses()) {
    const at = `${secure ? "https" : "http"}://${address}:${port}`;
    console.log(`\n  On the network: ${at}`);
    const go = first ? `${at}/sign-in?code=${process.env.SCUTUM_FIRST_CODE}` : at;
    if (ok) console.log(await qrcode.toString(go, { type: "terminal", small: true }));
  }
  if (first)
    console.log(`  First start: whoever opens the address with the code ${process.env.SCUTUM_FIRST_CODE} becomes the owner of the shop.`);
  if (certificate)
    console.log(
      `  Certificate, SHA-256: ${certificate.fingerprint}\n  A browser that shows another fingerprint is not talking to this machine.`,
    );
  else console.log(`  ▲ Without TLS: ${PLAIN}.`);
});

/** Whether the shop has an owner yet: its own sign-in page knows. */
async function fetchDoor() {
  const { request } = certificate ? await import("node:https") : await import("node:http");
  return new Promise((resolve) => {
    const options = {
      host: host === "0.0.0.0" ? "127.0.0.1" : host,
      port,
      path: "/sign-in",
      rejectUnauthorized: false,
      headers: { host: `127.0.0.1:${port}` },
    };
    request(options, (answer) => {
      let text = "";
      answer
        .on("data", (part) => (text += part))
        .on("end", () => resolve({ ok: answer.statusCode === 200, first: text.includes("Who owns this shop?") }));
    })
      .on("error", () => resolve({ ok: false, first: false }))
      .end();
  });
}
