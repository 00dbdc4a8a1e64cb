/** Plain HTTP against a running shop: paths and bodies go out as they are given, and every answer is timed. */

import { Agent, request } from "node:http";

export interface Answer {
  status: number;
  text: string;
  ms: number;
}

/** No answer of a sound server takes this long; the attack is broken off. */
const GIVE_UP_MS = 60_000;
const SLOW_MS = 2000;

export class Client {
  private readonly agent = new Agent({ keepAlive: true, maxSockets: 8 });
  private readonly url: URL;
  /** The longest answer so far, and what was asked. */
  slowest = { ms: 0, what: "" };
  /** How many took longer than anybody should wait. */
  slow = 0;

  constructor(address: string) {
    this.url = new URL(address);
  }

  send(method: string, path: string, body?: string | Uint8Array, type = "application/json"): Promise<Answer> {
    const begun = performance.now();
    return new Promise((resolve, reject) => {
      const headers = body === undefined ? {} : { "content-type": type, "content-length": Buffer.byteLength(body) };
      const out = request({ host: this.url.hostname, port: this.url.port, method, path, headers, agent: this.agent }, (answer) => {
        const parts: Buffer[] = [];
        answer.on("data", (part: Buffer) => parts.push(part));
        answer.on("error", reject);
        // A stream of lines never ends of itself: its beginning is the answer.
        if (answer.headers["content-type"]?.startsWith("text/event-stream")) answer.once("data", () => answer.destroy());
        answer.on("close", () => {
          const ms = performance.now() - begun;
          if (ms > SLOW_MS) this.slow++;
          if (ms > this.slowest.ms) this.slowest = { ms, what: `${method} ${path.slice(0, 80)}` };
          resolve({ status: answer.statusCode!, text: Buffer.concat(parts).toString("utf8"), ms });
        });
      });
      out.setTimeout(GIVE_UP_MS, () => out.destroy(new Error(`no answer in ${GIVE_UP_MS / 1000} s to ${method} ${path.slice(0, 80)}`)));
      out.on("error", reject);
      out.end(body);
    });
  }

  /** A request that has to be taken. @throws Error with what the server said. */
  async json<T>(method: string, path: string, body?: unknown): Promise<T> {
    const answer = await this.send(method, path, body === undefined ? undefined : JSON.stringify(body));
    if (answer.status >= 300) throw new Error(`${method} ${path}: ${answer.status} ${answer.text.slice(0, 300)}`);
    return JSON.parse(answer.text) as T;
  }

  close(): void {
    this.agent.destroy();
  }
}
