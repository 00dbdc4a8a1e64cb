import { existsSync } from "node:fs";
import { defineConfig } from "@playwright/test";

const chromium = process.env.SCUTUM_CHROMIUM ?? ["/usr/bin/chromium", "/usr/bin/chromium-browser"].find((p) => existsSync(p));

export default defineConfig({
  testDir: "tests/e2e",
  globalSetup: "./tests/e2e/demo-shop.ts",
  timeout: 120_000,
  expect: { timeout: 10_000 },
  // Each file starts a server on a folder and a port of its own.
  workers: 2,
  reporter: [["list"], ["json", { outputFile: "test-results/e2e.json" }]],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    // What a page is made of is asked of the server; only the test of the time without it lets the browser keep any.
    serviceWorkers: "block",
    launchOptions: {
      executablePath: chromium,
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
});
