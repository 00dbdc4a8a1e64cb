/** Whole jobs by keyboard alone, from a new job to report and bill: every key is counted, every line lands where it was meant. */

import { expect, test, type Page } from "./test";
import { Keys } from "./keyboard";
import { tapeOf } from "./tape";
import { Shop } from "./shop";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

/** Point and expected volts of the walk's region. */
function pointAndVolts(text: string): { point: string; volts: string } | undefined {
  const point = /^[A-Z]\w*(?:\.\w)?/.exec(text.trim())?.[0];
  const volts = /Should be (−?[\d.]+) V/.exec(text)?.[1];
  return point !== undefined && volts !== undefined ? { point, volts: volts.replace("−", "-") } : undefined;
}

/** The acts of a job at the bench, each by its keys. */
class Bench {
  readonly keys: Keys;
  private job = 0;
  constructor(private readonly page: Page) {
    this.keys = new Keys(page);
  }

  async open(amp: string, complaint: string, circuit?: string): Promise<void> {
    const { page, keys } = this;
    await page.goto(`${shop.address}/jobs/new`);
    await expect(page.getByRole("combobox", { name: "Owner" })).toBeFocused();
    await keys.type("A. Frey");
    if (circuit !== undefined) {
      await keys.tabTo(/^Circuit/);
      await keys.type(circuit);
    } else {
      await keys.tabTo(/^Amp/);
      await keys.type(amp);
    }
    await keys.tabTo(/^Complaint/);
    await keys.type(complaint);
    await keys.act("Control+Enter");
    await page.waitForURL(/\/jobs\/\d+\/intake$/);
    this.job = Number(/jobs\/(\d+)/.exec(page.url())![1]);
    await this.arrived();
    // The brief is asked for next: what matters most is one key, the next is beside it.
    await expect.poll(() => keys.focused()).toMatch(/reliability, as number 1/);
    await keys.act("Enter");
    await keys.act("Control+Enter");
    await this.logged("brief", { order: ["reliability"] });
  }

  private async tape() {
    return tapeOf(shop, this.page, this.job);
  }

  /** Waits until the tape has that line. */
  async logged(type: string, payload: Record<string, unknown>): Promise<void> {
    await expect
      .poll(async () => (await this.tape()).filter((l) => l.type === type).map((l) => l.payload))
      .toContainEqual(expect.objectContaining(payload));
  }

  /** To a station by its number. From a field with something in it or asked for, Escape comes first. */
  async go(number: number, station: string): Promise<void> {
    const typing = await this.page.evaluate(() => /^(INPUT|TEXTAREA|SELECT)$/.test(document.activeElement?.tagName ?? ""));
    if (typing) await this.keys.press("Escape");
    for (const key of `g${number}`) await this.keys.act(key);
    if (number === 1) await this.keys.act("Enter");
    await this.page.waitForURL(new RegExp(`/${station}$`));
    await this.arrived();
  }

  private async arrived(): Promise<void> {
    await expect(this.page.locator("html[data-awake=true]")).toHaveCount(1);
    await expect.poll(() => this.page.evaluate(() => document.activeElement?.tagName ?? "BODY")).not.toMatch(/BODY/);
  }

  /** Past a closed gate with a reason: the field beside the one thing to do. */
  async past(reason: string, station: string): Promise<void> {
    await expect.poll(() => this.keys.focused()).toBe("Make safe first");
    await this.keys.tabTo(/reason, kept on the tape/);
    await this.keys.enter(reason);
    await this.logged("gate-passed", { station, reason });
  }

  /** Everything at Look is sound. */
  async look(): Promise<void> {
    await this.past("looking only, chassis closed", "look");
    const said = this.page.getByRole("region", { name: "Inspection" });
    await expect(said).toBeFocused();
    const count = Number(/of (\d+) looked at/.exec((await said.textContent())!)![1]);
    for (let i = 0; i < count; i++) await this.keys.act("1");
    await expect.poll(async () => (await this.tape()).filter((l) => l.type === "inspection").length).toBe(count);
  }

  /** A line at the entry line, wherever the focus is, and back to where it was. */
  async line(text: string, type: string, payload: Record<string, unknown>): Promise<void> {
    const { keys } = this;
    if (!/Entry line|Place and value/.test(await keys.focused())) {
      await keys.press("F2");
      keys.needed++;
    }
    await keys.enter(text);
    await this.logged(type, payload);
  }

  /** So many points of the walk as they should be, each at the point that is asked for. */
  async walk(points: number): Promise<void> {
    const next = this.page.getByRole("region", { name: "Next point" });
    if ((await this.keys.focused()) === "Entry line") await this.keys.press("F2");
    const asked: string[] = [];
    for (let i = 0; i < points; i++) {
      await expect.poll(async () => pointAndVolts(await next.innerText())?.point ?? "").not.toMatch(new RegExp(`^(${asked.join("|")})$`));
      const { point, volts } = pointAndVolts(await next.innerText())!;
      asked.push(point);
      await this.keys.enter(volts);
      await this.logged("reading", { point, value: Number(volts) });
    }
  }

