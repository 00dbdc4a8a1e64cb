/** The amp drawn: a walk from the drawing alone, a suspect's pattern, a point made of a node, paper and files. */

import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import { expect, test, type Page } from "./test";
import { extractTextItems, getDocumentProxy } from "unpdf";
import { pastGates } from "./tape";
import { Shop } from "./shop";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

async function log(job: number, ...events: object[]) {
  const answer = await fetch(`${shop.address}/api/v1/jobs/${job}/events`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ events: pastGates(events).map((e) => ({ who: "J.M.", id: randomUUID(), ...e })) }),
  });
  expect(answer.status).toBe(200);
}
const tape = async (job: number) =>
  (
    (await (await fetch(`${shop.address}/api/v1/jobs/${job}/events?after=0`)).json()) as {
      events: { type: string; payload: Record<string, unknown> }[];
    }
  ).events;
/** Clicks where a node's volts stand on the drawing, or along one of its wires. */
async function clickNode(page: Page, node: string) {
  await page.locator(`[data-testid=schematic] path[data-node="${node}"]`).first().click({ force: true });
}

test("a model opens on its drawing; a part and its ends are known; it goes out as SVG and as bench sheet", async ({ page }) => {
  await page.goto(`${shop.address}/library`);
  await page
    .getByRole("link", { name: /Lantern 15/ })
    .first()
    .click();
  await expect(page.getByRole("tab", { name: "Drawing" })).toHaveAttribute("aria-selected", "true");
  const schematic = page.getByTestId("schematic");
  await expect(schematic.locator('[data-part="XV3A"]').first()).toBeVisible();
  // The computed volts of the split-load inverter, beside the chart's.
  await expect(schematic.locator('[data-node="p3a"] [role=img]')).toHaveAttribute("aria-label", /expected \(230 V\), read 2\d\d V/);

  await page.getByLabel("Find a part or point").fill("R9");
  await page.keyboard.press("Enter");
  const known = page.getByRole("complementary", { name: "What is known of it" });
  await expect(known).toContainText("R9, 56 kΩ");
  // 52.5 V / 56 kΩ.
  await expect(known).toContainText(/current\s*9\d\d µA/);
  await page.getByRole("application", { name: /Schematic/ }).focus();
  await page.keyboard.press("ArrowDown");
  await expect(known).toContainText("V3A, 12AX7");

  await page.keyboard.press("d");
  await expect(page.getByRole("dialog", { name: "The drawing, large" })).toBeVisible();
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "SVG" }).click();
  const svg = readFileSync(await (await download).path(), "utf8");
  for (const text of [">V3A<", ">56 k<", ">Heaters<", "Lantern 15"]) expect(svg).toContain(text);
  await page.keyboard.press("d");
  await expect(page.getByRole("dialog")).toHaveCount(0);

  const href = await page.getByRole("link", { name: "Bench sheet as PDF, A3" }).getAttribute("href");
  const pdf = await page.request.get(shop.address + href!);
  expect(pdf.headers()["content-type"]).toBe("application/pdf");
  const { items } = await extractTextItems(await getDocumentProxy(new Uint8Array(await pdf.body())));
  expect(items[0]!.map((i) => i.str)).toEqual(expect.arrayContaining(["Tarn & Wicke Lantern 15, circuit 2", "V3A", "56 k"]));
  const refused = await page.request.get(`${shop.address}${href!.replace("a3", "a9")}`);
  expect([refused.status(), ((await refused.json()) as { error: string }).error]).toEqual([
    422,
    'The paper reads "a9"; accepted: a4, a3, letter.',
  ]);
});

