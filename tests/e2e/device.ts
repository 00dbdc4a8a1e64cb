/** A page as a phone or a tablet shows it: the open page is turned into one, so that a screen is loaded once for all its checks. */

import type { Page } from "@playwright/test";

export const PHONE = { name: "phone", width: 390, height: 844 };
export const TABLET = { name: "tablet", width: 820, height: 1180 };
export type Device = typeof PHONE;

/** Gives the page the size and the finger of a device. */
export async function becomes(page: Page, { width, height }: Device): Promise<void> {
  const client = await page.context().newCDPSession(page);
  await client.send("Emulation.setDeviceMetricsOverride", { width, height, deviceScaleFactor: 1, mobile: true });
  await client.send("Emulation.setTouchEmulationEnabled", { enabled: true });
  await page.waitForFunction((w) => innerWidth === w || document.documentElement.scrollWidth > w, width);
  await page.evaluate(() => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))));
}

/** CSS pixels; a little less for what is rounded. */
const FINGER = 43.5;

/** What can be touched and is smaller than a finger; links within a sentence are left out, as the guidelines for touch do. */
export const tooSmall = (page: Page): Promise<string[]> =>
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
