/** Every screen, loaded once, against the automated accessibility audit, the finger of a phone and a tablet, and the shop's own words. */

import { AxeBuilder } from "@axe-core/playwright";
import { expect, test, type Page } from "./test";
import { becomes, PHONE, TABLET, tooSmall } from "./device";
import { settled } from "./ready";
import { BARE_JOB, OWN_JOB, SCREENS, type Screen } from "./screens";
import { pastGates } from "./tape";
import { Shop } from "./shop";

test.describe.configure({ mode: "parallel" });

let shop: Shop;
/** Numbers of the jobs that are made here, by their name in a path. */
const made = new Map<string, number>();
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
  made.set(OWN_JOB, await saysValveAndLine(shop));
  made.set(BARE_JOB, await jobWithoutCircuit(shop));
});
test.afterAll(() => shop.close());

/** The shop says valve, line and 12,5. @returns a job in which nobody has typed a word yet: all that its screens say is Scutum's own. */
async function saysValveAndLine({ address }: Shop): Promise<number> {
  const api = async (path: string, method: string, body: object) => {
    const answer = await fetch(`${address}/api/v1${path}`, {
      method,
      headers: { "content-type": "application/json" },
      body: JSON.stringify(body),
    });
    expect(answer.status).toBeLessThan(300);
    return answer;
  };
  const settings = (await (await fetch(`${address}/api/v1/settings`)).json()) as Record<string, unknown>;
  await api("/settings", "PUT", { ...settings, tubeWord: "valve", mainsWord: "line", decimal: "," });
  const opened = await api("/jobs", "POST", { who: "J.M.", owner: "O. Venn", amp: "Drover", modelId: await modelOf(address, "Drover 40") });
  const { id } = (await opened.json()) as { id: number };
  const at = new Date(Date.now() - 600_000).toISOString();
  const lines = [
    { type: "power", at, payload: { state: "on", plug: "in", through: "variable" } },
    { type: "mains", at, payload: { volts: 229.5 } },
    { type: "reading", payload: { point: "BIAS", kind: "dcv", value: -44.5, conditions: { mains: 229.5 } } },
    { type: "reading", payload: { point: "B1", kind: "dcv", value: 512.5, conditions: { mains: 229.5 } } },
    { type: "observation", payload: { name: "V6 plate glows", conditions: {} } },
    { type: "power", payload: { state: "off", plug: "out" } },
    // What lies behind the gate of Cold checks speaks too.
    { type: "gate-passed", payload: { station: "cold-checks", reason: "reading the screens", understood: true } },
  ];
  await api(`/jobs/${id}/events`, "POST", { events: pastGates(lines).map((l) => ({ who: "J.M.", ...l })) });
  return id;
}

async function jobWithoutCircuit({ address }: Shop): Promise<number> {
  const send = async (path: string, body: object) => {
    const headers = { "content-type": "application/json" };
    const answer = await fetch(`${address}/api/v1${path}`, { method: "POST", headers, body: JSON.stringify(body) });
    expect(answer.status, path).toBeLessThan(300);
    return (await answer.json()) as { id: number };
  };
  const { id } = await send("/jobs", { who: "J.M.", owner: "O. Venn", amp: "a small radio" });
  const reading = (point: string, value: number, kind = "dcv") => ({
    who: "J.M.",
    type: "reading",
    payload: { point, kind, value, conditions: {} },
  });
  await send(`/jobs/${id}/events`, {
    events: [
      ...["12AX7", "EL84", "EL84"].map((type, i) => ({ who: "J.M.", type: "tube-seen", payload: { tube: `V${i + 1}`, type } })),
      reading("B1", 318),
      reading("V1A.p", 317),
      reading("V2.p", 312),
      reading("V2.g", 14),
      reading("V2.k", 11),
      reading("V2.k", 135, "ohm"),
      reading("V3.k", 7),
    ],
  });
  return id;
}

/** Number of a model of the demo library. */
async function modelOf(address: string, name: string): Promise<number> {
  for (let id = 1; id < 10; id++) {
    const file = await fetch(`${address}/api/v1/models/${id}/netlist`);
    if (file.ok && (await file.text()).includes(name)) return id;
  }
  throw new Error(`no model ${name}`);
}

/** Solving may take its time on a busy machine: only a screen that never comes fails. */
const PATIENCE = { timeout: 120_000 };

async function open(page: Page, { path }: Screen): Promise<void> {
  await page.goto(shop.address + path.replace(/[A-Z]+_JOB/, (name) => String(made.get(name))));
  await settled(page);
}

