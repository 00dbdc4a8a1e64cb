/** Two benches on one shop: a line of the one stands on the other's screen, and both know of each other at a live amp. */

import { readFileSync } from "node:fs";
import { awakeBeforeUse, expect, test, type Page } from "./test";
import { pastGates } from "./tape";
import { Shop } from "./shop";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

const log = (job: number, type: string, payload: object) =>
  fetch(`${shop.address}/api/v1/jobs/${job}/events`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ events: pastGates([{ type, who: "P.Q.", payload }]) }),
  });

async function say(page: Page, line: string): Promise<void> {
  const entry = page.getByLabel("Entry line", { exact: true });
  await entry.fill(line);
  await entry.press("Enter");
}

test("a line, the guard and who is there are on the other bench's screen at once, also after a break", async ({
  page,
  browser,
  context,
}) => {
  const other = awakeBeforeUse(await (await browser.newContext()).newPage());
  await context.addCookies([{ name: "scutum-who", value: "P.Q.", url: shop.address }]);
  await page.goto(`${shop.address}/jobs/1008/walk`);
  await other.goto(`${shop.address}/jobs/1008/look`);
  await expect(page.getByText("Also open on another screen: J.M.")).toBeVisible();
  await expect(other.getByText("Also open on another screen: P.Q.")).toBeVisible();

  await say(page, "note the standby switch is stiff");
  const tape = other.getByRole("list", { name: "Lines of the tape" });
  await expect(tape).toContainText("the standby switch is stiff");

  await log(1008, "power", { state: "on", plug: "in", through: "variable" });
  for (const p of [page, other]) {
    await expect(p.getByRole("status", { name: "Energy state" })).toHaveAttribute("data-energy", "live");
    await expect(p.getByText(/has this LIVE amp open on another screen\. Agree who works on it/)).toBeVisible();
  }

  await shop.kill();
  await expect(other.getByText("The server is not reached.").or(other.getByText("Failed to fetch")).first()).toBeVisible({
    timeout: 30_000,
  });
  await say(page, "note kept while the server was gone");
  await shop.start();
  await expect(tape).toContainText("kept while the server was gone");
  await other.goto(`${shop.address}/jobs/1008/probe`);
  const warning = other.getByText(/has this LIVE amp open on another screen/);
  await expect(warning).toBeVisible();
  // It takes a strip, not the screen: the point in hand stays the biggest thing there.
  expect((await warning.boundingBox())!.height).toBeLessThan(90);
  await page.close();
  await expect(other.getByText(/has this LIVE amp open/)).toHaveCount(0);
});

test("a circuit that one bench gives the job is offered on the other's open page", async ({ page }) => {
  await page.goto(`${shop.address}/jobs/1008/walk`);
  await expect(page.locator("[data-ready]")).toBeVisible();
  await expect(page.getByText(/Ostler Halberd 120, version 1/).first()).toBeVisible();
  const given = await fetch(`${shop.address}/api/v1/jobs/1008/circuit`, {
    method: "PUT",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ who: "P.Q.", netlist: readFileSync("demo/amps/wren-5.cir", "utf8") }),
  });
  expect(given.status).toBe(200);
  await expect(page.getByText(/This job was given another circuit/)).toBeVisible();
  await page.getByRole("button", { name: "Load it" }).click();
  await expect(page.getByText(/Wren 5, version \d/).first()).toBeVisible();
  await expect(page.getByText(/This job was given another circuit/)).toHaveCount(0);
});

test("the board follows what is logged at a job", async ({ page }) => {
  await page.goto(shop.address);
  await expect(page.getByText("All open")).toBeVisible();
  const before = await page.getByText("asked by the second bench").count();
  expect(before).toBe(0);
  await log(1002, "approval", { what: "asked by the second bench", answer: "asked" });
  await expect(page.getByText(/asked by the second bench/)).toBeVisible();
});
