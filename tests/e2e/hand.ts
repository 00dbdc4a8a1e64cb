/** The one hand and the foot at probe mode: long presses, and a walk on the simulated bench that is driven by what the screen says. */

import { expect, type Page } from "@playwright/test";
import { LONG_MS } from "../../src/ui/probe/pedal";

/**
 * Waits on the page's own clock: a timer that was set in the page before is over by then, however busy the machine is.
 * @param ms of the page
 */
export const pageWaits = (page: Page, ms: number) => page.evaluate((t) => new Promise<void>((over) => setTimeout(over, t)), ms);

/** The key, or the button at this place, is held down until it counts as a long press. */
export async function hold(page: Page, at?: { x: number; y: number }): Promise<void> {
  if (at) {
    await page.mouse.move(at.x, at.y);
    await page.mouse.down();
  } else await page.keyboard.down("Space");
  await pageWaits(page, LONG_MS + 100);
  await (at ? page.mouse.up() : page.keyboard.up("Space"));
}

const summary = (page: Page) => page.getByRole("region", { name: "What the walk came to" });

/** How the walk stands, read in one go. */
const standing = (page: Page) =>
  page.evaluate(() => {
    const text = document.querySelector("main")?.textContent ?? "";
    return {
      over: document.querySelector("[aria-label='What the walk came to']") !== null,
      point: document.querySelector("[data-testid=probe-place]")?.getAttribute("data-point") ?? undefined,
      asked: /is the tip on the pin\?|press to take the mean/.test(text),
      unmoved: text.includes("or press if it is there"),
    };
  });

/** Looks a hand needs before it presses: at once it may be asked while the tip still bounces, unmoved while it is on its way. */
const ASKED_LOOKS = 5;
const UNMOVED_LOOKS = 30;
const LOOK_MS = 200;

/** Walks until the summary comes; presses where the screen goes on asking for it, as one who has looked at the tip. @returns the points in order. */
export async function walkOn(page: Page): Promise<string[]> {
  const seen: string[] = [];
  let looks = 0;
  for (;;) {
    const { over, point, asked, unmoved } = await standing(page);
    if (over) break;
    if (point && seen.at(-1) !== point) seen.push(point);
    // Two points of equal volts, and a page that was too busy to see the probe on its way: the hand has long been there.
    looks = asked || unmoved ? looks + 1 : 0;
    if (looks >= (asked ? ASKED_LOOKS : UNMOVED_LOOKS)) {
      await page.keyboard.press("Space");
      looks = 0;
    }
    await pageWaits(page, LOOK_MS);
  }
  await expect(summary(page)).toBeVisible();
  return seen;
}
