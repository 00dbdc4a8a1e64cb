/** One shop in a folder for hours: simulated benches that show, streams that listen, readings that are logged; and the memory of the server. */

import { spawn } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort } from "../../scripts/setup.mjs";

export interface LongBenchOptions {
  minutes: number;
  /** Streams that are held all the time, half of them of tapes and half of instruments. */
  streams: number;
  /** Between two readings of a job. */
  everyMs: number;
  /** Readings that each bench logs at least, however long a busy machine takes for them. */
  atLeast?: number;
  /** A folder with the demo shop; it is copied. */
  demo: string;
}

export interface LongBenchTold {
  logged: number;
  /** Lines of instruments that were heard. */
  heard: number;
  failures: string[];
  /** Minutes since the start, and MB that the server's process holds; twenty times, or each minute. */
  memory: { minute: number; mb: number }[];
  /** MB an hour that the memory grew by over the second half: the slope of the least squares. */
  slope: number;
}

/** Jobs of the demo shop whose amp is on the simulated bench. */
const JOBS = [1001, 1003, 1005, 1007, 1008];
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

export async function longBench({ minutes, streams, everyMs, atLeast = 0, demo }: LongBenchOptions): Promise<LongBenchTold> {
  const folder = mkdtempSync(join(tmpdir(), "scutum-long-"));
  cpSync(demo, folder, { recursive: true });
  const port = await freePort(0);
  const address = `http://127.0.0.1:${port}`;
  const server = spawn(process.execPath, ["scripts/serve.mjs"], {
    env: { ...process.env, NODE_ENV: "production", SCUTUM_DATA: folder, PORT: String(port) },
    stdio: ["ignore", "ignore", "inherit"],
  });
  const told: LongBenchTold = { logged: 0, heard: 0, failures: [], memory: [], slope: 0 };
  const stop = new AbortController();
  try {
    while (
      !(await fetch(`${address}/api/v1/settings`).then(
        (r) => r.ok,
        () => false,
      ))
    ) {
      if (server.exitCode !== null) throw new Error("the server did not start");
      await pause(100);
    }
    const log = async (job: number, type: string, payload: object) => {
      const answer = await fetch(`${address}/api/v1/jobs/${job}/events`, {
        method: "POST",
        body: JSON.stringify({ events: [{ type, who: "J.M.", payload }] }),
      });
      if (answer.ok) told.logged++;
      else told.failures.push(`${type} of job ${job}: ${answer.status} ${(await answer.text()).slice(0, 200)}`);
    };
    for (const job of JOBS) {
      // The first went back to its owner in the demo.
      if (job === JOBS[0]) await log(job, "taken-in", { why: "a long run on the bench" });
      const reason = "isolation, rails, bias, fuse, straight, danger, series: a simulated amp";
      await log(job, "gate-passed", { station: "bring-up", reason, understood: true });
      await log(job, "power", { state: "on", plug: "in" });
    }

    const listen = async (way: string) => {
      const answer = await fetch(address + way, { signal: stop.signal });
      const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
      for (;;) {
        const { done, value } = await reader.read();
        if (done) return void told.failures.push(`the stream ${way} ended`);
        told.heard += value.split("\ndata:").length - 1;
      }
    };
    const listening = Array.from({ length: streams }, (_, i) => {
      const job = JOBS[Math.floor(i / 2) % JOBS.length]!;
      const way = i % 2 === 0 ? `/api/v1/jobs/${job}/live?after=0&who=R.T.&screen=${i}` : `/api/v1/jobs/${job}/bench`;
      return listen(way).catch((error: Error) => {
        if (!stop.signal.aborted) told.failures.push(`the stream ${way}: ${error.message}`);
      });
    });

    const begun = Date.now();
    const end = begun + minutes * 60_000;
    const posting = JOBS.map(async (job, k) => {
      await pause((k / JOBS.length) * everyMs);
      for (let i = 0; i < atLeast || Date.now() < end; i++) {
        const due = Date.now() + everyMs;
        await log(job, "reading", { point: "B1", kind: "dcv", value: 200 + (i % 90), conditions: {} });
        // Somebody opens a station now and then.
        if (i % 15 === 0) await (await fetch(`${address}/jobs/${job}/walk`)).arrayBuffer();
        await pause(Math.max(0, due - Date.now()));
      }
    });
    const measuring = (async () => {
      const every = Math.min(60_000, (minutes * 60_000) / 20);
      while (Date.now() < end) {
        await pause(every);
        const [, kb] = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, "utf8")) ?? [];
        told.memory.push({ minute: (Date.now() - begun) / 60_000, mb: Number(kb) / 1024 });
      }
    })();
    await Promise.all([...posting, measuring]);
    stop.abort();
    await Promise.all(listening);
    told.slope = slopeOf(told.memory.slice(told.memory.length / 2));
  } finally {
    stop.abort();
    server.kill("SIGKILL");
    await new Promise((resolve) => (server.exitCode === null && server.signalCode === null ? server.once("exit", resolve) : resolve(null)));
    rmSync(folder, { recursive: true, force: true });
  }
  return told;
}

/** MB an hour, by least squares. */
function slopeOf(points: { minute: number; mb: number }[]): number {
  const mean = (f: (p: { minute: number; mb: number }) => number) => points.reduce((sum, p) => sum + f(p), 0) / points.length;
  const [m, v] = [mean((p) => p.minute), mean((p) => p.mb)];
  const over = mean((p) => (p.minute - m) ** 2);
  return over === 0 ? 0 : (60 * mean((p) => (p.minute - m) * (p.mb - v))) / over;
}
