/** A shop that says valve and line, and writes 12,5: no screen says anything else. */

import { expect, test, type Page } from "@playwright/test";
import { STATIONS } from "../../src/core/tape/stations";
import { Shop } from "./shop";

let shop: Shop;
let job = 0;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
  const api = (path: string, method: string, body: object) =>
    fetch(`${shop.address}/api/v1${path}`, { method, headers: { "content-type": "application/json" }, body: JSON.stringify(body) });
  const settings = (await (await fetch(`${shop.address}/api/v1/settings`)).json()) as Record<string, unknown>;
  const stored = await api("/settings", "PUT", { ...settings, tubeWord: "valve", mainsWord: "line", decimal: "," });
  expect(stored.status).toBe(200);
  // A job in which nobody has typed a word yet: all that its screens say is Scutum's own.
  const opened = await api("/jobs", "POST", { who: "J.M.", owner: "O. Venn", amp: "Drover", modelId: await modelOf("Drover 40") });
  job = ((await opened.json()) as { id: number }).id;
  const at = new Date(Date.now() - 600_000).toISOString();
  const lines = [
    { type: "power", at, payload: { state: "on", plug: "in", through: "variable" } },
    { type: "mains", at, payload: { volts: 229.5 } },
    { type: "reading", payload: { point: "BIAS", kind: "dcv", value: -44.5, conditions: { mains: 229.5 } } },
    { type: "reading", payload: { point: "B1", kind: "dcv", value: 512.5, conditions: { mains: 229.5 } } },
    { type: "observation", payload: { name: "V6 plate glows", conditions: {} } },
    { type: "power", payload: { state: "off", plug: "out" } },
  ];
  expect((await api(`/jobs/${job}/events`, "POST", { events: lines.map((l) => ({ who: "J.M.", ...l })) })).status).toBe(200);
});
test.afterAll(() => shop.close());

/** Number of a model of the demo library. */
async function modelOf(name: string): Promise<number> {
  for (let id = 1; id < 10; id++) {
    const file = await fetch(`${shop.address}/api/v1/models/${id}/netlist`);
    if (file.ok && (await file.text()).includes(name)) return id;
  }
  throw new Error(`no model ${name}`);
}

/** All that a page says to eye and ear, circuit files and what they name left out. */
async function saidBy(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const out: string[] = [];
    const skip = (el: Element | null) => el?.closest("textarea, code, pre, option, [data-quoted]") !== null;
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let n = walker.nextNode(); n; n = walker.nextNode())
      if (!skip(n.parentElement) && !/^(SCRIPT|STYLE)$/.test(n.parentElement!.tagName) && n.textContent!.trim())
        out.push(n.textContent!.trim());
    for (const el of document.querySelectorAll("[aria-label],[title],[placeholder]"))
      if (!skip(el)) for (const a of ["aria-label", "title", "placeholder"]) if (el.getAttribute(a)) out.push(el.getAttribute(a)!);
    for (const el of document.querySelectorAll<HTMLInputElement>("input"))
      if (el.value && !["file", "range"].includes(el.type)) out.push(el.value);
    return out;
  });
}

const screens = () => [
  "/library",
  "/library/new",
  "/jobs/new",
  "/guide",
  "/guide/bring-up",
  ...STATIONS.map((s) => `/jobs/${job}/${s.id}`),
  `/jobs/${job}/report`,
];

test("every screen says valve and line, never tube or mains", async ({ page }) => {
  test.setTimeout(300_000);
  const wrong: string[] = [];
  for (const path of screens()) {
    await page.goto(shop.address + path);
    await page.waitForLoadState("load");
    if (path.endsWith("/suspects")) await page.getByRole("region", { name: "Suspects" }).waitFor({ timeout: 120_000 });
    if (path.endsWith("/cold-checks")) await page.getByRole("table", { name: "Resistances" }).waitFor({ timeout: 120_000 });
    if (path.endsWith("/bring-up")) await page.locator("progress").first().waitFor({ state: "detached", timeout: 120_000 });
    for (const text of await saidBy(page)) if (/\btubes?\b|\bmains\b/i.test(text)) wrong.push(`${path}: ${text.slice(0, 120)}`);
  }
  expect(wrong).toEqual([]);
});

test("every figure has its decimal comma", async ({ page }) => {
  test.setTimeout(300_000);
  const wrong: string[] = [];
  for (const path of screens().filter((p) => !p.startsWith("/guide"))) {
    await page.goto(shop.address + path);
    await page.waitForLoadState("load");
    if (path.endsWith("/suspects")) await page.getByRole("region", { name: "Suspects" }).waitFor({ timeout: 120_000 });
    if (path.endsWith("/cold-checks")) await page.getByRole("table", { name: "Resistances" }).waitFor({ timeout: 120_000 });
    for (const text of await saidBy(page)) if (/(?<![\w.])\d+\.\d(?![\w.]*\.\d)/.test(text)) wrong.push(`${path}: ${text.slice(0, 120)}`);
  }
  expect(wrong).toEqual([]);
});

test("every tab of the output stage, the signal walk, the capacitors and leakage speaks so too", async ({ page }) => {
  test.setTimeout(180_000);
  const wrong: string[] = [];
  // What lies behind the gate of Cold checks speaks too.
  const gate = { type: "gate-passed", who: "J.M.", payload: { station: "cold-checks", reason: "reading the screens", understood: true } };
  await page.request.post(`${shop.address}/api/v1/jobs/${job}/events`, { data: { events: [gate] } });
  for (const [station, tabs] of [
    ["output-stage", ["Bias", "Cathode resistor", "Load line", "Waveform", "Blocking", "Valves", "Supply"]],
    ["signal", ["Signal walk"]],
    ["work", ["Capacitors", "Reform", "Substitute", "Kit"]],
    ["cold-checks", ["Leakage"]],
  ] as const) {
    await page.goto(`${shop.address}/jobs/${job}/${station}`);
    for (const name of tabs) {
      await page.getByRole("tab", { name }).click();
      await page.waitForTimeout(name === "Waveform" || name === "Blocking" ? 8000 : 2500);
      for (const text of await saidBy(page)) {
        if (/\btubes?\b|\bmains\b/i.test(text)) wrong.push(`${name}: ${text.slice(0, 120)}`);
        if (/\d\.\d/.test(text)) wrong.push(`${name}: ${text.slice(0, 120)}`);
      }
    }
  }
  expect(wrong).toEqual([]);
});
