/** Where the probe goes: the socket from below, and the place on a photo of the chassis, marked once for every amp of the model. */

import { expect, test } from "./test";
import { gatesPassed } from "./tape";
import { Shop } from "./shop";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

test("a point that is marked on a photo at one job is shown at the next amp of the kind, in Walk, Cold checks and probe mode", async ({
  page,
}) => {
  await page.goto(`${shop.address}/jobs/1004/walk`);
  await page.getByRole("button", { name: /^B1 Reservoir/ }).click();
  await expect(page.getByText("Probe on C1 +")).toBeVisible();
  await page.getByRole("button", { name: "Mark it on a photo…" }).click();
  const dialog = page.getByRole("dialog", { name: "Where is C1 + on the photo?" });
  await dialog.getByRole("button", { name: "Underside before anything was touched" }).click();
  const picture = dialog.getByRole("button", { name: "The photo, not marked yet" });
  const { width, height } = (await picture.boundingBox())!;
  await picture.click({ position: { x: width * 0.75, y: height * 0.25 } });
  await dialog.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByRole("img", { name: "C1 + on a photo of the chassis" })).toBeVisible();

  // Another Wren, whose job has no photo of its underside.
  await page.goto(`${shop.address}/jobs/1006/walk`);
  await page.getByRole("button", { name: /^B1 Reservoir/ }).click();
  await expect(page.getByRole("img", { name: "C1 + on a photo of the chassis" })).toBeVisible();
  await page.getByRole("button", { name: /^V2\.k V2 cathode/ }).click();
  await expect(page.getByRole("img", { name: "Socket of V2, EL84, from below: probe pin 3, cathode" })).toBeVisible();
  await page.goto(`${shop.address}/jobs/1006/cold-checks`);
  await page.getByLabel(/Or go on without it: reason/).fill("looking only, chassis still closed");
  await page.getByRole("button", { name: "Go on without it" }).click();
  await page.getByRole("button", { name: "b1:0", exact: true }).click();
  await expect(page.getByRole("img", { name: /on a photo of the chassis/ })).toBeVisible();

  await fetch(`${shop.address}/api/v1/jobs/1006/events`, {
    method: "POST",
    body: JSON.stringify({
      events: [
        { ...gatesPassed, who: "J.M." },
        { type: "power", who: "J.M.", payload: { state: "on", plug: "in", through: "variable" } },
        { type: "live-check", who: "J.M.", payload: { confirmed: ["all"] } },
      ],
    }),
  });
  await page.goto(`${shop.address}/jobs/1006/probe`);
  await expect(page.getByRole("img", { name: /^Socket of V1, 12AX7, from below: probe pin/ })).toBeVisible();
  await expect(page.getByRole("img", { name: /^V1 pin \d on a photo of the chassis/ })).toBeVisible();
  const strip = (await page.getByTestId("probe-verdict").boundingBox())!;
  const photo = (await page
    .getByRole("img", { name: /on a photo/ })
    .locator("..")
    .boundingBox())!;
  expect(photo.y + photo.height).toBeLessThanOrEqual(strip.y);
});
