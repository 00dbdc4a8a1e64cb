/** The suspects in the real interface: from two readings to the true fault through the suggested measurements, and after the repair. */

import { expect, test, type Page } from "./test";
import { SimulatedAmp } from "../../demo/simulated";
import { gatesPassed } from "./tape";
import { Shop } from "./shop";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

const advice = (page: Page) => page.getByRole("region", { name: "What to do now" });
const say = async (page: Page, line: string) => {
  const entry = page.getByLabel("Entry line", { exact: true });
  await entry.fill(line);
  await entry.press("Enter");
  await expect(entry).toHaveValue("");
};

test("a job with its readings: the leaky capacitor is named, what it predicts stands beside what was read", async ({ page }) => {
  await page.goto(`${shop.address}/jobs/1004/suspects`);
  await expect(advice(page)).toContainText("C6 leaky");
  const overlay = page.getByRole("region", { name: "Predicted beside measured" });
  await expect(overlay.getByRole("row", { name: /^V2\.g/ })).toContainText("explained");
  await page.getByRole("button", { name: /^nothing wrong/ }).click();
  await expect(overlay.getByRole("row", { name: /^V2\.g/ })).toContainText("not explained");
  await page.getByText(/Not tested yet/).click();
  await expect(page.getByText("a tone through C5: the level on both of its sides")).toBeVisible();
  // An observation by the entry line, and one that is none.
  await say(page, "saw v2 very hot");
  await expect(page.getByRole("list", { name: "Lines of the tape" })).toContainText("Seen: V2 very hot");
});

test("the tired tube of the Picture House: volts leave it open, the tube test that is asked for settles it", async ({ page }) => {
  await page.goto(`${shop.address}/jobs/1007/suspects`);
  // Fixed bias spreads widely: a third of the current may still be a sound tube. Eight hundred lines are solved first, in the worker.
  await expect(advice(page)).toContainText("Next: V6 in the tube tester");
  await page.getByLabel("Reading, % of new").fill("26");
  await page.keyboard.press("Enter");
  await expect(advice(page)).toContainText("V6 weak");
  await say(page, "fit V6 7591A from stock, was weak");
  await expect(page.getByText("to see whether the change cured it")).toBeVisible();
});

test("a fresh Wren with a resistor gone high: a few suggested readings name it", async ({ page }) => {
  const amp = new SimulatedAmp("wren-5", 77, ["R8=230k"]);
  await page.request.post(`${shop.address}/api/v1/jobs/1006/events`, {
    data: {
      events: [
        { type: "mains", who: "J.M.", payload: { volts: 230 } },
        { ...gatesPassed, who: "J.M." },
        { type: "power", who: "J.M.", payload: { state: "on", plug: "in", through: "straight" } },
      ],
    },
  });
  await page.goto(`${shop.address}/jobs/1006/suspects`);
  let readings = 0;
  for (; readings < 9; readings++) {
    const title = advice(page).locator("p").first();
    await expect(title).toContainText(/Next: volts at|One of|R8/);
    const words = (await title.textContent())!;
    const point = /^Next: volts at (\S+)/.exec(words)?.[1];
    if (!point) break;
    const field = page.getByLabel("Reading, V");
    await expect(field).toBeFocused();
    await page.keyboard.type(String(amp.volts(point, { mains: 230 })));
    await page.keyboard.press("Enter");
    // The next advice is another one.
    await expect(title).not.toHaveText(words);
  }
  await expect(advice(page)).toContainText("R8 high");
  expect(readings).toBeLessThanOrEqual(6);
});
