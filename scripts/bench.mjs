/** npm run bench: the speed targets, measured on a shop that it makes itself. Writes docs/performance.md. */

import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { cpus, tmpdir } from "node:os";
import { join } from "node:path";
import { benchDrawing, benchScripts } from "./bench-screen.mjs";
import { fail, ensureBuilt, ensureChromium, ensureInstalled, freePort, run, say, startServer } from "./setup.mjs";

ensureInstalled();
if (process.argv[2] === "suspects") {
  process.exit(run(process.execPath, ["node_modules/tsx/dist/cli.mjs", "scripts/bench-suspects.ts"], { must: false }));
}
ensureBuilt();
const rows = [];
const row = (what, figure, target) => {
  rows.push([what, figure, target]);
  say(`${what}: ${figure} (target ${target})`);
};
const percentile = (times, p) => [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * p))];

const STATIONS = "intake make-safe look cold-checks bring-up walk suspects signal noise work output-stage prove return".split(" ");

const folder = mkdtempSync(join(tmpdir(), "scutum-bench-"));
const demo = mkdtempSync(join(tmpdir(), "scutum-bench-demo-"));
try {
  say("making a shop with 2,000 jobs and 200,000 readings…");
  run(process.execPath, ["node_modules/tsx/dist/cli.mjs", "demo/large.ts"], { env: { SCUTUM_DATA: folder } });
  const server = await startServer({ data: folder, port: await freePort(0), quiet: true });
  try {
    for (const [what, path] of [
      ["board page, 2,000 jobs", "/"],
      ["search, one word", "/api/v1/search?q=marrowby"],
      ["search, two words in notes and parts", "/api/v1/search?q=hum%20630"],
      ["search, nothing found", "/api/v1/search?q=zzzz"],
      ["a job's page, with what 2,000 jobs of its model teach", "/jobs/1500/walk"],
      ["similar old cases among 2,000", "/api/v1/jobs/1500/similar"],
    ]) {
      const times = [];
      for (let i = 0; i < 33; i++) {
        const start = performance.now();
        await (await fetch(server.address + path)).arrayBuffer();
        if (i >= 3) times.push(performance.now() - start);
      }
      row(what, `median ${percentile(times, 0.5).toFixed(0)} ms, 95th percentile ${percentile(times, 0.95).toFixed(0)} ms`, "150 ms");
    }
    const times = [];
    for (let i = 0; i < 60; i++) {
      const body = JSON.stringify({
        events: [{ type: "reading", who: "J.M.", payload: { point: "B1", kind: "dcv", value: 300 + i, conditions: {} } }],
      });
      const start = performance.now();
      await (
        await fetch(`${server.address}/api/v1/jobs/1001/events`, { method: "POST", headers: { "content-type": "application/json" }, body })
      ).arrayBuffer();
      if (i >= 5) times.push(performance.now() - start);
    }
    row(
      "a reading stored, on disk and answered",
      `median ${percentile(times, 0.5).toFixed(0)} ms, 95th percentile ${percentile(times, 0.95).toFixed(0)} ms`,
      "none set",
    );
  } finally {
    server.child.kill("SIGTERM");
    await server.ended;
  }

  run(process.execPath, ["node_modules/tsx/dist/cli.mjs", "demo/main.ts"], { env: { SCUTUM_DATA: demo } });
  const start = performance.now();
  const warm = await startServer({ data: demo, port: await freePort(0), quiet: true });
  try {
    await (await fetch(warm.address)).text();
    row("warm start of the demo to its first page", `${((performance.now() - start) / 1000).toFixed(1)} s`, "5 s");
    const paths = [
      "/",
      "/jobs/new",
      "/settings",
      "/library/1",
      "/guide",
      ...STATIONS.map((s) => `/jobs/1004/${s}`),
      "/jobs/1004/probe",
      "/jobs/1012/report",
    ];
    for (const measured of await benchScripts(warm.address, ensureChromium(), paths)) row(...measured);
    for (const measured of await benchDrawing(warm.address, ensureChromium())) row(...measured);
  } finally {
    warm.child.kill("SIGTERM");
    await warm.ended;
  }
} finally {
  for (const f of [folder, demo]) rmSync(f, { recursive: true, force: true });
}

say("measuring the engine…");
const engineRows = ["scripts/bench-beside-spice.ts", "scripts/bench-engine.ts"].flatMap((script) => {
  const engine = spawnSync(process.execPath, ["node_modules/tsx/dist/cli.mjs", script], { encoding: "utf8" });
  if (engine.status !== 0) fail(engine.stderr || "the engine's bench failed");
  return engine.stdout
    .split("\n")
    .filter((line) => line.startsWith("["))
    .map((line) => JSON.parse(line));
});
for (const [what, measured, target] of engineRows) say(`${what}: ${measured} (target ${target})`);
const engineTable = engineRows.map((r) => `| ${r.join(" | ")} |`).join("\n");

say("measuring the drawing…");
const drawings = spawnSync(process.execPath, ["node_modules/tsx/dist/cli.mjs", "scripts/bench-drawing.ts"], { encoding: "utf8" });
if (drawings.status !== 0) fail(drawings.stderr || "the drawing's bench failed");
const drawingRows = drawings.stdout
  .split("\n")
  .filter((line) => line.startsWith("["))
  .map((line) => JSON.parse(line));
for (const [amp, time, crossings, bends] of drawingRows) say(`${amp}: ${time}, ${crossings} crossings, ${bends} bends`);
const drawingTable = drawingRows.map((r) => `| ${r.join(" | ")} |`).join("\n");

const table = rows.map((r) => `| ${r.join(" | ")} |`).join("\n");
writeFileSync(
  "docs/performance.md",
  `# Performance\n\nMeasured by \`npm run bench\` on ${cpus().length} cores (${cpus()[0]?.model.trim() ?? "unknown"}), Node.js ${process.versions.node}, ${new Date().toISOString().slice(0, 10)}. Times are over HTTP on the same machine, the page or answer read to its end.\n\n| what | measured | target |\n| --- | --- | --- |\n${table}\n\nThe time from Enter on a reading to its verdict on screen is measured in the browser by the end-to-end tests, which print it: the verdict is computed in the page, so it does not wait for the server.\n\n## The engine\n\nMedians of repeated runs in one Node.js process, warm. The same code runs in the browser's worker. What stands beside a general SPICE was measured in the same minute: its share says more than the milliseconds, which double and halve with what else the machine does.\n\n| what | measured | target |\n| --- | --- | --- |\n${engineTable}\n\n## The drawing\n\nThe layout of each amp in one Node.js process, median of five (target 1.5 s for the largest, in the worker), and how good it is to read: a change that raises crossings or bends makes the drawing worse.\n\n| amp | layout | crossings | bends | size in units |\n| --- | --- | --- | --- | --- |\n${drawingTable}\n`,
);
