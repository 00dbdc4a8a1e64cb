/** Several benches on one shop behind two server processes and one PostgreSQL: readings posted, streams open, a process killed in the middle. */

import { spawn, type ChildProcess } from "node:child_process";
import { randomUUID } from "node:crypto";
import { freePort } from "../../scripts/setup.mjs";
import { startCluster } from "../../src/server/postgres-for-tests";

export interface LoadOptions {
  benches: number;
  seconds: number;
  /** Between two readings of a bench. */
  everyMs: number;
}

export interface LoadTold {
  posted: number;
  /** Milliseconds from a reading to its acknowledgement, sorted; one that met a process which was being killed counts from its first try. */
  times: number[];
  /** Milliseconds from the acknowledgement of a line to its arrival on another bench's stream, sorted. */
  shown: number[];
  retried: number;
  failures: string[];
  /** MB of both processes at each tenth of the time. */
  memory: number[];
}

class Process {
  child!: ChildProcess;
  readonly address: string;
  constructor(
    private readonly url: string,
    private readonly port: number,
  ) {
    this.address = `http://127.0.0.1:${port}`;
  }
  async start(): Promise<void> {
    this.child = spawn(process.execPath, ["scripts/serve.mjs"], {
      env: { ...process.env, NODE_ENV: "production", DATABASE_URL: this.url, PORT: String(this.port) },
      stdio: ["ignore", "ignore", "inherit"],
    });
    for (let i = 0; i < 600; i++) {
      if (
        await fetch(`${this.address}/api/v1/settings`).then(
          (r) => r.ok,
          () => false,
        )
      )
        return;
      await pause(100);
    }
    throw new Error("a server process did not start");
  }
  async kill(): Promise<void> {
    const ended = new Promise((resolve) => this.child.once("exit", resolve));
    this.child.kill("SIGKILL");
    await ended;
  }
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** One bench: posts readings to its job, and watches it through the other process. */
class Bench {
  readonly sent: string[] = [];
  readonly seen = new Set<string>();
  private readonly acknowledgedAt = new Map<string, number>();

  constructor(
    private readonly job: number,
    private readonly mine: Process,
    private readonly other: Process,
    private readonly told: LoadTold,
  ) {}

  async post(i: number): Promise<void> {
    const id = randomUUID();
    const body = JSON.stringify({
      events: [{ id, type: "reading", who: "J.M.", payload: { point: "B1", kind: "dcv", value: 200 + (i % 90), conditions: {} } }],
    });
    const begun = performance.now();
    // As a browser does: to the same line again until it is answered; by the other process when its own is gone.
    for (let tries = 0; ; tries++) {
      const to = tries % 2 === 0 ? this.mine : this.other;
      const answer = await fetch(`${to.address}/api/v1/jobs/${this.job}/events`, { method: "POST", body }).catch(() => undefined);
      if (answer?.ok) break;
      if (answer && answer.status < 500)
        this.told.failures.push(`a sound reading was answered ${answer.status}: ${(await answer.text()).slice(0, 200)}`);
      if (tries > 100 || (answer && answer.status < 500)) return;
      this.told.retried++;
      await pause(100);
    }
    this.acknowledgedAt.set(id, performance.now());
    this.told.times.push(performance.now() - begun);
    this.told.posted++;
    this.sent.push(id);
  }