/** Opens a tab, or the page as it comes, and waits for what is worked out there. */
async function show(page: Page, { path }: Screen, part: string | undefined): Promise<void> {
  if (part !== undefined) {
    const tab = page.getByRole("tab", { name: part, exact: true });
    await tab.click();
    await expect(tab).toHaveAttribute("aria-selected", "true");
    await settled(page);
  }
  if (part === "Where it enters") await page.getByRole("region", { name: "Next test" }).waitFor(PATIENCE);
  if (part === "Grounds") await page.getByRole("table", { name: "Wires" }).waitFor(PATIENCE);
  if (part !== undefined) return;
  if (path.endsWith("/signal")) await page.getByRole("region", { name: "Response figures" }).waitFor(PATIENCE);
  if (path.endsWith("/suspects")) await page.getByRole("region", { name: "Suspects" }).waitFor(PATIENCE);
  if (path.endsWith("/cold-checks")) await page.getByRole("table", { name: "Resistances" }).waitFor(PATIENCE);
}

/**
 * Without frames from other sites an audit needs no page of its own to put its findings together, which takes two seconds.
 * @param whole false: colours alone, for what a second theme changes.
 * @param far read from two metres: 7 : 1.
 * @param tape with the lines of the tape, hundreds of alike ones: on the first screen of a job they are looked at, on its others not again.
 */
const audit = (page: Page, whole: boolean, far: boolean, tape: boolean) => {
  const axe = new AxeBuilder({ page }).setLegacyMode();
  if (!tape) axe.exclude("[aria-label='Lines of the tape']");
  return axe.options({
    resultTypes: ["violations"],
    preload: false,
    runOnly: whole
      ? { type: "tag", values: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"] }
      : { type: "rule", values: ["color-contrast", ...(far ? ["color-contrast-enhanced"] : [])] },
    rules: far ? { "color-contrast-enhanced": { enabled: true } } : {},
  });
};

async function passesTheAudit(page: Page, screen: Screen): Promise<void> {
  const { path } = screen;
  const job = path.split("/").slice(0, 3).join("/");
  const tape = SCREENS.find((s) => s.audit && s.path.startsWith(`${job}/`)) === screen;
  for (const theme of ["enamel", "ledger"] as const) {
    // The report is paper in either.
    await page.evaluate((t) => document.documentElement.setAttribute("data-theme", t), theme);
    // A colour on its way from one theme to the other belongs to neither. Ended at once: one that is drawn over in the middle may never tell that it is over.
    await page.evaluate(() => {
      for (const a of document.getAnimations()) if (a.effect?.getTiming().iterations !== Infinity) a.finish();
    });
    const { violations } = await audit(page, theme === "enamel", path.includes("/probe"), tape).analyze();
    expect.soft(violations.map((v) => `${theme}: ${v.id}: ${v.nodes.map((n) => n.html.slice(0, 140)).join(" | ")}`)).toEqual([]);
  }
}

async function canBeTouched(page: Page): Promise<void> {
  for (const device of [PHONE, TABLET]) {
    await becomes(page, device);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect.soft(wide, `wider than a ${device.name}`).toBeLessThanOrEqual(device.width);
    expect.soft(await tooSmall(page), `what a finger misses on a ${device.name}`).toEqual([]);
  }
}

/** All that a page says to eye and ear, circuit files and what they name left out. */
const saidBy = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
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

async function speaksAsTheShop(page: Page, { words }: Screen): Promise<void> {
  const said = await saidBy(page);
  expect(said.length).toBeGreaterThan(10);
  const wrong = said.filter((t) => /\btubes?\b|\bmains\b/i.test(t) || (words === "all" && /(?<![\w.])\d+\.\d(?![\w.]*\.\d)/.test(t)));
  expect.soft(wrong.map((t) => t.slice(0, 120))).toEqual([]);
}

const checksOf = (s: Screen) =>
  [s.audit && "passes the audit", s.words && "says valve and line", s.touch && "can be touched"].filter(Boolean);

for (const screen of SCREENS)
  test(`${screen.path}${screen.parts ? `, ${screen.parts.join(", ")}` : ""}: ${checksOf(screen).join(", ")}`, async ({ page }) => {
    test.setTimeout(600_000);
    await open(page, screen);
    for (const part of screen.parts ?? [undefined])
      await test.step(part ?? "as it comes", async () => {
        await show(page, screen, part);
        if (screen.audit) await passesTheAudit(page, screen);
        if (screen.words) await speaksAsTheShop(page, screen);
        if (screen.touch) await canBeTouched(page);
      });
  });
