/** Every screen against the automated accessibility audit: one test a screen, both themes on the page that is open. */

import { AxeBuilder } from "@axe-core/playwright";
import { expect, test, type Page } from "@playwright/test";
import { Shop } from "./shop";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

/** Behind the hash stands the part of the station that is opened first. */
const SCREENS = [
  "/",
  "/guide",
  "/guide/walk",
  "/jobs/new",
  "/settings",
  "/library",
  "/library/2",
  "/library/2#Settle",
  "/library/new",
  "/library/new?from=1",
  "/jobs/1004/intake",
  "/jobs/1004/make-safe",
  "/jobs/1004/look",
  "/jobs/1004/cold-checks",
  "/jobs/1005/bring-up",
  "/jobs/1005/bring-up#Mains side",
  "/jobs/1005/bring-up#Speaker and load",
  "/jobs/1005/bring-up#Settling run",
  "/jobs/1009/bring-up",
  "/jobs/1009/look",
  "/jobs/1009/cold-checks#Controls",
  "/jobs/1009/cold-checks#Tubes",
  "/jobs/1009/cold-checks#Leakage",
  "/jobs/1010/cold-checks#Heaters",
  "/jobs/1010/probe?order=cold",
  "/jobs/1004/walk",
  "/jobs/1004/suspects",
  "/jobs/1004/probe",
  "/jobs/1011/signal",
  "/jobs/1012/noise",
  "/jobs/1012/noise#Where it enters",
  "/jobs/1011/noise#Conditions",
  "/jobs/1012/noise#Grounds",
  "/jobs/1013/noise#Comes and goes",
  "/jobs/1002/noise#Where it enters",
  "/jobs/1005/work",
  "/jobs/1017/work#Capacitors",
  "/jobs/1017/work#Reform",
  "/jobs/1017/work#Substitute",
  "/jobs/1017/work#Kit",
  "/jobs/1005/output-stage",
  "/jobs/1001/prove",
  "/jobs/1001/return",
  "/jobs/1001/report",
  "/jobs/1018/work#Plan",
  "/jobs/1018/work#Cure",
  "/jobs/1018/work#Approvals",
  "/jobs/1018/work#Quote",
  "/jobs/1001/return#Bill",
  "/jobs/1018/return#Hand over",
  "/jobs/1018/paper/quote-47",
  "/jobs/1018/paper/history",
];

/** Solving may take its time on a busy machine: only a screen that never comes fails. */
const PATIENCE = { timeout: 120_000 };

async function open(page: Page, path: string): Promise<void> {
  await page.goto(shop.address + path);
  await page.waitForLoadState("load");
  const part = path.split("#")[1];
  if (part && path.startsWith("/library"))
    await page
      .getByText(/Solved at/)
      .first()
      .waitFor(PATIENCE);
  else if (part) await page.locator("[data-ready]").first().waitFor(PATIENCE);
  // Tabs that are not awake yet have a stop for the focus that goes when they are.
  await page
    .locator("button[aria-hidden=true]")
    .first()
    .waitFor({ state: "detached", ...PATIENCE });
  if (part) await page.getByRole("tab", { name: part }).click();
  if (part === "Where it enters") await page.getByRole("region", { name: "Next test" }).waitFor(PATIENCE);
  if (part === "Grounds") await page.getByRole("table", { name: "Wires" }).waitFor(PATIENCE);
  if (path.endsWith("/signal")) await page.getByRole("region", { name: "Response figures" }).waitFor(PATIENCE);
  if (path.includes("/bring-up"))
    await page
      .locator("progress")
      .first()
      .waitFor({ state: "detached", ...PATIENCE });
  if (path.endsWith("/suspects")) await page.getByRole("region", { name: "Predicted beside measured" }).waitFor(PATIENCE);
}

/**
 * Without frames from other sites an audit needs no page of its own to put its findings together, which takes two seconds.
 * @param whole false: colours alone, for what a second theme changes.
 * @param far read from two metres: 7 : 1.
 */
const audit = (page: Page, whole: boolean, far: boolean) =>
  new AxeBuilder({ page }).setLegacyMode().options({
    resultTypes: ["violations"],
    runOnly: whole
      ? { type: "tag", values: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"] }
      : { type: "rule", values: ["color-contrast", ...(far ? ["color-contrast-enhanced"] : [])] },
    rules: far ? { "color-contrast-enhanced": { enabled: true } } : {},
  });

for (const path of SCREENS)
  test(`${path} passes the accessibility audit in both themes`, async ({ context, page }) => {
    test.setTimeout(300_000);
    await context.addCookies([{ name: "scutum-theme", value: "enamel", url: shop.address }]);
    await open(page, path);
    for (const theme of ["enamel", "ledger"] as const) {
      // The report is paper in either.
      await page.evaluate((t) => document.documentElement.setAttribute("data-theme", t), theme);
      // A colour on its way from one theme to the other belongs to neither. Ended at once: one that is drawn over in the middle may never tell that it is over.
      await page.evaluate(() => {
        for (const a of document.getAnimations()) if (a.effect?.getTiming().iterations !== Infinity) a.finish();
      });
      const { violations } = await audit(page, theme === "enamel", path.includes("/probe")).analyze();
      const found = violations.map((v) => `${theme}: ${v.id}: ${v.nodes.map((n) => n.html.slice(0, 140)).join(" | ")}`);
      expect(found).toEqual([]);
    }
  });
