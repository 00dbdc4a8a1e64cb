/** When a page is whole: what a test waits for in the place of a number of seconds. */

import type { Page } from "@playwright/test";

/** Frames in a row in which nothing was under way: between two questions to a worker the page stands still for one or two. */
const STILL_FRAMES = 12;

/** The page answers to keys, its late parts are there, nothing is being worked out. Solving may take its time on a busy machine. */
export async function settled(page: Page, timeout = 120_000): Promise<void> {
  await page.waitForLoadState("load");
  await page.waitForFunction(
    (frames) =>
      new Promise<boolean>((resolve) => {
        let still = 0;
        let left = 600;
        const look = () => {
          const { documentElement: html } = document;
          // A tab that is not awake yet has a stop for the focus; a frame of a job says by itself when it answers.
          const asleep = document.querySelector("button[aria-hidden=true]");
          const moving = html.hasAttribute("data-computing") || asleep || document.querySelector("progress");
          still = moving ? 0 : still + 1;
          if (still >= frames) return resolve(true);
          if (--left <= 0) return resolve(false);
          requestAnimationFrame(look);
        };
        look();
      }),
    STILL_FRAMES,
    { timeout },
  );
}
