/** Makes the demo shop's data once for the whole run; each test file takes a copy. */

import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** Playwright's global setup. The tests find the folder in SCUTUM_E2E_DEMO. Returns what clears it away. */
export default function makeDemoShop(): () => void {
  // npm test has made it beside the build, for all its steps.
  if (process.env.SCUTUM_E2E_DEMO) return () => {};
  const folder = mkdtempSync(join(tmpdir(), "scutum-e2e-demo-"));
  const made = spawnSync(process.execPath, ["node_modules/tsx/dist/cli.mjs", "demo/main.ts"], {
    env: { ...process.env, SCUTUM_DATA: folder },
    encoding: "utf8",
  });
  if (made.status !== 0) throw new Error(`the demo shop was not made: ${made.stderr}`);
  process.env.SCUTUM_E2E_DEMO = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}
