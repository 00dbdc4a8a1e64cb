/** Whole jobs by keyboard alone, from the first page to report and bill: every key counted, every line where it was meant. */

import { expect, test, type Page } from "./test";
import { Keys } from "./keyboard";
import { tapeOf } from "./tape";
import { Shop } from "./shop";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open();
});
test.afterAll(() => shop.close());

class Bench {
  readonly keys: Keys;
  job = 0;
  constructor(readonly page: Page) {
    this.keys = new Keys(page);
  }

  /** What was logged so far, from the tape as the server has it. */
  async tape() {
    return tapeOf(shop, this.page, this.job);
  }

  async logged(type: string, payload: Record<string, unknown>): Promise<void> {
    await expect.poll(async () => (await this.tape()).filter((l) => l.type === type).map((l) => l.payload)).toContainEqual(
      expect.objectContaining(payload),
    );
  }

  /** On to the next station: one key in an empty field or anywhere else. */
  async on(station: string): Promise<void> {
    await this.keys.act("]");
    await this.page.waitForURL(new RegExp(`/${station}$`));
    await this.arrived();
  }

  async to(number: number, station: string): Promise<void> {
    if (/^(INPUT|TEXTAREA)$/.test(await this.page.evaluate(() => document.activeElement?.tagName ?? ""))) await this.keys.press("Escape");
    for (const key of `g${number}`) await this.keys.act(key);
    if (number === 1) await this.keys.act("Enter");
    await this.page.waitForURL(new RegExp(`/${station}$`));
    await this.arrived();
  }

  async arrived(): Promise<void> {
    await expect(this.page.locator("html[data-awake=true]")).toHaveCount(1);
    await expect.poll(() => this.page.evaluate(() => document.activeElement?.tagName ?? "BODY")).not.toMatch(/BODY|H1/);
  }
}

test("a job without a circuit", async ({ page }) => {
  const bench = new Bench(page);
  const { keys } = bench;
  await page.goto(`${shop.address}/jobs/new`);
  await expect(page.getByLabel("Owner")).toBeFocused();
  await keys.type("O. Venn");
  await keys.tabTo(/^Amp/);
  await keys.type("table radio");
  await keys.tabTo(/^Complaint/);
  await keys.type("Hums from cold, and one tube glows red");
  await keys.tabTo("Open the job");
  await keys.act("Enter");
  await page.waitForURL(/\/jobs\/\d+\/intake$/);
  bench.job = Number(/jobs\/(\d+)/.exec(page.url())![1]);
  await bench.arrived();
  console.log("intake", await keys.focused());
});