  /** Holds a stream until `over`, joined again where it broke off. */
  async watch(over: () => boolean): Promise<void> {
    let after = 0;
    while (!over()) {
      try {
        const answer = await fetch(`${this.other.address}/api/v1/jobs/${this.job}/live?after=${after}&who=R.T.&screen=${this.job}`);
        const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
        let text = "";
        while (!over()) {
          const { done, value } = await reader.read();
          if (done) break;
          text += value;
          for (let end = text.indexOf("\n\n"); end >= 0; end = text.indexOf("\n\n")) {
            const data = /event: lines\ndata: (.*)/.exec(text.slice(0, end))?.[1];
            text = text.slice(end + 2);
            for (const line of data ? (JSON.parse(data) as { id: string; seq: number }[]) : []) {
              const at = this.acknowledgedAt.get(line.id);
              if (at !== undefined && !this.seen.has(line.id)) this.told.shown.push(Math.max(0, performance.now() - at));
              if (line.seq <= after) this.told.failures.push(`line ${line.seq} of job ${this.job} came twice on one stream`);
              after = line.seq;
              this.seen.add(line.id);
            }
          }
        }
        await reader.cancel();
      } catch {
        // The process was killed: the stream is joined again.
        await pause(200);
      }
    }
  }
}

/** Whether a page at one process is told who has the job open at the other. */
async function seesAcross(job: number, here: Process, there: string): Promise<boolean> {
  const stop = new AbortController();
  const timer = setTimeout(() => stop.abort(), 20_000);
  try {
    const answer = await fetch(`${here.address}/api/v1/jobs/${job}/live?after=0&who=P.Q.&screen=looking`, { signal: stop.signal });
    let text = "";
    for await (const part of answer.body!.pipeThrough(new TextDecoderStream()) as unknown as AsyncIterable<string>) {
      text += part;
      if (text.includes(`"screen":"${there}"`)) return true;
    }
    return false;
  } catch (error) {
    if ((error as Error).name === "AbortError") return false;
    throw error;
  } finally {
    clearTimeout(timer);
    stop.abort();
  }
}

const memoryOf = async (p: Process) => {
  const { readFileSync } = await import("node:fs");
  try {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${p.child.pid}/status`, "utf8"))?.[1] ?? 0) / 1024;
  } catch {
    // Just killed.
    return 0;
  }
};

export async function load({ benches, seconds, everyMs }: LoadOptions): Promise<LoadTold> {
  const cluster = await startCluster();
  const told: LoadTold = { posted: 0, times: [], shown: [], retried: 0, failures: [], memory: [] };
  const [one, two] = [new Process(cluster.url, await freePort(0)), new Process(cluster.url, await freePort(0))];
  try {
    // Both at once: one changes the tables, the other waits for it.
    await Promise.all([one.start(), two.start()]);
    const all: Bench[] = [];
    const jobs: number[] = [];
    for (let i = 0; i < benches; i++) {
      const answer = await fetch(`${one.address}/api/v1/jobs`, {
        method: "POST",
        body: JSON.stringify({ who: "J.M.", owner: `Owner ${i}`, amp: "Wren 5" }),
      });
      jobs.push(((await answer.json()) as { id: number }).id);
      const [mine, other] = i % 2 === 0 ? [one, two] : [two, one];
      all.push(new Bench(jobs.at(-1)!, mine!, other!, told));
    }
    const end = Date.now() + seconds * 1000;
    let over = false;
    const watching = all.map((b) => b.watch(() => over));
    if (!(await seesAcross(jobs[0]!, one, String(jobs[0]))))
      told.failures.push("who has a job open at one process is not told at the other");
    const posting = all.map(async (b, k) => {
      await pause((k / benches) * everyMs);
      for (let i = 0; Date.now() < end; i++) {
        const begun = Date.now();
        await b.post(i);
        await pause(Math.max(0, begun + everyMs - Date.now()));
      }
    });
    const killing = (async () => {
      for (const [victim, at] of [
        [one, 0.35],
        [two, 0.65],
      ] as const) {
        await pause(seconds * 1000 * at - (Date.now() - (end - seconds * 1000)));
        await victim.kill();
        await pause(500);
        await victim.start();
      }
    })();
    const measuring = (async () => {
      while (Date.now() < end) {
        told.memory.push((await memoryOf(one)) + (await memoryOf(two)));
        await pause(Math.max(1000, seconds * 100));
      }
    })();
    await Promise.all([...posting, killing, measuring]);
    // What was acknowledged last has still to be shown.
    for (let i = 0; i < 100 && all.some((b) => b.sent.some((id) => !b.seen.has(id))); i++) await pause(100);
    over = true;
    for (const [i, b] of all.entries()) {
      const { events } = (await (await fetch(`${one.address}/api/v1/jobs/${jobs[i]}/events`)).json()) as {
        events: { id: string; type: string }[];
      };
      const stored = events.filter((e) => e.type === "reading").map((e) => e.id);
      if (new Set(stored).size !== stored.length) told.failures.push(`job ${jobs[i]} has a line twice`);
      for (const id of b.sent) if (!stored.includes(id)) told.failures.push(`line ${id} was acknowledged and is not there`);
      const unseen = b.sent.filter((id) => !b.seen.has(id)).length;
      if (unseen > 0) told.failures.push(`${unseen} lines of job ${jobs[i]} were not shown on the other bench`);
    }
    await Promise.all([one.kill(), two.kill()]);
    await Promise.all(watching);
  } finally {
    cluster.stop();
  }
  told.times.sort((a, b) => a - b);
  told.shown.sort((a, b) => a - b);
  return told;
}
