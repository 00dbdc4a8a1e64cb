/** The amp library in the real interface: figures, the editor with its live solve, comparing, a model without a drawing. */

import { expect, test, type Page } from "./test";
import { Shop } from "./shop";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

const file = (page: Page) => page.getByLabel("Circuit file text");
/** Puts a whole text in place of what is in the editor. */
async function fillFile(page: Page, text: string): Promise<void> {
  await file(page).click();
  await page.keyboard.press("Control+a");
  await page.keyboard.insertText(text);
}
/** The text as it is being worked on: the editor itself has only the lines in sight on the page. */
const draft = (page: Page, name: string): Promise<string> =>
  page.evaluate((key) => (JSON.parse(localStorage.getItem(key) ?? "{}") as { text?: string }).text ?? "", `scutum-draft:${name}`);
const stored = async (page: Page): Promise<string> => {
  const id = /library\/(\d+)/.exec(page.url())![1];
  return (await page.request.get(`${shop.address}/api/v1/models/${id}/netlist`)).text();
};
const headline = (page: Page) => page.getByRole("status").first();

async function openModel(page: Page, name: string): Promise<void> {
  await page.goto(`${shop.address}/library`);
  await page.getByRole("link", { name }).click();
  await expect(headline(page)).toContainText(/Solved at/);
}

test("the figures of a model, at another mains, with a tube out", async ({ page }) => {
  await openModel(page, "Tarn & Wicke Lantern 15");
  await page.getByRole("tab", { name: "Figures" }).click();
  await expect(headline(page)).toContainText("V4 at 87 % and V5 at 87 % of plate rating; nothing above its rating");
  const point = (name: string) => page.getByRole("region", { name: "Test points" }).getByRole("row", { name: new RegExp(`^${name} `) });
  await expect(point("B1")).toContainText("317 V");
  // Bands come from the draws; the misprinted figure of the chart is pointed out.
  await expect(point("V3B.p")).toContainText("▲");
  await expect(point("V3A.p")).not.toContainText("▲");
  await page.getByLabel("Mains, V").fill("253");
  await expect(headline(page)).toContainText("Above its rating at 253 V");
  await page.getByLabel("Mains, V").fill("");
  await page.getByRole("button", { name: "V5", exact: true }).click();
  await expect(page.getByRole("region", { name: "Tubes" }).getByRole("row", { name: /^V5/ })).toContainText("out");
  await expect(point("B1")).toContainText(/33\d V/);
});

test("the editor: bad lines in place, a live solve, a new version, compared with the old one", async ({ page }) => {
  await openModel(page, "Brackwynd Wren 5");
  await page.getByRole("tab", { name: "Circuit file" }).click();
  const text = await stored(page);
  await fillFile(page, text.replace("R4 k2 0 180 ", "R4 k2 0 4k7 "));
  await expect(headline(page)).toContainText("1 line cannot be read");
  const line = text.split("\n").findIndex((l) => l.startsWith("R4 ")) + 1;
  await expect(page.getByRole("button", { name: new RegExp(`line ${line}: found 4k7; expected .*4.7k`) })).toBeVisible();
  await expect(page.getByRole("button", { name: /Store as version/ })).toBeDisabled();
  await fillFile(page, text.replace("R4 k2 0 180 ", "R4 k2 0 120 ").replace("R3 b2 s2 100", "R3 b3 s2 100"));
  const live = page.getByRole("region", { name: "Live solve" });
  await expect(live.getByRole("row", { name: /^V2.s/ })).toContainText("▼");
  await page.getByRole("button", { name: "Store as version 2" }).click();
  await expect(page.getByText("version 2 · ")).toBeVisible();
  await page.getByRole("tab", { name: "Compare" }).click();
  await page.getByLabel("Compare with (reference)").selectOption({ label: "Brackwynd Wren 5, version 1" });
  await expect(page.getByText("2 differences, compared with the reference")).toBeVisible();
  const value = page.getByRole("listitem").filter({ hasText: "R4 is 120 Ω, not 180 Ω" });
  await expect(page.getByText("R3 goes from V2 screen to B3, not to B2")).toBeVisible();
  await value.getByRole("button", { name: "Effect on voltages" }).click();
  await expect(value).toContainText(/V2\.k 7\.\d+ V → 6\.\d+ V/);
  // An older job keeps the version that it was opened with.
  const spice = await page.request.get(`${shop.address}/api/v1/models/1/netlist?form=spice`);
  expect(await spice.text()).toMatch(/\.subckt EL84[\s\S]*\.op\n\.end\n$/);
  expect(spice.headers()["content-disposition"]).toContain("Brackwynd-Wren-5-1-spice.cir");
});

