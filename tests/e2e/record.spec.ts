/** The record of the work in the real interface: a quote with three ways, a part declined, work beyond it, bill, payment, calendar; the cure among three changes; the next job of a model. */

import ICAL from "ical.js";
import { expect, test, type Page } from "./test";
import { extractText, getDocumentProxy } from "unpdf";
import { Shop } from "./shop";
import { log, tab, tapeOf } from "./tape";

let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
});
test.afterAll(() => shop.close());

const last = async (page: Page, job: number, type: string) => (await tapeOf(shop, page, job)).findLast((e) => e.type === type);
async function work(page: Page, job: number, name: string) {
  await page.goto(`${shop.address}/jobs/${job}/work`);
  await expect(page.locator("[data-ready]")).toBeVisible();
  await tab(page, name);
}
const pass = (page: Page, job: number) =>
  log(shop, page, job, {
    type: "gate-passed",
    payload: { station: "work", reason: "on the bench, plug out, leads lifted", understood: true },
  });
const pdfText = async (page: Page, path: string) => {
  const answer = await page.request.get(shop.address + path);
  expect(answer.headers()["content-type"]).toBe("application/pdf");
  const { text } = await extractText(await getDocumentProxy(new Uint8Array(await answer.body())), { mergePages: true });
  return text.replace(/\s+/g, " ");
};

