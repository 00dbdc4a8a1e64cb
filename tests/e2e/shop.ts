/** Starts the built application on a data folder of its own, for one test file. */

import { spawn, type ChildProcess } from "node:child_process";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import type { Page } from "@playwright/test";
import { tmpdir } from "node:os";
import { join } from "node:path";

export class Shop {
  private child?: ChildProcess;
  /** What the server printed as an error of its own: a page that could not be drawn, a request that threw. */
  private errors: string[] = [];
  address = "";

  private constructor(
    readonly folder: string,
    private readonly port: number,
    private readonly env: Record<string, string>,
  ) {}

  static async open(options: { demo?: boolean; env?: Record<string, string> } = {}): Promise<Shop> {
    const shop = new Shop(mkdtempSync(join(tmpdir(), "scutum-e2e-")), await ownPort(), options.env ?? {});
    if (options.demo) cpSync(process.env.SCUTUM_E2E_DEMO!, shop.folder, { recursive: true });
    await shop.start();
    return shop;
  }

  async start(): Promise<void> {
    this.address = `http://127.0.0.1:${this.port}`;
    // A test's server is over before optimising the database's machine code would pay.
    this.child = spawn(process.execPath, ["--liftoff-only", "scripts/serve.mjs"], {
      env: {
        ...process.env,
        NODE_ENV: "production",
        SCUTUM_DATA: this.folder,
        SCUTUM_HOST: "127.0.0.1",
        PORT: String(this.port),
        NEXT_TELEMETRY_DISABLED: "1",
        ...this.env,
      },
      stdio: ["ignore", "ignore", "pipe"],
    });
    this.child.stderr!.setEncoding("utf8").on("data", (text: string) => {
      process.stderr.write(text);
      this.errors.push(...text.split("\n").filter((line) => line.includes("⨯")));
    });
    const deadline = Date.now() + 300_000;
    while (
      !(await fetch(`${this.address}/api/v1/settings`).then(
        // Shut, the door answers a stranger with 401: the server is there.
        (r) => r.ok || r.status === 401,
        () => false,
      ))
    ) {
      if (Date.now() > deadline || this.child.exitCode !== null) throw new Error("the server did not start");
      await new Promise((r) => setTimeout(r, 100));
    }
  }

  /** Ends the server the hard way, as a power cut would. */
  async kill(): Promise<void> {
    const ended = new Promise((r) => this.child!.once("exit", r));
    this.child!.kill("SIGKILL");
    await ended;
  }

  async close(): Promise<void> {
    if (this.child?.exitCode === null && this.child.signalCode === null) await this.kill();
    inUse.delete(this.port);
    rmSync(this.folder, { recursive: true, force: true });
    if (this.errors.length > 0) throw new Error(`the server printed errors:\n${this.errors.join("\n")}`);
  }
}

const FIRST_PORT = 47_300;
const PORTS_A_WORKER = 8;
const inUse = new Set<number>();

/** The same ports for each file that a worker runs: for the browser it is one site, of which it keeps the scripts. Another where all are taken. */
async function ownPort(): Promise<number> {
  const first = FIRST_PORT + PORTS_A_WORKER * Number(process.env.TEST_PARALLEL_INDEX ?? 0);
  for (let port = first; port < first + PORTS_A_WORKER; port++) {
    if (inUse.has(port) || !(await freePort(port).catch(() => undefined))) continue;
    inUse.add(port);
    return port;
  }
  return freePort();
}

/** A port that nobody listens on. @param wanted this one, or an error. */
export function freePort(wanted = 0): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once("error", reject);
    probe.listen(wanted, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

/** Ticks every condition of the safety check, as somebody who has looked at each. */
export async function tickAll(page: Page): Promise<void> {
  const boxes = page.getByRole("dialog").getByRole("checkbox");
  await boxes.first().waitFor();
  for (let i = 0; i < (await boxes.count()); i++) await boxes.nth(i).check();
}