  /** A value at the point that Suspects asks for. */
  async suspects(volts: string): Promise<void> {
    await expect.poll(() => this.keys.focused()).toMatch(/^Reading, V/);
    const before = (await this.tape()).length;
    await this.keys.enter(volts);
    await expect.poll(async () => (await this.tape()).length).toBe(before + 1);
    expect((await this.tape()).at(-1)).toMatchObject({ type: "reading", payload: { value: Number(volts) } });
  }

  async prove(): Promise<void> {
    const { keys } = this;
    await expect.poll(() => keys.focused()).toMatch(/^Earth bond/);
    for (const [value, test] of [
      ["0.05", "earth bond"],
      ["50M", "insulation"],
      ["0.2m", "leakage"],
    ] as const) {
      await keys.enter(value);
      await this.logged("safety-test", { test, passed: true });
    }
    for (const test of ["fuse", "polarity", "cord"]) {
      await keys.act("Enter");
      await keys.act("Enter");
      await this.logged("safety-test", { test, passed: true });
    }
  }

  /** Report and bill. */
  async billed(words: string, amount: string): Promise<void> {
    const { keys } = this;
    await this.go(13, "return");
    await expect.poll(() => keys.focused()).toBe("Open and print");
    await keys.act("Shift+Tab");
    await keys.act("ArrowRight");
    await keys.tabTo(/^For/);
    await keys.type(words);
    await keys.tabTo(/^Amount/);
    await keys.enter(amount);
    await this.logged("bill-line", { text: words });
    await keys.tabTo(/^Make out bill/, "Shift+Tab");
    await keys.act("Enter");
    // The shop has a name and a currency, and no tax: asked about once.
    await this.logged("bill", { number: `${this.job}-1` });
  }
}

test("a job without a circuit", async ({ page }) => {
  const bench = new Bench(page);
  const { keys } = bench;
  await bench.open("table radio", "Hums from cold, one tube glows red");
  await bench.go(3, "look");
  await bench.look();
  await bench.go(6, "walk");
  await bench.line("V1 is 12AX7", "tube-seen", { tube: "V1", type: "12AX7" });
  await bench.line("V4 is EL84", "tube-seen", { tube: "V4", type: "EL84" });
  await bench.line("on variable", "power", { state: "on", through: "variable" });
  await bench.line("B+ 318, B2 302", "reading", { point: "B2", value: 302 });
  await bench.line("V4 pin 7 312, V4 pin 9 300, V4 pin 2 14, V4 pin 3 16.5", "reading", { point: "V4.k", value: 16.5 });
  await bench.line("off", "power", { state: "off", plug: "out" });
  await bench.go(10, "work");
  await bench.past("unsoldered with the plug out", "work");
  await bench.line("fit C6 22n 630V film, was leaky", "change", { position: "C6" });
  await bench.go(12, "prove");
  await bench.prove();
  await bench.billed("bench time", "40");
  console.log(`a job without a circuit: ${keys.pressed} keys, ${keys.needed} needed`);
  expect(keys.pressed).toBeLessThanOrEqual(1.1 * keys.needed);
});

test("a single-ended amp with its circuit", async ({ page }) => {
  const bench = new Bench(page);
  const { keys } = bench;
  await bench.open("Wren 5", "Weak, and hums", "Br");
  await bench.go(3, "look");
  await bench.look();
  await bench.go(6, "walk");
  await bench.line("on variable because all seen to before", "power", { state: "on", through: "variable" });
  await bench.walk(8);
  await bench.line("off", "power", { state: "off", plug: "out" });
  await bench.go(10, "work");
  await bench.past("unsoldered with the plug out", "work");
  await bench.line("fit C6 22n 630V film, was leaky", "change", { position: "C6" });
  await bench.go(12, "prove");
  await bench.prove();
  await bench.billed("bench time", "40");
  console.log(`a single-ended amp: ${keys.pressed} keys, ${keys.needed} needed`);
  expect(keys.pressed).toBeLessThanOrEqual(1.1 * keys.needed);
});

test("a push-pull amp with its circuit", async ({ page }) => {
  const bench = new Bench(page);
  const { keys } = bench;
  await bench.open("Drover 40", "One output tube glows red", "Sk");
  await bench.go(3, "look");
  await bench.look();
  await bench.go(6, "walk");
  await bench.line("on variable because all seen to before", "power", { state: "on", through: "variable" });
  await bench.walk(6);
  await bench.go(7, "suspects");
  // A grid of the output stage, at its bias.
  await bench.suspects("-51");
  await bench.line("saw V6 red", "observation", { name: expect.stringContaining("V6") });
  await bench.line("off", "power", { state: "off", plug: "out" });
  await bench.go(10, "work");
  await bench.past("unsoldered with the plug out", "work");
  await bench.line("fit C6 100n 630V polyester, was leaky", "change", { position: "C6" });
  await bench.go(12, "prove");
  await bench.prove();
  await bench.billed("bench time", "40");
  console.log(`a push-pull amp: ${keys.pressed} keys, ${keys.needed} needed`);
  expect(keys.pressed).toBeLessThanOrEqual(1.1 * keys.needed);
});