test("a quote of three ways approved with one part declined; work beyond it refused, then approved, billed, paid; the calendar file read back", async ({
  page,
}) => {
  const failures: string[] = [];
  page.on("pageerror", (e) => failures.push(String(e)));
  await pass(page, 1018);

  // The quote as the owner gets it, and their answer by telephone: the second way, without the tubes.
  await work(page, 1018, "Quote");
  await page.getByRole("link", { name: "As a page" }).click();
  await expect(page.getByRole("article")).toContainText("3. Keep it original");
  const quoteLine = Number(/quote-(\d+)/.exec(page.url())![1]);
  expect(await pdfText(page, `/api/v1/jobs/1018/paper/quote-${quoteLine}?paper=letter`)).toContain("173.40");
  await page.getByRole("link", { name: "Back to the job" }).click();
  await tab(page, "Approvals");
  const asked = page.getByRole("region", { name: "Owner's approval" }).getByRole("listitem").filter({ hasText: "Quote: Make it work" });
  await asked.getByLabel("Which way").selectOption({ label: "2. Make it last" });
  await asked.getByLabel("V4: fit a matched pair of 6V6GT (labour, 15 min)").check();
  await asked.getByRole("button", { name: "Owner agrees in part" }).click();
  await expect(page.getByText("Quote: Make it last")).toBeVisible();
  expect((await last(page, 1018, "approval"))!.payload).toMatchObject({ answer: "part", option: 1, by: "telephone", said: "Osric Venn" });

  // The tubes all the same: refused, by the form and by the server.
  await tab(page, "Changes");
  await page.getByLabel("Position").fill("V4");
  await page.getByLabel("New part and its ratings").fill("6V6GT, matched pair");
  await page.getByRole("button", { name: "Log the change" }).click();
  await expect(page.getByRole("form", { name: "A change" }).getByRole("alert")).toContainText(
    "V4 goes beyond what was agreed (the owner said no in line",
  );
  await expect(page.getByLabel("New part and its ratings")).toHaveValue("6V6GT, matched pair");
  const planned = (await tapeOf(shop, page, 1018)).filter((e) => e.type === "planned");
  const of = (position: string) => planned.find((p) => p.payload.position === position)!.seq;
  const beyond = await page.request.post(`${shop.address}/api/v1/jobs/1018/events`, {
    data: {
      events: [
        {
          who: "J.M.",
          type: "change",
          payload: { position: "V4", kind: "replacement", newPart: "pair", reversible: true, planned: of("V4") },
        },
      ],
    },
  });
  expect(beyond.status()).toBe(422);
  expect(((await beyond.json()) as { error: string }).error).toMatch(
    /V4 goes beyond what the owner agreed to \(the owner said no in line \d+\)/,
  );

  // Asked again with its price, and a yes.
  await tab(page, "Approvals");
  const form = page.getByRole("form", { name: "A question" });
  await form.getByLabel("Ask the owner").fill("V4: new output tubes after all?");
  await form.getByLabel("It costs, cr").fill("50,00");
  await form.getByLabel("V4: fit a matched pair of 6V6GT").check();
  await form.getByRole("button", { name: "Note it as asked" }).click();
  const again = page
    .getByRole("region", { name: "Owner's approval" })
    .getByRole("listitem")
    .filter({ hasText: "new output tubes after all?" });
  await again.getByRole("button", { name: "Owner says yes" }).click();
  await expect(again).toContainText("● yes");

  // The work, task by task.
  await tab(page, "Changes");
  for (const [task, part] of [
    ["V4: fit a matched pair of 6V6GT", "6V6GT, matched pair"],
    ["C1: replace the can with 32 + 32 µF 500 V", "32 + 32 µF 500 V can"],
  ] as const) {
    await page.getByLabel("Task of the plan").selectOption({ label: task });
    await expect(page.getByLabel("New part and its ratings")).toHaveValue(part);
    await page.getByRole("button", { name: "Log the change" }).click();
    await expect(page.getByLabel("Task of the plan").getByRole("option", { name: task })).toHaveCount(0);
  }
  await tab(page, "Plan");
  const tasks = page.getByRole("list", { name: "Tasks" });
  await tasks.getByRole("button", { name: /^Start the timer of Input jack/ }).click();
  // The timer is on the tape: it goes on while the page is closed.
  await page.goto(`${shop.address}/jobs/1018/walk`);
  await expect(page.getByRole("status", { name: "Timer" })).toContainText("Timer: Input jack: re-tension and clean the jack");
  await work(page, 1018, "Plan");
  for (const task of ["Input jack", "output stage", "whole amp"])
    await tasks.getByRole("button", { name: new RegExp(`^${task}.* is done$`) }).click();
  await expect(page.getByText("No open task")).toBeVisible();
  await expect(page.getByRole("status", { name: "Timer" })).toHaveCount(0);

  // 40 + 33.60 of the can, 10 of the jack, 20 of the idle, 15 of the tests; 50 for the tubes, agreed later.
  await page.goto(`${shop.address}/jobs/1018/return#Bill`);
  const bill = page.getByRole("table", { name: "Bill" });
  await expect(bill).toContainText("168.60");
  await expect(page.getByText("V4: new output tubes after all?: not in the quote, agreed with you on", { exact: false })).toBeVisible();
  await expect(page.getByText("V4: fit a matched pair of 6V6GT (labour, 15 min): declined by you on", { exact: false })).toBeVisible();
  await page.getByRole("button", { name: /^Make out bill 1018-1/ }).click();
  const owed = page.getByRole("region", { name: "Owed" });
  await expect(owed).toContainText("168.60 cr to be paid");
  const pay = page.getByRole("form", { name: "A payment" });
  await pay.getByLabel("Amount, cr").fill("168,60");
  await pay.getByRole("button", { name: "Note the payment" }).click();
  await expect(owed).toContainText("Paid in full");
  const text = await pdfText(page, `/api/v1/jobs/1018/paper/bill-${(await last(page, 1018, "bill"))!.seq}`);
  for (const fact of ["Bill 1018-1", "168.60", "Town tax 8 %", "A year on our work"]) expect(text).toContain(fact);
  const csv = await (await page.request.get(`${shop.address}/api/v1/bookkeeping`)).text();
  expect(csv).toMatch(/bill,1018-1,1018,Osric Venn,156\.11,12\.49,Town tax,8,0\.00,168\.60/);

  // The report carries it, and the calendar file is read by another program.
  await tab(page, "Report");
  await page.getByLabel("To the owner").fill("Keep it dry.");
  await page.getByLabel("Next service").fill("2028-02-29");
  await page.getByRole("button", { name: "Store the advice" }).click();
  await expect(page.getByRole("link", { name: "Calendar file for 2028-02-29" })).toBeVisible();
  const ics = await (await page.request.get(`${shop.address}/api/v1/jobs/1018/service`)).text();
  const event = new ICAL.Event(new ICAL.Component(ICAL.parse(ics) as never).getFirstSubcomponent("vevent")!);
  expect([event.summary, event.startDate.toString()]).toEqual(["Service of the Tarn & Wicke Lantern 15, serial TW-3514", "2028-02-29"]);
  const report = await pdfText(page, "/api/v1/jobs/1018/report");
  for (const fact of ["Bill 1018-1", "What was agreed with you", "Keep it dry."]) expect(report).toContain(fact);
  expect(await pdfText(page, "/api/v1/jobs/1018/paper/history")).toContain("The whole tape");
  expect(failures).toEqual([]);
});

