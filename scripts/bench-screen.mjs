/** The drawing in the browser: from its page to the drawing, laid out in the worker and kept; moving it; the longest task of the page. */

import { chromium } from "@playwright/test";

/** Milliseconds that the sheet is moved about for. */
const MOVING_MS = 3000;

/** A browser tells of tasks over 50 ms only. */
const longest = (tasks) => (tasks.length === 0 ? "under 50 ms" : `${Math.round(Math.max(...tasks))} ms`);

/**
 * @param address of a demo shop. @param executablePath of the browser.
 * @returns rows of [what, measured, target].
 */
export async function benchDrawing(address, executablePath) {
  const browser = await chromium.launch({ executablePath, args: ["--no-sandbox"] });
  try {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    await page.addInitScript(() => {
      window.tasks = [];
      new PerformanceObserver((list) => window.tasks.push(...list.getEntries().map((e) => [e.startTime, e.duration]))).observe({
        type: "longtask",
        buffered: true,
      });
    });
    await page.goto(`${address}/library`);
    const way = await page
      .getByRole("link", { name: /Picture House/ })
      .first()
      .getAttribute("href");
    const appears = async (load) => {
      const start = performance.now();
      await load();
      await page.getByTestId("schematic").waitFor();
      return performance.now() - start;
    };
    const first = await appears(() => page.goto(address + way));
    const [laid] = await page.evaluate(() => performance.getEntriesByName("drawing laid out").map((m) => m.duration));
    const again = await appears(() => page.reload());
    await page.waitForTimeout(2000);
    // Off the page and on again: what painting it costs.
    await page.getByRole("tab", { name: "Figures" }).click();
    await page.waitForTimeout(1500);
    await page.evaluate(() => (window.tasks.length = 0));
    await page.getByRole("tab", { name: "Drawing" }).click();
    await page.getByTestId("schematic").waitFor();
    await page.waitForTimeout(1000);
    const painting = await page.evaluate(() => window.tasks.map(([, ms]) => ms));
    await page.keyboard.press("d");
    await page.waitForTimeout(1000);
    const box = await page.getByTestId("schematic").boundingBox();
    const middle = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(...middle);
    // Far in: the text is painted at its largest.
    for (let i = 0; i < 6; i++) await page.mouse.wheel(0, -240);
    await page.waitForTimeout(500);
    await page.evaluate(() => (window.tasks.length = 0));
    await page.mouse.down();
    const frames = page.evaluate(
      (ms) =>
        new Promise((resolve) => {
          const gaps = [];
          const begin = performance.now();
          let last = begin;
          const frame = (now) => {
            gaps.push(now - last);
            last = now;
            if (now - begin < ms) requestAnimationFrame(frame);
            else resolve(gaps.slice(2));
          };
          requestAnimationFrame(frame);
        }),
      MOVING_MS,
    );
    for (const start = performance.now(); performance.now() - start < MOVING_MS;) {
      const t = (performance.now() - start) / 300;
      await page.mouse.move(middle[0] + 150 * Math.cos(t), middle[1] + 100 * Math.sin(t));
    }
    const gaps = await frames;
    await page.mouse.up();
    const tasks = await page.evaluate(() => window.tasks.map(([, ms]) => ms));
    const rate = 1000 / (gaps.reduce((a, b) => a + b, 0) / gaps.length);
    const slow = [...gaps].sort((a, b) => a - b)[Math.floor(gaps.length * 0.95)];
    return [
      ["largest amp, laid out and checked in the worker, its first one", `${(laid / 1000).toFixed(1)} s`, "1.5 s"],
      ["longest task of the page while the drawing is put on it", longest(painting), "50 ms"],
      ["largest amp, from asking for its page to the drawing, first time", `${(first / 1000).toFixed(1)} s`, "none set"],
      ["the same once it is kept in the browser", `${(again / 1000).toFixed(1)} s`, "none set"],
      ["moving it, zoomed in", `${Math.round(rate)} frames a second, 95 % of frames within ${Math.round(slow)} ms`, "60 a second"],
      ["longest task of the page while it is moved", longest(tasks), "50 ms"],
    ];
  } finally {
    await browser.close();
  }
}

/**
 * What a browser that has nothing of the program yet loads as script for each page: until the page answers to keys, and with the parts that
 * come after it. Compressed bytes as they come over the network; what workers load for themselves is not the page's.
 * @returns rows of [what, measured, target], the largest page of each.
 */
export async function benchScripts(address, executablePath, paths) {
  const browser = await chromium.launch({ executablePath, args: ["--no-sandbox"] });
  try {
    const of = async (path) => {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: "block" });
      const page = await context.newPage();
      const loaded = () =>
        page.evaluate(() =>
          performance
            .getEntriesByType("resource")
            .filter((r) => /\.js($|\?)/.test(r.name))
            .reduce((sum, r) => sum + r.encodedBodySize, 0),
        );
      await page.goto(address + path);
      await page.waitForLoadState("load");
      const first = await loaded();
      await page.waitForLoadState("networkidle", { timeout: 4000 }).catch((error) => {
        // A page with a live stream is never idle: its late parts have come by then all the same.
        if (error.name !== "TimeoutError") throw error;
      });
      const all = await loaded();
      await context.close();
      return { path, first, all };
    };
    const sizes = [];
    for (const path of paths) sizes.push(await of(path));
    const largest = (key) => sizes.reduce((a, b) => (b[key] > a[key] ? b : a));
    const told = (key) => `${Math.round(largest(key)[key] / 1000)} kB (${largest(key).path})`;
    return [
      ["largest script of a page as the browser loads it, compressed, until it is loaded", told("first"), "240 kB"],
      ["the same with the parts that come after it", told("all"), "none set"],
    ];
  } finally {
    await browser.close();
  }
}
