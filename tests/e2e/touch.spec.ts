/** On a phone: probe mode goes without a keyboard. That everything can be touched is looked at with the screens. */

import { awakeBeforeUse, expect, test, type Browser } from "./test";
import { PHONE } from "./device";
import { hold } from "./hand";
import { Shop } from "./shop";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

const onPhone = async (browser: Browser) =>
  awakeBeforeUse(await (await browser.newContext({ viewport: PHONE, hasTouch: true, isMobile: true, serviceWorkers: "block" })).newPage());

test("probe mode by touch alone: the safety check, a reading by the digits, and the way out", async ({ browser }) => {
  const page = await onPhone(browser);
  await page.goto(`${shop.address}/jobs/1008/probe`);
  await expect(page.locator("[data-ready]")).toBeVisible();
  const live = page.locator("[data-energy=live]");
  const held = async (name: RegExp) => {
    const box = (await page.getByRole("button", { name }).boundingBox())!;
    await hold(page, { x: box.x + box.width / 2, y: box.y + box.height / 2 });
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
