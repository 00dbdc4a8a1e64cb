/** The tape of a job as it is stored, lines logged beside the interface, and the tabs of a station. */

import { expect, type Page } from "@playwright/test";
import type { Shop } from "./shop";

export interface Stored {
  seq: number;
  type: string;
  who: string;
  payload: Record<string, unknown>;
}

/** The tape by the server, once all that was entered on the page is stored: the screen shows a line before. */
export async function tapeOf(shop: Shop, page: Page, job: number): Promise<Stored[]> {
  if (page.url().startsWith("http"))
    await page.waitForFunction(() => !Object.keys(localStorage).some((key) => key.startsWith("scutum-unsent:")));
  const answer = await page.request.get(`${shop.address}/api/v1/jobs/${job}/events`, { maxRetries: 3 });
  return ((await answer.json()) as { events: Stored[] }).events;
}

/** All gates of a power-on, passed with a reason: what a test is about comes after it. */
export const gatesPassed = {
  type: "gate-passed",
  payload: {
    station: "bring-up",
    reason: "isolation, rails, bias, fuse, straight, danger, series: looked at before the test",
    understood: true,
  },
};

const isPowerOn = (e: object): boolean => {
  const { type, payload } = e as { type?: string; payload?: { state?: string } };
  return type === "power" && payload?.state === "on";
};

/** Lines with every power-on past its gates. */
export const pastGates = (events: readonly object[]): object[] =>
  events.flatMap((e) => (isPowerOn(e) ? [{ who: "J.M.", ...gatesPassed, ...("at" in e ? { at: e.at } : {}) }, e] : [e]));

/** Logs lines beside the interface; a power-on past its gates. */
export async function log(shop: Shop, page: Page, job: number, ...events: object[]): Promise<void> {
  const answer = await page.request.post(`${shop.address}/api/v1/jobs/${job}/events`, {
    data: { events: pastGates(events).map((e) => ({ who: "J.M.", ...e })) },
  });
  expect(answer.status(), await answer.text()).toBe(200);
}

/** Opens a tab. A click on a page that still loads may be lost: it is repeated until the tab is selected. */
export async function tab(page: Page, name: string | RegExp): Promise<void> {
  const one = page.getByRole("tab", { name, exact: true });
  await expect(async () => {
    await one.click();
    await expect(one).toHaveAttribute("aria-selected", "true", { timeout: 1000 });
  }).toPass();
}
