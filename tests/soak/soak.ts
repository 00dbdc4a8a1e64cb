/** Kills a shop with SIGKILL at random moments of what it does, and looks each time whether all that it acknowledged is there, once. */

import { execFileSync, spawn, type ChildProcess } from "node:child_process";
import { randomUUID } from "node:crypto";
import { existsSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import sharp from "sharp";
import { uniformDraws } from "../../src/core/numeric/random";
import { freePort, startServer } from "../../scripts/setup.mjs";

export const MOMENTS = ["readings", "photo", "import", "backup", "migration", "first start"] as const;
export type Moment = (typeof MOMENTS)[number];

export interface Told {
  rounds: Record<Moment, number>;
  /** What the shop acknowledged in all rounds. */
  acknowledged: { lines: number; photos: number; jobs: number; backups: number };
  /** What must not be: something acknowledged that is not there, or there twice, a part of an import, a shop that does not start. */
  failures: string[];
  /** Milliseconds from the start of a process to its first page, after each kill. */
  starts: number[];
}

interface LineSent {
  id: string;
  job: number;
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const tsx = (program: string, args: string[], data: string) =>
  spawn(process.execPath, ["node_modules/tsx/dist/cli.mjs", program, ...args], {
    env: { ...process.env, SCUTUM_DATA: data },
    stdio: "ignore",
  });
const killed = (child: ChildProcess) => {
  const ended = new Promise((resolve) => child.once("exit", resolve));
  if (child.exitCode === null && child.signalCode === null) child.kill("SIGKILL");
  else return Promise.resolve();
  return ended;
};

export class Soak {
  private readonly root = mkdtempSync(join(tmpdir(), "scutum-soak-"));
  private readonly data = join(this.root, "data");
  private readonly random: () => number;
  private readonly lines: LineSent[] = [];
  private readonly photos: string[] = [];
  private readonly jobs: { uid: string; lines: number }[] = [];
  private archive?: Uint8Array;
  readonly told: Told = {
    rounds: { readings: 0, photo: 0, import: 0, backup: 0, migration: 0, "first start": 0 },
    acknowledged: { lines: 0, photos: 0, jobs: 0, backups: 0 },
    failures: [],
    starts: [],
  };

  /** @param seed of the moments at which it kills. */
  constructor(seed: number) {
    this.random = uniformDraws(seed);
  }

  private async up(data = this.data): Promise<{ address: string; child: ChildProcess } | undefined> {
    const begun = performance.now();
    const { child, address, failed } = await startServer({ data, port: await freePort(0), quiet: true });
    if (failed !== undefined) {
      this.told.failures.push(`the shop does not start again (exit ${failed})`);
      return undefined;
    }
    await (await fetch(address)).text();
    this.told.starts.push(Math.round(performance.now() - begun));
    return { child, address };
  }

  /** One round: does something, is killed in the middle of it, starts again, and is looked at. */
  async round(moment: Moment): Promise<void> {
    this.told.rounds[moment]++;
    const wait = (least: number, most: number) => pause(least + this.random() * (most - least));
    if (moment === "first start") {
      const fresh = join(this.root, `fresh-${randomUUID()}`);
      const child = spawn(process.execPath, ["scripts/serve.mjs"], {
        env: { ...process.env, NODE_ENV: "production", SCUTUM_DATA: fresh, PORT: String(await freePort(0)) },
        stdio: "ignore",
      });
      await wait(200, 5000);
      await killed(child);
      const again = await this.up(fresh);
      if (again) await killed(again.child);
      rmSync(fresh, { recursive: true, force: true });
      return;
    }
    if (moment === "backup") {
      const file = join(this.root, `soak-${this.told.rounds.backup}.backup`);
      const child = tsx("scripts/backup.ts", [file], this.data);
      await wait(300, 8000);
      await killed(child);
      // tsx runs the program in a child of its own, which has the folder until it ends.
      await this.released();
      if (existsSync(file)) {
        this.told.acknowledged.backups++;
        execFileSync(process.execPath, ["node_modules/tsx/dist/cli.mjs", "scripts/read-backup.ts", file], { stdio: "pipe" });
      }
      return this.look();
    }
    if (moment === "migration") {
      const undo = "drop table point_places; delete from migrations where number = 6;";
      execFileSync(process.execPath, ["--import", "tsx", "tests/soak/run-sql.ts", undo], {
        env: { ...process.env, SCUTUM_DATA: this.data },
      });
      const child = spawn(process.execPath, ["scripts/serve.mjs"], {
        env: { ...process.env, NODE_ENV: "production", SCUTUM_DATA: this.data, PORT: String(await freePort(0)) },
        stdio: "ignore",
      });
      await wait(500, 6000);
      await killed(child);
      return this.look();
    }
    const shop = await this.up();
    if (!shop) return;
    await this.prepare(shop.address);
    const work = moment === "readings" ? this.logLines : moment === "photo" ? this.sendPhotos : this.importJobs;
    const until = { over: false };
    const workers = [work.call(this, shop.address, until), work.call(this, shop.address, until)];
    await wait(150, 1500);
    await killed(shop.child);
    until.over = true;
    await Promise.all(workers);
    await this.look();
  }

  /** The folder is free: the lock of the process that was killed has ended with it. */
  private async released(): Promise<void> {
    for (let i = 0; i < 100; i++) {
      try {
        execFileSync(process.execPath, ["--import", "tsx", "tests/soak/run-sql.ts", "select 1"], {
          env: { ...process.env, SCUTUM_DATA: this.data },
          stdio: "pipe",
        });
        return;
      } catch {
        // Still held by what is ending.
        await pause(200);
      }
    }
    this.told.failures.push("the folder stays locked after its process was killed");
  }

  private job = 0;

  private async prepare(address: string): Promise<void> {
    if (this.job) return;
    const answer = await fetch(`${address}/api/v1/jobs`, {
      method: "POST",
      body: JSON.stringify({ who: "J.M.", owner: "Osric Venn", amp: "Wren 5" }),
    });
    this.job = ((await answer.json()) as { id: number }).id;
    this.archive = new Uint8Array(await (await fetch(`${address}/api/v1/jobs/${this.job}/archive`)).arrayBuffer());
  }

  private async logLines(address: string, until: { over: boolean }): Promise<void> {
    for (let i = 0; !until.over; i++) {
      const ids = [randomUUID(), ...(i % 3 === 0 ? [randomUUID()] : [])];
      const events = ids.map((id) => ({
        id,
        type: "reading",
        who: "J.M.",
        payload: { point: "B1", kind: "dcv", value: 200 + (i % 90), conditions: {} },
      }));
      const body = JSON.stringify({ events });
      const stored = await this.acknowledged(() => fetch(`${address}/api/v1/jobs/${this.job}/events`, { method: "POST", body }));
      if (stored) this.lines.push(...ids.map((id) => ({ id, job: this.job })));
    }
  }

  private async sendPhotos(address: string, until: { over: boolean }): Promise<void> {
    while (!until.over) {
      const background = { r: Math.floor(this.random() * 255), g: Math.floor(this.random() * 255), b: Math.floor(this.random() * 255) };
      const bytes = await sharp({ create: { width: 300 + this.photos.length, height: 200, channels: 3, background } })
        .jpeg()
        .toBuffer();
      const answer = await this.acknowledged(() => fetch(`${address}/api/v1/photos`, { method: "POST", body: new Uint8Array(bytes) }));
      if (answer) this.photos.push((answer as { hash: string }).hash);
    }
  }

  private async importJobs(address: string, until: { over: boolean }): Promise<void> {
    while (!until.over) {
      const files = unzipSync(this.archive!);
      const job = JSON.parse(strFromU8(files["job.json"]!)) as { job: { uid: string }; events: { id: string; seq: number }[] };
      job.job.uid = randomUUID();
      job.events = Array.from({ length: 40 }, (_, i) => ({ ...job.events[0]!, seq: i + 1, id: randomUUID() }));
      const bytes = zipSync({ ...files, "job.json": strToU8(JSON.stringify(job)) });
      const taken = await this.acknowledged(() => fetch(`${address}/api/v1/import`, { method: "POST", body: bytes as never }));
      // And the last line that says where they come from.
      if (taken) this.jobs.push({ uid: job.job.uid, lines: job.events.length + 1 });
    }
  }

  /** The answer, where one came and it said that all is stored. */
  private async acknowledged(ask: () => Promise<Response>): Promise<unknown> {
    try {
      const answer = await ask();
      const body: unknown = await answer.json();
      if (!answer.ok) this.told.failures.push(`a sound request was answered ${answer.status}: ${JSON.stringify(body)}`);
      return answer.ok ? body : undefined;
    } catch {
      // The shop was killed before it answered: nothing was acknowledged.
      return undefined;
    }
  }

  /** Everything acknowledged so far is there, once; what was not acknowledged is there whole or not at all. */
  private async look(): Promise<void> {
    const shop = await this.up();
    if (!shop) return;
    await killed(shop.child);
    interface Found {
      ids: string[];
      photos: string[];
      jobs: { uid: string; lines: number; summary: number | null }[];
    }
    const text = execFileSync(process.execPath, ["--import", "tsx", "tests/soak/read-shop.ts"], {
      env: { ...process.env, SCUTUM_DATA: this.data },
      maxBuffer: 1e9,
    }).toString();
    const found = JSON.parse(text) as Found;
    const { failures, acknowledged } = this.told;
    const times = new Map<string, number>();
    for (const id of found.ids) times.set(id, (times.get(id) ?? 0) + 1);
    for (const { id } of this.lines)
      if (times.get(id) !== 1) failures.push(`line ${id} was acknowledged and is there ${times.get(id) ?? 0} times`);
    const photos = new Set(found.photos);
    for (const hash of this.photos) if (!photos.has(hash)) failures.push(`photo ${hash.slice(0, 8)} was acknowledged and is not there`);
    const jobs = new Map(found.jobs.map((j) => [j.uid, j]));
    for (const job of this.jobs)
      if (jobs.get(job.uid)?.lines !== job.lines)
        failures.push(`job ${job.uid} was acknowledged and has ${jobs.get(job.uid)?.lines ?? "no"} lines`);
    for (const j of found.jobs) if (j.summary === null) failures.push(`job ${j.uid} has ${j.lines} lines and no row on the board`);
    const left = readdirSync(this.data).filter((name) => /\.part$|unfinished|making/.test(name));
    if (left.length > 0) failures.push(`left behind: ${left.join(", ")}`);
    Object.assign(acknowledged, { lines: this.lines.length, photos: this.photos.length, jobs: this.jobs.length });
  }

  end(): void {
    rmSync(this.root, { recursive: true, force: true });
  }
}
