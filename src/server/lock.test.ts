/** One process at a time has a folder: also when several start at once, and when the last one was killed. */

import { spawn } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, relative } from "node:path";
import { createInterface } from "node:readline";
import { lockFolder } from "./lock";

const root = mkdtempSync(join(tmpdir(), "scutum-lock-"));
const folder = join(root, "data");
const link = join(root, "link");
beforeAll(() => {
  mkdirSync(folder);
  symlinkSync(folder, link);
});
afterAll(() => rmSync(root, { recursive: true, force: true }));

/** Another process, as `lock-racer-for-tests.ts` has it. */
class Racer {
  private readonly child = spawn(process.execPath, ["node_modules/tsx/dist/cli.mjs", "src/server/lock-racer-for-tests.ts"], {
    stdio: ["pipe", "pipe", "inherit"],
  });
  private readonly lines = createInterface({ input: this.child.stdout })[Symbol.asyncIterator]();

  async said(): Promise<string> {
    return (await this.lines.next()).value as string;
  }
  tell(line: string): void {
    this.child.stdin.write(`${line}\n`);
  }
  kill(): Promise<unknown> {
    const ended = new Promise((resolve) => this.child.once("exit", resolve));
    // tsx runs the program in a child of its own: closing its input ends both, a signal to the group would not reach it.
    this.child.kill("SIGKILL");
    this.child.stdin.destroy();
    return ended;
  }
}

test("of three processes that want a folder at once one gets it, in each of 40 rounds; the others are told which has it", async () => {
  const racers = [new Racer(), new Racer(), new Racer()];
  const ready = await Promise.all(racers.map((r) => r.said()));
  expect(ready).toEqual(["ready", "ready", "ready"]);
  for (let round = 0; round < 40; round++) {
    // What a process of an older program left, killed: there is no such process.
    writeFileSync(join(folder, "scutum.lock"), JSON.stringify({ pid: 4194301, host: "bench", started: "1" }));
    const names = [folder, link, relative(process.cwd(), folder)];
    racers.forEach((r, i) => r.tell(`take ${names[(i + round) % 3]}`));
    const answers = await Promise.all(racers.map((r) => r.said()));
    const [winner, ...more] = racers.filter((_, i) => answers[i] === "yes");
    expect([answers, more]).toEqual([expect.anything(), []]);
    for (const a of answers.filter((a) => a !== "yes"))
      expect(a).toMatch(/open in another Scutum \((process \d+ on|a process that has just)/);
    expect(() => lockFolder(folder)).toThrow(/open in another Scutum \(process \d+ on /);
    winner!.tell("give");
    // Given back when the next take is answered: the winner reads its lines in order.
    winner!.tell(`take ${folder}`);
    expect(await winner!.said()).toBe("yes");
    winner!.tell("give");
    winner!.tell("take /nowhere");
    expect(await winner!.said()).toMatch(/ENOENT/);
  }
  await Promise.all(racers.map((r) => r.kill()));
});

test("a folder whose holder was killed is free at once; what it wrote about itself, or half of it, does not matter", () => {
  for (const left of [JSON.stringify({ pid: process.pid, host: "bench" }), "{half", ""]) {
    writeFileSync(join(folder, "scutum.lock"), left);
    const give = lockFolder(folder);
    expect(() => lockFolder(link)).toThrow(/open in another Scutum/);
    give();
    give();
  }
});

test("a folder that cannot be written to is said to be one", () => {
  const file = join(root, "plain");
  writeFileSync(file, "");
  expect(() => lockFolder(file)).toThrow(/cannot be written to/);
});
