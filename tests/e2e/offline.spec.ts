/** The bench without the server: pages of a job open from what the browser keeps, lines are sent when it is back, nothing old passes for new. */

import { expect, test, type Page } from "@playwright/test";
import { pastGates } from "./tape";
import { Shop } from "./shop";

test.use({ serviceWorkers: "allow" });

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

const JOB = 1008;
const log = async (...events: object[]) => {
  const answer = await fetch(`${shop.address}/api/v1/jobs/${JOB}/events`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ events: pastGates(events).map((e) => ({ who: "P.Q.", ...e })) }),
  });
  expect(answer.status, await answer.clone().text()).toBe(200);
};
const tapeOf = async () => {
  const answer = await fetch(`${shop.address}/api/v1/jobs/${JOB}/events`);
  return ((await answer.json()) as { events: { type: string; payload: { text?: string } }[] }).events;
};

/** Opens a page of the job, and waits until the browser has kept what it needs. */
async function open(page: Page, station: string): Promise<void> {
  await page.goto(`${shop.address}/jobs/${JOB}/${station}`);
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
    while (!navigator.serviceWorker.controller) await new Promise((r) => setTimeout(r, 50));
  });
  await expect
    .poll(() =>
      page.evaluate(async (jobId) => {
        const open = indexedDB.open("scutum-kept");
        const db = await new Promise<IDBDatabase>((resolve) => (open.onsuccess = () => resolve(open.result)));
        const get = db.transaction("jobs").objectStore("jobs").get(jobId);
        return new Promise((resolve) => (get.onsuccess = () => resolve(get.result !== undefined)));
      }, JOB),
    )
    .toBe(true);
}
const guard = (page: Page) => page.getByRole("status", { name: "Energy state" });
const notReached = (page: Page) => page.getByText(/The server is not reached/).first();
async function say(page: Page, line: string): Promise<void> {
  const entry = page.getByLabel("Entry line", { exact: true });
  await entry.fill(line);
  await entry.press("Enter");
}

test("the walk goes on without the server, page after page; lines are sent once when it is back", async ({ page }) => {
  await open(page, "look");
  const before = (await tapeOf()).length;
  await shop.kill();
  await expect(notReached(page)).toBeVisible();

  // A station that was never opened here, by its link, and another from within the kept page.
  await page.getByRole("navigation").getByRole("link", { name: /Walk/ }).click();
  await expect(page.getByRole("heading", { name: "Walk", level: 1 })).toBeVisible();
  await expect(page.getByText(/This is the job as it was here on/)).toBeVisible();
  await say(page, "note heard nothing on standby");
  await expect(page.getByText("1 line is kept in this browser and will be sent.")).toBeVisible();
  await page
    .getByRole("navigation")
    .getByRole("link", { name: /Suspects/ })
    .click();
  await expect(page.getByRole("heading", { name: "Suspects", level: 1 })).toBeVisible();
  await expect(page.getByRole("list", { name: "Lines of the tape" })).toContainText("heard nothing on standby");

  // Expected values are computed here: the worker is kept too.
  await page.goto(`${shop.address}/jobs/${JOB}/walk`);
  await expect(page.getByRole("list", { name: "Lines of the tape" })).toContainText("heard nothing on standby");
  await expect(page.getByText(/the circuit alone, solved at 2\d\d\sV/).first()).toBeVisible();
  await expect(page.getByText(/was not solved|is being solved/)).toHaveCount(0);
  // And so is the layout: the circuit was not drawn here before.
  await expect(page.getByTestId("schematic").locator('[data-part="XV4"]').first()).toBeVisible();
  await page.goto(`${shop.address}/jobs/${JOB}/probe`);
  await expect(page.getByRole("main", { name: "Probe mode" })).toBeVisible();

  await page.goto(shop.address);
  await expect(page.getByRole("heading", { name: "The server is not reached." })).toBeVisible();
  await page.getByRole("link", { name: new RegExp(`Job ${JOB}`) }).click();
  await expect(page.getByRole("heading", { name: "Walk", level: 1 })).toBeVisible();
  await say(page, "note second without the server");

  await shop.start();
  await expect(page.getByText(/The server is not reached/)).toHaveCount(0);
  await expect(page.getByText("storing…")).toHaveCount(0);
  const texts = (await tapeOf()).slice(before).map((e) => e.payload.text);
  expect(texts).toEqual(["heard nothing on standby", "second without the server"]);
  // From the kept page back to the server's.
  await page
    .getByRole("navigation")
    .getByRole("link", { name: /Intake/ })
    .click();
  await expect(page.getByRole("heading", { name: "Intake", level: 1 })).toBeVisible();
});

test("PROVEN DEAD is not said from what is kept: others may have switched the amp on", async ({ page }) => {
  const at = (secondsAgo: number) => new Date(Date.now() - secondsAgo * 1000).toISOString();
  const meter = { type: "meter-check", payload: { source: "9 V battery", expected: 9, read: 9 } };
  const read = (round: number) =>
    ["C1", "C2", "C3", "C4", "C5", "C20", "C21"].map((reservoir, i) => ({
      type: "discharge-reading",
      at: at(round + i),
      payload: { reservoir, volts: 0.2 },
    }));
  await log({ type: "power", at: at(900), payload: { state: "off", plug: "out" } });
  const tool = { type: "tool-check", payload: { marked: 2200, read: 2200 } };
  await log(
    { ...meter, at: at(800) },
    { ...tool, at: at(790) },
    ...read(700),
    ...read(600),
    { ...tool, at: at(510) },
    { ...meter, at: at(500) },
  );
  await open(page, "make-safe");
  await expect(guard(page)).toHaveAttribute("data-energy", "proven-dead");
  await shop.kill();
  await expect(guard(page)).toHaveAttribute("data-energy", "unknown");
  await expect(guard(page)).toContainText("others may have switched it on since");
  await page.reload();
  await expect(guard(page)).toHaveAttribute("data-energy", "unknown");
  await expect(page.getByText(/PROVEN DEAD \d\d:\d\d/)).toHaveCount(0);
  await shop.start();
  await expect(guard(page)).toHaveAttribute("data-energy", "proven-dead");
  await log({ type: "power", payload: { state: "on", plug: "in" } });
  await expect(guard(page)).toHaveAttribute("data-energy", "live");
  await log({ type: "power", payload: { state: "off", plug: "out" } });
});

test("an application that can be installed", async ({ page }) => {
  await page.goto(shop.address);
  const manifest = (await (await page.request.get(`${shop.address}/manifest.webmanifest`)).json()) as { icons: { src: string }[] };
  for (const { src } of manifest.icons) {
    const icon = await page.request.get(shop.address + src);
    expect(icon.headers()["content-type"]).toBe("image/png");
  }
  const client = await page.context().newCDPSession(page);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  const { installabilityErrors } = await client.send("Page.getInstallabilityErrors");
  // A browser under test has a profile that nothing is installed into.
  expect(installabilityErrors.map((e) => e.errorId).filter((id) => id !== "in-incognito")).toEqual([]);
});
