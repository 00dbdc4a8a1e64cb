/** Keys at full speed in the real interface: every line lands where it was typed, whatever a second bench logs and whenever a solve ends. */

import { expect, test, type Page } from "./test";
import { settled } from "./ready";
import { log, tapeOf } from "./tape";
import { Shop } from "./shop";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

const JOB = 1006;
const POINTS = ["B1", "B2", "V2.k", "V2.p", "V2.s", "V1A.k"];
const on = { type: "power", payload: { state: "on", plug: "in", through: "variable" } };
const guard = (page: Page) => page.getByRole("status", { name: "Energy state" });

/** Thirty lines of all kinds, each with its number in it. */
const mixed = (round: number): string[] =>
  Array.from({ length: 30 }, (_, i) => {
    const n = round * 100 + i;
    if (i % 5 === 1) return `note line ${n} of the bench`;
    if (i % 5 === 3) return `find socket ${n}: pin loose`;
    return `${POINTS[i % POINTS.length]} ${100 + n / 100}`;
  });
/** What a stored line says, as it was typed. */
const typedAs = ({ type, payload }: { type: string; payload: Record<string, unknown> }): string | undefined =>
  type === "note"
    ? `note ${String(payload.text)}`
    : type === "finding"
      ? `find ${String(payload.place)}: ${String(payload.text)}`
      : type === "reading"
        ? `${String(payload.point)} ${String(payload.value)}`
        : undefined;

/** Another bench logs five readings a second until it is stopped. */
function secondBench(page: Page): () => Promise<number> {
  let going = true;
  const done = (async () => {
    let logged = 0;
    for (; going; logged++) {
      await new Promise((r) => setTimeout(r, 200));
      await log(shop, page, JOB, {
        type: "reading",
        who: "P.K.",
        payload: { point: POINTS[logged % POINTS.length], kind: "dcv", value: 40 + logged, conditions: {} },
      });
    }
    return logged;
  })();
  return () => {
    going = false;
    return done;
  };
}

/** A job with the Wren's circuit, of which nothing is read yet. */
async function freshWren(): Promise<number> {
  const models = `${shop.address}/api/v1/models`;
  let modelId = 1;
  while (!(await (await fetch(`${models}/${modelId}/netlist`)).text()).includes("Wren 5")) modelId++;
  const opened = await fetch(`${shop.address}/api/v1/jobs`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ who: "J.M.", owner: "O. Venn", amp: "Wren 5", modelId }),
  });
  return ((await opened.json()) as { id: number }).id;
}

for (const [round, station] of ["walk", "suspects", "work"].entries())
  test(`thirty lines at ${station}: each lands, while another bench logs and solves end`, async ({ page }) => {
    await log(shop, page, JOB, on);
    await page.goto(`${shop.address}/jobs/${JOB}/${station}`);
    await expect(guard(page)).toHaveAttribute("data-energy", "live");
    await page.locator("[data-ready]").waitFor();
    const lines = mixed(round + 1);
    const stop = secondBench(page);
    await page.keyboard.press("F2");
    const entry = page.getByLabel("Entry line", { exact: true });
    await expect(entry).toBeFocused();
    for (const line of lines) {
      await page.keyboard.type(line);
      await page.keyboard.press("Enter");
    }
    expect(await stop()).toBeGreaterThan(2);
    await expect(entry).toHaveValue("");
    await expect(entry).toBeFocused();
    const stored = await tapeOf(shop, page, JOB);
    const own = stored.filter((e) => e.who === "J.M." && typedAs(e) !== undefined).map(typedAs);
    expect(own.slice(-lines.length)).toEqual(lines);
    await log(shop, page, JOB, { type: "power", payload: { state: "off", plug: "out" } });
  });

test("a half-typed reading at Suspects belongs to its point, though another bench's readings ask for another", async ({ page }) => {
  const job = await freshWren();
  await log(shop, page, job, on);
  await page.goto(`${shop.address}/jobs/${job}/suspects`);
  await settled(page);
  const advice = page.getByRole("region", { name: /What to do now|Go on with|To settle it/ });
  const field = advice.getByRole("textbox").first();
  await field.focus();
  const asked = (await advice.first().locator("p").first().textContent())!;
  await page.keyboard.type("18");
  for (const [point, value] of [
    ["B1", 262],
    ["V2.k", 0.1],
    ["V2.p", 262],
  ] as const)
    await log(shop, page, job, { type: "reading", who: "P.K.", payload: { point, kind: "dcv", value, conditions: { mains: 230 } } });
  await expect(page.getByRole("list", { name: "Lines of the tape" })).toContainText("V2.p 262 V");
  await settled(page);
  await page.keyboard.type("5");
  expect([await advice.first().locator("p").first().textContent(), await field.inputValue()]).toEqual([asked, "185"]);
  // A line of the entry line in the same field goes where it says.
  await page.keyboard.press("Control+A");
  await page.keyboard.type("V1A.k 1.25");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Lines of the tape" })).toContainText("V1A.k 1.25 V");
});

test("from station to station by keys, the focus never on the body", async ({ page }) => {
  const reason = "looking only, nothing is touched";
  await log(shop, page, JOB, { type: "gate-passed", payload: { station: "look", reason, understood: true } });
  await page.goto(`${shop.address}/jobs/${JOB}/look`);
  const focused = () => page.evaluate(() => document.activeElement?.tagName ?? "BODY");
  await expect.poll(focused).not.toBe("BODY");
  // At Look the answers are there at once.
  await expect(page.getByRole("region", { name: "Inspection" })).toBeFocused();
  await page.keyboard.press("1");
  await expect.poll(async () => (await tapeOf(shop, page, JOB)).at(-1)?.type).toBe("inspection");
  await page.keyboard.press("]");
  await expect(page).toHaveURL(/cold-checks/);
  await expect.poll(focused).not.toBe("BODY");
  await page.keyboard.press("[");
  await expect(page).toHaveURL(/look/);
  await page.keyboard.press("g");
  await expect(page.getByText(/Go to station/)).toBeVisible();
  await page.keyboard.press("1");
  await page.keyboard.press("3");
  await expect(page).toHaveURL(/return/);
  await expect.poll(focused).not.toBe("BODY");
  await page.keyboard.press("?");
  await expect(page.getByRole("table", { name: "Keys" })).toContainText("to a station by its number");
});
