/**
 * The test of the browser's files: like Playwright's own, with one browser profile a worker. What the browser has fetched and compiled of
 * the program it keeps from test to test, which halves what a page costs; what a test left in it is cleared away.
 */

import { test as base, type BrowserContext } from "@playwright/test";

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
    await use(profile);
    await clear(profile);
  },
  page: async ({ context }, use) => {
    await use(await context.newPage());
  },
});

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