test("a walk from the drawing alone: the point is clicked, its reading typed beside it, the next one is ringed", async ({ page }) => {
  await log(
    1006,
    { type: "power", payload: { state: "on", plug: "in", through: "variable" } },
    { type: "live-check", payload: { confirmed: ["all"] } },
    { type: "mains", payload: { volts: 230 } },
  );
  await page.goto(`${shop.address}/jobs/1006/walk`);
  await expect(page.getByTestId("schematic")).toBeVisible();
  await page.keyboard.press("d");
  const large = page.getByRole("dialog", { name: "The drawing, large" });
  await large.getByRole("button", { name: "The whole drawing" }).click();
  await clickNode(page, "b3");
  await expect(large.getByText("Probe on C3 +")).toBeVisible();
  await large.getByLabel("Reading, V").fill("221");
  await page.keyboard.press("Enter");
  await expect(large.locator('[data-node="b3"] [role=img]')).toHaveAttribute("aria-label", /read 221 V/);
  // The next of the walk is in hand, and ringed; its reading needs no pointing.
  await expect(large.locator("[data-next]")).toHaveAttribute("data-next", "k2");
  await large.getByLabel("Reading, V").fill("7.6");
  await page.keyboard.press("Enter");
  await expect(large.locator('[data-node="k2"] [role=img]')).toHaveAttribute("aria-label", /read 7\.60 V/);
  // The guard stays in sight above it.
  await expect(page.getByText("LIVE", { exact: true }).first()).toBeVisible();
  await page.keyboard.press("d");
  await expect(large).toHaveCount(0);
  // The screen shows a reading before the server has stored it.
  const readings = async () => (await tape(1006)).filter((e) => e.type === "reading").map((e) => [e.payload.point, e.payload.value]);
  await expect
    .poll(async () => (await readings()).slice(-2))
    .toEqual([
      ["B3", 221],
      ["V2.k", 7.6],
    ]);
});

test("a suspect is chosen on the drawing, and its volts stand beside what was read at every point", async ({ page }) => {
  await page.goto(`${shop.address}/jobs/1004/suspects`);
  const list = page.getByRole("region", { name: "Suspects" });
  await expect(list.getByRole("button", { name: /C6/ }).first()).toBeVisible();
  const schematic = page.getByTestId("schematic");
  await expect(schematic.locator("[data-note=C6]")).toContainText("%");
  // V1A was never read: what a leaking C6 makes of it is shown all the same.
  await expect(schematic.locator('[data-node="p1a"] [role=img]')).toHaveAttribute("aria-label", /→ 1\d\d V/);
  await expect(schematic.locator('[data-node="g2"] [role=img]')).toHaveAttribute("aria-label", /→ .* read 4\.06 V/);
  await schematic.locator('g[data-part="XV2"]').first().click({ force: true });
  await expect(list.locator("[aria-pressed=true]")).toContainText("V2");
  await expect(schematic.locator('[data-note="XV2"]')).toHaveAttribute("data-look", "strong");
});

test("a node that is no test point becomes one for this job: with its volts, in the walk, at the meter", async ({ page }) => {
  await page.goto(`${shop.address}/jobs/1004/walk`);
  await expect(page.getByTestId("schematic")).toBeVisible();
  await page.getByLabel("Find a part or point").fill("g1b");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Make it a test point of this job" }).click();
  // The walk goes there at once.
  const row = page.locator('[data-point="V1B.g"]');
  await expect(row).toBeVisible();
  await expect(page.getByRole("region", { name: "Next point" })).toContainText("V1B.g");
  await expect(page.getByRole("region", { name: "Next point" })).toContainText("Probe on V1 pin 7");
  await expect(row).toContainText(/0\.\d+ V|−0/);
  await expect.poll(async () => (await tape(1004)).at(-1)).toMatchObject({ type: "point", payload: { name: "V1B.g", node: "g1b" } });
  // Another amp of the kind does not have it.
  await page.goto(`${shop.address}/jobs/1006/walk`);
  await expect(page.locator('[data-point="V2.k"]')).toBeVisible();
  await expect(page.locator('[data-point="V1B.g"]')).toHaveCount(0);
});

test("what is laid out once is kept in the browser", async ({ page }) => {
  await page.goto(`${shop.address}/library`);
  await page
    .getByRole("link", { name: /Halberd 120/ })
    .first()
    .click();
  await expect(page.getByTestId("schematic")).toBeVisible();
  const kept = () =>
    page.evaluate(
      () =>
        new Promise<number>((resolve, reject) => {
          const open = indexedDB.open("scutum-drawings");
          open.onerror = () => reject(new Error("no database"));
          open.onsuccess = () => {
            const count = open.result.transaction("drawings").objectStore("drawings").count();
            count.onsuccess = () => resolve(count.result);
          };
        }),
    );
  await expect.poll(kept).toBe(1);
  // After a reload it comes from there: the worker lays nothing out.
  const laidOut = () => page.evaluate(() => performance.getEntriesByName("drawing laid out").length);
  expect(await laidOut()).toBe(1);
  await page.reload();
  await expect(page.getByTestId("schematic").locator('[data-part="XV1A"]').first()).toBeVisible();
  expect(await laidOut()).toBe(0);
});