test("three changes are in: putting back names the one that cured, and the circuit in use follows", async ({ page }) => {
  await pass(page, 1018);
  await work(page, 1018, "Cure");
  // The work of the other test is in too: only the three trials are in question.
  const boxes = page.getByRole("checkbox", { name: /may have cured it$/ });
  await expect(boxes.first()).toBeVisible();
  for (const box of await boxes.all()) {
    const name = (await box.getAttribute("aria-label"))!;
    await box.setChecked(/^(C11|C3|V1) may/.test(name));
  }
  const next = page.getByRole("region", { name: "Next test" });
  const changes = async () => (await tapeOf(shop, page, 1018)).filter((e) => e.type === "change");
  for (let i = 0; i < 3 && !(await next.getByText("C3 cured it").isVisible()); i++) {
    const lines = (await tapeOf(shop, page, 1018)).length;
    await next.getByRole("button", { name: "It is done: log it" }).click();
    await expect.poll(async () => (await tapeOf(shop, page, 1018)).length).toBeGreaterThan(lines);
    // True cure: the third reservoir.
    const undone = new Set(
      (await tapeOf(shop, page, 1018)).filter((e) => e.type === "undo").map((e) => (e as unknown as { supersedes: number }).supersedes),
    );
    const out = (await changes()).some((e) => e.payload.position === "C3" && e.payload.outcome === "reverted" && !undone.has(e.seq));
    await next.getByRole("button", { name: out ? "The fault is back" : "It is still cured" }).click();
    await expect.poll(async () => (await tapeOf(shop, page, 1018)).filter((e) => e.type === "cure-test").length).toBe(i + 1);
  }
  await expect(next).toContainText("C3 cured it");
  const others = next.getByRole("button", { name: /not the cure$/ });
  if (await others.isVisible()) await others.click();
  const fit = next.getByRole("button", { name: "Fit C3 again" });
  if (await fit.isVisible()) await fit.click();
  await tab(page, "Changes");
  const ledger = page.getByRole("table", { name: "Changes" });
  await expect(ledger.getByRole("row", { name: /^C11/ })).toContainText("put back");
  await ledger.getByRole("row", { name: /^C3/ }).getByRole("button", { name: "Kept" }).click();
  await expect(ledger.getByRole("row", { name: /^C3/ })).toContainText("kept");
  // The drawing of the circuit in use has the kept part and not the ones that went back.
  await page.goto(`${shop.address}/jobs/1018/paper/history`);
  await expect(page.getByRole("article")).toContainText("22 µF");
});

test("the second job of a model profits from the first: the old case, what is normal, and the hand-over on the board", async ({ page }) => {
  await page.goto(`${shop.address}/jobs/new`);
  await page.getByLabel("Owner", { exact: true }).fill("Mrs. Tilda Marrowby");
  await page.getByLabel("Contact").fill("at the quay");
  await page.getByLabel("Circuit").selectOption({ label: "Tarn & Wicke Lantern 15" });
  await page.getByLabel("Complaint, in the owner's words").fill("Half of each note is missing, and it is thin and nasty");
  await page.getByRole("button", { name: "Open the job" }).click();
  // An owner of that name is known, elsewhere: asked, and nothing typed is lost.
  await expect(page.getByText(/There is an owner Mrs\. Tilda Marrowby already/)).toBeVisible();
  await page.getByRole("button", { name: "Another person" }).click();
  await page.waitForURL(/\/intake$/);
  const job = Number(/jobs\/(\d+)/.exec(page.url())![1]);

  await page.goto(`${shop.address}/jobs/${job}/suspects`);
  const cases = page.getByRole("region", { name: "Similar old cases" });
  await expect(cases).toContainText("job 1001");
  await expect(cases).toContainText("R9: 56 kΩ 1 W carbon; measured 148 kΩ, leg lifted");
  await log(shop, page, job, { type: "mains", payload: { volts: 230 } });
  await page.goto(`${shop.address}/jobs/${job}/walk`);
  await expect(page.getByText(/In this shop: \d+ V/)).toContainText(/from 1 amp of this model: 1001/);

  await page.goto(`${shop.address}/jobs/${job}/return#Hand over`);
  await expect(page.getByLabel("The state of the job")).toHaveValue(/Complaint: “Half of each note is missing/);
  await page.getByLabel("Goes to").fill("P.Q.");
  await page.getByRole("button", { name: "Hand the job on" }).click();
  await expect(page.getByText(/P\.Q\. has it since/)).toBeVisible();
  await page.goto(shop.address);
  await expect(page.getByRole("row", { name: new RegExp(`Lantern 15 ${job}`) })).toContainText("P.Q.");
  await page.getByRole("searchbox").fill("metal-oxide");
  await expect(page.getByRole("region", { name: "Found", exact: true })).toContainText("1001");
  await page.getByRole("searchbox").fill("halberd");
  await expect(page.getByRole("region", { name: "Found in the shop" })).toContainText("circuit: Ostler Halberd 120");
});