test("a file without test points gets the usual ones, and they can be written into it", async ({ page }) => {
  await openModel(page, "Tarn & Wicke Lantern 15");
  await page.getByRole("tab", { name: "Circuit file" }).click();
  const text = (await stored(page)).replace(/^\*@point.*\n/gm, "");
  await fillFile(page, text);
  await expect(page.getByText("The file names no test points: the 19 usual ones are used")).toBeVisible();
  await page.getByRole("tab", { name: "Figures" }).click();
  await expect(page.getByRole("region", { name: "Test points" }).getByRole("row", { name: /^V1A\.k .*V1 pin 3/ })).toContainText(
    /1\.3\d V/,
  );
  await page.getByRole("button", { name: "Write them into the file" }).click();
  await expect(page.getByText("The file names no test points")).toHaveCount(0);
  await page.getByRole("tab", { name: "Circuit file" }).click();
  const name = `model-${/library\/(\d+)/.exec(page.url())![1]}`;
  const written = await draft(page, name);
  expect(written).toContain('*@point V1A.k node=k1a order=190 label="V1A cathode"');
  expect(written.replace(/^\*@point.*\n/gm, "")).toBe(text);
});

test("no drawing: the nearest model, every part assumed until it is seen", async ({ page }) => {
  await page.goto(`${shop.address}/library`);
  await page.getByPlaceholder("2 x 6V6").fill("ecc83 7591 7591 7591 7591 ecc82 ecc82");
  await expect(page.getByText("Understood: 2 × 12AU7, 12AX7, 4 × 7591A")).toBeVisible();
  const nearest = page.getByRole("row").nth(1);
  await expect(nearest).toContainText("Picture House");
  await expect(nearest).toContainText("100 %");
  await nearest.getByRole("link", { name: "Start a new model from it" }).click();
  await expect(page.getByText("started from Pell Picture House: every part assumed")).toBeVisible();
  await page.getByLabel("Maker").fill("Unmarked");
  await page.getByLabel("Model", { exact: true }).fill("Vestry");
  await page.getByRole("tab", { name: "Figures" }).click();
  await expect(page.getByText(/▲ 7\d assumed/)).toBeVisible();
  await page.getByRole("button", { name: /^All/ }).click();
  await page.getByLabel("Source of R3", { exact: true }).selectOption("seen");
  await page.getByRole("tab", { name: "Circuit file" }).click();
  expect(await draft(page, `from-${/from=(\d+)/.exec(page.url())![1]}`)).toMatch(/^R3 .*@prov seen$/m);
  await page.getByRole("button", { name: "Store in the library" }).click();
  await expect(page.getByRole("heading", { name: "Unmarked Vestry" })).toBeVisible();
});

test("a tube type from its sheet, and a file that is none", async ({ page }) => {
  await page.goto(`${shop.address}/library/new`);
  await page.locator("input[type=file]").setInputFiles({ name: "x.cir", mimeType: "text/plain", buffer: Buffer.from("\u0000\u0001PNG") });
  await expect(page.getByText(/found a file with binary bytes/)).toBeVisible();
  await fillFile(page, "Bench test\n*@point P node=p\nVB b 0 250\nR1 b p 1k\nXV1 p b g k 6XX6\nR2 k 0 220\nR3 g 0 470k\n.end");
  await expect(page.getByText(/found type 6XX6/)).toBeVisible();
  await page.getByText("A tube type that is not in the library").click();
  await page.getByLabel("Type").fill("6XX6");
  await page.getByLabel("µ (grid 2 to grid 1)").fill("10");
  await page.getByLabel(/Points of its sheet/).fill("250 / 250 / -12: forty");
  await page.getByRole("button", { name: "Fit a model" }).click();
  await expect(page.getByText("“250 / 250 / -12: forty” is no point")).toBeVisible();
  await page.getByLabel(/Points of its sheet/).fill("250 / 250 / -12: 40 + 4, 4.2");
  await page.getByRole("button", { name: "Fit a model" }).click();
  await expect(page.getByText("● Within 10 % of every point")).toBeVisible();
  await page.getByRole("button", { name: "Put it into this file" }).click();
  await expect(headline(page)).toContainText("Solved");
});

test("the walk goes by the solved circuit and shows where the chart cannot be right", async ({ page }) => {
  await page.goto(`${shop.address}/jobs/1007/walk`);
  const row = (point: string) => page.locator(`[data-point="${point}"]`);
  await expect(row("V6.k")).toContainText("out");
  await expect(row("V7.k")).toContainText("in band");
  await expect(row("V1B.k")).toContainText("▲ 4.50 V");
  await row("V1B.k").getByRole("button").click();
  await expect(page.getByText("The chart says 4.66 V today; the circuit cannot give that.")).toBeVisible();
});
