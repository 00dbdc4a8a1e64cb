/**
 * npm run bridge -- --job 1004 [--address http://127.0.0.1:4730] [--who J.M.]: a real meter's way in. Reads lines from standard input
 * (a serial port piped in, a program of the meter's maker, or a keyboard) and passes them on; prints what Scutum wants measured.
 */

import { randomUUID } from "node:crypto";
import { createInterface } from "node:readline";
import { Bridge } from "@/core/instrument/bridge";

const USAGE = "npm run bridge -- --job NUMBER [--address http://127.0.0.1:4730] [--who INITIALS]";
const RETRY_MS = 1000;

const options = new Map<string, string>();
for (let i = 2; i < process.argv.length; i += 2) options.set(process.argv[i]!, process.argv[i + 1] ?? "");
const job = options.get("--job") ?? "";
if (!/^\d+$/.test(job) || [...options.keys()].some((k) => !["--job", "--address", "--who"].includes(k))) {
  console.error(`Read ${JSON.stringify(process.argv.slice(2).join(" "))}; accepted: ${USAGE}`);
  process.exit(2);
}
const base = `${(options.get("--address") ?? "http://127.0.0.1:4730").replace(/\/$/, "")}/api/v1/jobs/${job}`;
const who = options.get("--who");
/** Where people sign in, an instrument has a token of its bench: made at Settings. Its own certificate is trusted by NODE_EXTRA_CA_CERTS. */
const token = process.env.SCUTUM_TOKEN;
const signed: Record<string, string> = token ? { authorization: `Bearer ${token}` } : {};

const bridge = new Bridge();
/** What has not been acknowledged yet, in its order. A reading keeps its id, so that it is logged once however often it is sent. */
const waiting: { path: string; type: string; body: string; keep: boolean }[] = [];
let sending = false;
let ended = false;
let lost = false;

async function send(): Promise<void> {
  if (sending) return;
  sending = true;
  while (waiting.length > 0) {
    const next = waiting[0]!;
    try {
      const response = await fetch(base + next.path, {
        method: "POST",
        headers: { "content-type": next.type, ...signed },
        body: next.body,
      });
      if (response.status >= 500) throw new Error(`the server answered ${response.status}`);
      if (!response.ok) console.error(`refused: ${((await response.json()) as { error: string }).error}`);
      if (lost) console.error("the server is reached again");
      lost = false;
      waiting.shift();
    } catch (error) {
      if (!lost) console.error(`the server is not reached (${(error as Error).message}); readings are kept and sent again`);
      lost = true;
      // What the display showed a while ago is of no use later; a taken reading is.
      for (let i = waiting.length - 1; i >= 0; i--) if (!waiting[i]!.keep) waiting.splice(i, 1);
      if (ended && waiting.length === 0) break;
      await new Promise((r) => setTimeout(r, RETRY_MS));
    }
  }
  sending = false;
  if (ended) process.exit(0);
}

/** Prints the requests as they come: "want n=4 point=V2.p kind=dcv range=1000". */
async function listen(): Promise<void> {
  for (;;) {
    try {
      const response = await fetch(`${base}/bench?as=instrument`, { headers: signed });
      if (response.status === 404) {
        console.error(((await response.json()) as { error: string }).error);
        process.exit(1);
      }
      let left = "";
      const decoder = new TextDecoder();
      for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>) {
        const parts = (left + decoder.decode(chunk, { stream: true })).split("\n\n");
        left = parts.pop()!;
        for (const part of parts) if (part.startsWith("data: ")) console.log(part.slice(6));
      }
    } catch {
      // Tried again below.
    }
    await new Promise((r) => setTimeout(r, RETRY_MS));
  }
}

void listen();
createInterface({ input: process.stdin })
  .on("line", (text) => {
    if (text.trim() === "") return;
    const act = bridge.read(text, Date.now());
    if (act.do === "refuse") return console.error(`${act.why}; read ${JSON.stringify(act.read)}; accepted: ${act.accepted}`);
    if (act.do === "pass") waiting.push({ path: "/bench", type: "text/plain", body: act.line, keep: false });
    else {
      const body = JSON.stringify({ ...(who ? { who } : {}), readings: [{ ...act.reading, id: randomUUID() }] });
      waiting.push({ path: "/readings", type: "application/json", body, keep: true });
    }
    void send();
  })
  .on("close", () => {
    ended = true;
    void send();
  });
