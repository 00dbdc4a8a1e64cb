/**
 * The test of the browser's files: like Playwright's own, with one browser profile a worker. What the browser has fetched and compiled of
 * the program it keeps from test to test, which halves what a page costs; what a test left in it is cleared away.
 */

import { test as base, type BrowserContext, type Page } from "@playwright/test";

export { expect, type Browser, type Page } from "@playwright/test";

export const test = base.extend<object, { profile: BrowserContext }>({
  profile: [
    async ({ browser }, use) => {
      const profile = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: "en-GB", serviceWorkers: "block" });
      await use(profile);
      await profile.close();
    },
    { scope: "worker" },
  ],
  context: async ({ profile }, use) => {
    profile.on("page", awakeBeforeUse);
    await use(profile);
    profile.off("page", awakeBeforeUse);
    await clear(profile);
  },
  page: async ({ context }, use) => {
    await use(await context.newPage());
  },
});

/** A page that was opened or loaded anew answers to hands before the test goes on: what is pressed earlier would be lost. */
export function awakeBeforeUse(page: Page): Page {
  const { goto, reload } = { goto: page.goto.bind(page), reload: page.reload.bind(page) };
  // What is not a page of the application (a paper, a file) has no such mark.
  const awake = () => page.waitForFunction(() => document.documentElement.dataset.awake !== "false", undefined);
  page.goto = async (...args) => {
    const answer = await goto(...args);
    await awake();
    return answer;
  };
  page.reload = async (...args) => {
    const answer = await reload(...args);
    await awake();
    return answer;
  };
  return page;
}

/** Closes every page, and forgets cookies, permissions, and what pages kept in the browser. */
async function clear(profile: BrowserContext): Promise<void> {
  const pages = profile.pages();
  const origins = new Set(pages.map((p) => new URL(p.url()).origin).filter((o) => o !== "null"));
  for (const page of pages) await page.close();
  await profile.unrouteAll({ behavior: "ignoreErrors" });
  await profile.clearCookies();
  await profile.clearPermissions();
  await profile.setOffline(false);
  const blank = await profile.newPage();
  const client = await profile.newCDPSession(blank);
  for (const origin of origins) await client.send("Storage.clearDataForOrigin", { origin, storageTypes: "local_storage,indexeddb" });
  await blank.close();
}
