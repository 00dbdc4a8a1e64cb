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
  ["new-job", "/jobs/new", "ledger"],
  ["intake", "/jobs/1004/intake", "enamel"],
  ["make-safe", "/jobs/1004/make-safe", "enamel"],
  ["look", "/jobs/1003/look", "ledger"],
  ["cold-checks", "/jobs/1003/cold-checks", "enamel"],
  ["bring-up", "/jobs/1005/bring-up", "enamel"],
  ["walk", "/jobs/1004/walk", "enamel"],
  ["walk-ledger", "/jobs/1001/walk", "ledger"],
  ["suspects", "/jobs/1004/suspects", "enamel"],
  ["work", "/jobs/1005/work", "enamel"],
  ["output-stage", "/jobs/1005/output-stage", "enamel"],
  ["prove", "/jobs/1001/prove", "ledger"],
  ["return", "/jobs/1001/return", "enamel"],
  ["report", "/jobs/1001/report", "ledger"],
  ["settings", "/settings", "enamel"],
  ["library", "/library", "ledger"],
  ["model", "/library/2", "enamel"],
  // Last: it puts an amp on, which the board would show.
  ["probe", "/jobs/1008/probe", "enamel"],
];
/** On since ten minutes ago and checked, so that probe mode begins with a point. */
async function putOn(job) {
  const at = new Date(Date.now() - 600_000).toISOString();
  const events = [
    { type: "power", who: "J.M.", at, payload: { state: "on", plug: "in", through: "variable" } },
    { type: "live-check", who: "J.M.", at, payload: { confirmed: ["all"] } },
  ];
  await fetch(`${server.address}/api/v1/jobs/${job}/events`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ events }),
  });
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
    if (name === "probe") await putOn(1008);
    await page.goto(server.address + path);
    // Long enough for the solver to have answered.
    await page.waitForTimeout(path.startsWith("/library") || /walk|suspects/.test(path) ? 3000 : name === "probe" ? 21_000 : 600);
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
