/** No screen fails the automated accessibility audit, in either theme. */

import { AxeBuilder } from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { Shop } from "./shop";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

for (const theme of ["enamel", "ledger"] as const) {
  test(`no screen fails the accessibility audit in ${theme}`, async ({ context, page }) => {
    test.setTimeout(300_000);
    await context.addCookies([{ name: "scutum-theme", value: theme, url: shop.address }]);
    const found: string[] = [];
    for (const path of [
      "/",
      "/jobs/new",
      "/settings",
      "/library",
      "/library/2",
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
      "/jobs/1005/output-stage",
      "/jobs/1001/prove",
      "/jobs/1001/return",
      "/jobs/1001/report",
    ]) {
      await page.goto(shop.address + path);
      await page.waitForLoadState("load");
      // Behind the hash stands the part of the station that is opened first.
      const part = path.split("#")[1];
      if (part) await page.locator("[data-ready]").first().waitFor();
      if (part) await page.getByRole("tab", { name: part }).click();
      if (part === "Where it enters") await page.getByRole("region", { name: "Next test" }).waitFor({ timeout: 60_000 });
      if (part === "Grounds") await page.getByRole("table", { name: "Wires" }).waitFor();
      if (path.endsWith("/signal")) await page.getByRole("region", { name: "Response figures" }).waitFor();
      if (path.includes("/bring-up")) await page.locator("progress").first().waitFor({ state: "detached" });
      if (path.endsWith("/suspects")) await page.getByRole("region", { name: "Predicted beside measured" }).waitFor();
      const audit = new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]);
      // Probe mode is read from two metres: 7 : 1.
      if (path.includes("/probe")) audit.options({ rules: { "color-contrast-enhanced": { enabled: true } } });
      const { violations } = await audit.analyze();
      found.push(
        ...violations.map(
          (v) =>
            `${path}: ${v.id}: ${v.nodes
              .slice(0, 3)
              .map((n) => n.html.slice(0, 140))
              .join(" | ")}`,
        ),
      );
    }
    expect(found).toEqual([]);
  });
}
