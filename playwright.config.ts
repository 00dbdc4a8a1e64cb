import { existsSync } from "node:fs";
import { defineConfig } from "@playwright/test";

const chromium = process.env.SCUTUM_CHROMIUM ?? ["/usr/bin/chromium", "/usr/bin/chromium-browser"].find((p) => existsSync(p));
/** The same browser without a window costs a third less. */
const shell = process.env.SCUTUM_SHELL ?? ["/usr/bin/chromium-headless-shell"].find((p) => existsSync(p)) ?? chromium;

/** Files of minutes: started first, so that at the end no worker waits for one of them. The slowest are told at the end of npm test. */
const LONG = /(probe|bring-up|job|output|capacitors|way-in|door)\.spec\.ts$/;
/** An application that can be installed, and works without its server: asks the whole browser. */
const WHOLE = /offline\.spec\.ts$/;
/** Many small tests, each a screen: they fill what is left. */
const SCREENS = /screens\.spec\.ts$/;

const launched = (executablePath: string | undefined) => ({
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

export default defineConfig({
  globalSetup: "./tests/e2e/demo-shop.ts",
  timeout: 600_000,
  // A busy machine is no failure: what is waited for comes later there.
  expect: { timeout: 150_000 },
  // A file has a server on a folder and a port of its own. Simulated hands and meters take their time: two cores carry a third worker.
  workers: 3,
  outputDir: "test-results/playwright",
  reporter: [["list"], ["json", { outputFile: process.env.SCUTUM_PLAYWRIGHT_JSON ?? "test-results/e2e.json" }]],
  use: {
    // What cannot be clicked by then is not there: without an end it would take the whole test's time to say so.
    actionTimeout: 150_000,
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    // What a page is made of is asked of the server; only the test of the time without it lets the browser keep any.
    serviceWorkers: "block",
    launchOptions: launched(shell),
  },
  projects: [
    { name: "long", testDir: "tests/e2e", testMatch: LONG },
    { name: "whole", testDir: "tests/e2e", testMatch: WHOLE, use: { launchOptions: launched(chromium) } },
    { name: "short", testDir: "tests/e2e", testIgnore: [LONG, WHOLE, SCREENS] },
    { name: "screens", testDir: "tests/e2e", testMatch: SCREENS },
    // No browser has a part in these: npm test runs them beside the unit tests.
    { name: "server", testDir: "tests/server" },
  ],
});
