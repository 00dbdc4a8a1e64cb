/** On a phone and a tablet: nothing is wider than the screen, what is touched is large enough for a finger, probe mode goes without a keyboard. */

import { expect, test, type Browser, type Page } from "@playwright/test";
import { Shop } from "./shop";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

/** CSS pixels; a little less for what is rounded. */
const FINGER = 43.5;
const DEVICES = [
  { name: "phone", width: 390, height: 844 },
  { name: "tablet", width: 820, height: 1180 },
];
const PAGES = [
  ...["/", "/library", "/settings", "/jobs/new"],
  ...["intake", "make-safe", "look", "cold-checks", "bring-up", "walk", "suspects", "signal", "noise", "work", "output-stage", "prove"].map(
    (s) => `/jobs/1008/${s}`,
  ),
  ...["/jobs/1001/return", "/jobs/1008/probe", "/jobs/1008/probe?order=cold"],
];

const onDevice = async (browser: Browser, { width, height }: { width: number; height: number }) =>
  (await browser.newContext({ viewport: { width, height }, hasTouch: true, isMobile: true, serviceWorkers: "block" })).newPage();

/** What can be touched and is smaller than a finger; links within a sentence are left out, as the guidelines for touch do. */
const tooSmall = (page: Page) =>
  page.evaluate((finger) => {
    const found: string[] = [];
    for (const el of document.querySelectorAll<HTMLElement>("button, a[href], input:not([type=hidden]), select, textarea, summary")) {
      const own = el.matches("[type=checkbox], [type=radio], [type=file]") ? (el.closest("label") ?? el) : el;
      const { width, height } = own.getBoundingClientRect();
      if (width <= 1 || height <= 1 || getComputedStyle(el).visibility === "hidden") continue;
      const sentence = el.matches("a") && el.closest("p, li")?.textContent?.trim() !== el.textContent?.trim() && el.closest("p, li");
      if (sentence || (width >= finger && height >= finger)) continue;
      found.push(`${el.tagName} ${width.toFixed(0)} × ${height.toFixed(0)}: ${el.getAttribute("aria-label") ?? el.textContent ?? el.id}`);
    }
    return found;
  }, FINGER);

for (const device of DEVICES)
  test(`on a ${device.name} everything can be touched, and nothing is wider than the screen`, async ({ browser }) => {
    const page = await onDevice(browser, device);
    for (const path of PAGES) {
      await page.goto(shop.address + path);
      await page.waitForLoadState("networkidle").catch(() => undefined);
      await expect(page.locator("main").first()).toBeVisible();
      const wide = await page.evaluate(() => document.documentElement.scrollWidth);
      expect.soft(wide, `${path} is wider than the screen`).toBeLessThanOrEqual(device.width);
      expect.soft(await tooSmall(page), `${path} has what a finger misses`).toEqual([]);
    }
    await page.context().close();
  });

test("probe mode by touch alone: the safety check, a reading by the digits, and the way out", async ({ browser }) => {
  const page = await onDevice(browser, DEVICES[0]!);
  await page.goto(`${shop.address}/jobs/1008/probe`);
  await expect(page.locator("[data-ready]")).toBeVisible();
  const live = page.locator("[data-energy=live]");
  const held = async (name: RegExp) => {
    const box = (await page.getByRole("button", { name }).boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.waitForTimeout(1100);
    await page.mouse.up();
  };
  while (!(await live.isVisible())) {
    const question = await page.getByLabel("Live-work check").textContent();
    if (question!.includes("Safety condition not met")) await held(/^hold go on without it/);
    else await page.getByRole("button", { name: /^press/ }).tap();
    await expect(page.getByText(question!, { exact: true })).toHaveCount(0);
  }
  await page.getByRole("button", { name: /type it/ }).tap();
  for (const key of ["−", "8", "3"]) await page.getByRole("button", { name: key, exact: true }).tap();
  await page.getByRole("button", { name: /^press/ }).tap();
  await expect(page.getByTestId("probe-verdict")).toContainText("in band");
  await page.getByRole("button", { name: /^Esc/ }).tap();
  await expect(page.getByText("Is it off, and the plug out?")).toBeVisible();
  await held(/^hold off, plug out/);
  await expect(page.getByRole("status", { name: "Energy state" })).toHaveAttribute("data-energy", "stored");
  await page.context().close();
});
