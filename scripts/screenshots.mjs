/** npm run screenshots: one picture of each main view, from a fresh demo shop, into docs/screenshots. */

import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ensureBuilt, ensureChromium, ensureInstalled, fail, freePort, run, say, startServer } from "./setup.mjs";

ensureInstalled();
ensureBuilt();
const executablePath = ensureChromium();
const { chromium } = await import("@playwright/test");
const data = mkdtempSync(join(tmpdir(), "scutum-shots-"));
run(process.execPath, ["node_modules/tsx/dist/cli.mjs", "demo/main.ts"], { env: { SCUTUM_DATA: data } });
const server = await startServer({ data, port: await freePort(0), quiet: true });
if (server.failed !== undefined) fail("the server did not start.");

/** [file, path, theme] */
const VIEWS = [
  ["board", "/", "enamel"],
  ["intake", "/jobs/1004/intake", "enamel"],
  ["make-safe", "/jobs/1008/make-safe", "enamel"],
  ["look", "/jobs/1009/look", "ledger"],
  ["cold-checks", "/jobs/1009/cold-checks", "enamel"],
  ["isolation", "/jobs/1009/bring-up", "enamel"],
  ["walk", "/jobs/1004/walk", "enamel"],
  ["suspects", "/jobs/1004/suspects", "enamel"],
  ["signal", "/jobs/1011/signal", "ledger"],
  ["noise", "/jobs/1003/noise", "enamel"],
  ["work", "/jobs/1018/work#Plan", "enamel"],
  ["capacitors", "/jobs/1017/work", "ledger"],
  ["output-stage", "/jobs/1014/output-stage", "enamel"],
  ["prove", "/jobs/1001/prove", "ledger"],
  ["return", "/jobs/1001/return", "enamel"],
  ["report", "/jobs/1001/report", "ledger"],
  ["model", "/library/2", "enamel"],
  ["new-model", "/library/new", "ledger"],
  // Last: it puts an amp on, which the board would show.
  ["probe", "/jobs/1008/probe", "enamel"],
];
/** On since ten minutes ago and checked, so that probe mode begins with a point. */
async function putOn(job, without) {
  const at = new Date(Date.now() - 600_000).toISOString();
  await log(
    job,
    {
      type: "gate-passed",
      at,
      payload: {
        station: "bring-up",
        reason: "isolation, rails, bias, fuse, straight, danger, series: seen to before the picture",
        understood: true,
      },
    },
    { type: "power", at, payload: { state: "on", plug: "in", through: "variable", ...(without ? { without } : {}) } },
    { type: "live-check", at, payload: { confirmed: ["all"] } },
    // Somebody has stood there just now: else the guard would ask.
    { type: "note", payload: { text: "Warm, idle" } },
  );
}
const every = ["V1", "V2", "V3", "V4", "V5", "V6", "V7"];
const off = { type: "power", payload: { state: "off", plug: "out" } };
const ohm = (point, value) => ({ type: "reading", payload: { point, kind: "ohm", value, digits: 3, conditions: {} } });
const current = (volts, amps) => ({ type: "mains-current", payload: { volts, amps, stage: "no-tubes" } });
const answer = (test, what, outcome, ohms) => ({ type: "isolation-step", payload: { test, what, outcome, ...(ohms ? { ohms } : {}) } });
/** What has to happen to a job before its picture is taken. */
const BEFORE = {
  "make-safe": async () => {
    await putOn(1008);
    await log(1008, off);
  },
  "cold-checks": () =>
    log(1009, ohm("b1:0", 216e3), ohm("b2:0", 217e3), ohm("b3:0", 226e3), ohm("b4:0", 241e3), ohm("b1:p4", 183), ohm("b1:p5", 197)),
  "bring-up": async () => {
    await putOn(1008, every);
    await log(
      1008,
      { type: "stage", payload: { stage: "no-tubes", result: "open again" } },
      current(58, 0.018),
      current(115, 0.035),
      current(172, 0.053),
    );
  },
  isolation: () =>
    log(
      1009,
      answer("ohm:b1:0", "Ohms from Reservoir (C1 +) to chassis, plug out", "as it should be", 216e3),
      answer("power:rectifier", "Power, only V6 in", "bright"),
      answer("power:no-tubes", "Power, every tube out", "bright"),
    ),
  "output-stage": async () => {
    await putOn(1014);
    const volts = (point, value) => ({
      type: "reading",
      payload: { point, kind: "dcv", value, digits: 3, conditions: { mains: 230, warmMinutes: 9 } },
    });
    await log(1014, { type: "mains", payload: { volts: 230 } }, volts("V5.k", 0.125), volts("V6.k", 0.082), volts("B1", 444));
  },
  probe: async () => {
    await log(1008, off);
    await putOn(1008);
  },
};
/** Puts lines on a job's tape. */
async function log(job, ...lines) {
  const events = lines.map((line) => ({ who: "J.M.", ...line }));
  const answered = await fetch(`${server.address}/api/v1/jobs/${job}/events`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ events }),
  });
  if (!answered.ok) fail(`job ${job}: ${await answered.text()}`);
}
try {
  const browser = await chromium.launch({
    executablePath,
    args: [
      "--no-sandbox",
      "--disable-gpu",
      "--disable-quic",
      "--no-first-run",
      "--disable-background-networking",
      "--disable-component-update",
      "--disable-sync",
    ],
  });
  for (const [name, path, theme] of VIEWS) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: "en-GB" });
    await context.addCookies([{ name: "scutum-theme", value: theme, url: server.address }]);
    const page = await context.newPage();
    await BEFORE[name]?.();
    await page.goto(server.address + path);
    // Long enough for the solver to have answered.
    await page.waitForTimeout(
      /library|walk|suspects|bring-up|cold-checks|make-safe|work|output-stage|signal/.test(path) ? 4000 : name === "probe" ? 21_000 : 600,
    );
    // What is drawn comes later than the rest of a station.
    await page.getByText("Drawing the circuit…").waitFor({ state: "detached", timeout: 30_000 });
    if (name === "noise") await page.getByRole("tab", { name: "Where it enters" }).click();
    if (name === "noise") await page.getByRole("region", { name: "Possible causes" }).waitFor({ timeout: 60_000 });
    if (name === "signal") await page.getByLabel("Part and new value").fill("R17=4.7k");
    if (name === "signal") await page.getByRole("button", { name: "Predict" }).click();
    if (name === "signal") await page.getByText("→").first().waitFor();
    if (name === "new-model") {
      await page.getByLabel(/Which tubes are in it/).fill("12AX7 12AX7 6V6 6V6 5Y3");
      await page.keyboard.press("Enter");
      const entry = page.locator("foreignObject input");
      await entry.waitFor({ timeout: 60_000 });
      for (const value of ["330", "16u", "1k", "16u", "", "", "", "", "68k", "1M"]) {
        await entry.fill(value);
        await page.keyboard.press("Enter");
        await page.waitForTimeout(150);
      }
      await page.waitForTimeout(2500);
    }
    if (name === "capacitors") {
      await page.getByRole("tab", { name: "Capacitors" }).click();
      await page.getByRole("row", { name: /^C1 .*tubes out/ }).waitFor({ timeout: 60_000 });
    }
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
    say(`docs/screenshots/${name}.png`);
    await context.close();
  }
  await browser.close();
} finally {
  server.child.kill("SIGTERM");
  await server.ended;
  rmSync(data, { recursive: true, force: true });
}
