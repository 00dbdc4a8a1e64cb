/** What the shop keeps beside its tapes: owners, minimums, books, memory; and what it refuses beyond what was agreed. */

import { readFileSync } from "node:fs";
import Papa from "papaparse";
import ICAL from "ical.js";
import { shopDay } from "@/core/shop/day";
import type { EventDraft } from "@/core/tape/events/event";
import { searchElsewhere, search } from "./board";
import { bookkeepingCsv } from "./bookkeeping";
import type { Database } from "./database";
import { freshShop } from "./fresh-shop-for-tests";
import { shopHistory, similarJobs } from "./history";
import { addModel } from "./models";
import { ownerNames, ownerOf, refuseUnclearOwner } from "./owners";
import { serviceCalendar } from "./service-calendar";
import { getSettings, saveSettings } from "./settings";
import { wholeJob } from "./shop";
import { addStockPart, setMinimum, stockParts, waitingForParts } from "./stock-parts";
import { rebuildSummaries } from "./summaries";
import { append, appendPast, openJob } from "./tape";
import type { IncomingEvent } from "./incoming";

let shop: Database;
beforeAll(async () => {
  shop = await freshShop();
});
afterAll(() => shop.close());

const by = (draft: EventDraft): IncomingEvent => ({ ...draft, who: "J.M." });
const job = async (owner = "Osric Venn", modelId?: number) =>
  (await shop.transaction((sql) => openJob(sql, { owner, amp: "Wren 5", who: "J.M.", ...(modelId ? { modelId } : {}) }))).id;
const say = async (id: number, ...drafts: EventDraft[]) => append(shop, id, drafts.map(by));
const opened = (owner: string): EventDraft => ({ type: "job-opened", payload: { owner, amp: "Wren 5" } });
const change = (position: string, more: object = {}): EventDraft => ({
  type: "change",
  payload: { position, kind: "replacement", newPart: "new", reversible: true, ...more },
});

test("what goes beyond the brief is refused by the server too, until there is a yes or a reason", async () => {
  const id = await job();
  await say(id, { type: "brief", payload: { order: ["originality"] } });
  await expect(say(id, change("C6"))).rejects.toMatchObject({
    status: 422,
    message: expect.stringMatching(/^C6 goes beyond what the owner agreed to/),
  });
  await say(id, change("C6", { kind: "experiment", outcome: "open" }));
  await expect(
    say(id, { ...change("C6", { kind: "experiment", outcome: "kept" }), supersedes: 2, reason: "kept" } as EventDraft),
  ).rejects.toMatchObject({ status: 422 });
  await say(id, change("C7", { unagreed: "it smoked" }));
  await say(id, { type: "approval", payload: { what: "C6: renew it", answer: "asked" } });
  await say(id, { type: "approval", payload: { what: "C6: renew it", answer: "yes", asks: 4 } });
  await say(id, change("C6"));
  await expect(say(id, { type: "approval", payload: { what: "x", answer: "yes", asks: 2 } })).rejects.toMatchObject({ status: 422 });
});

describe("owners", () => {
  const contact = async (name: string) =>
    (await shop.query<{ contact: string }>("select contact from owners where name = $1 order by id", [name])).map((r) => r.contact);
  test("one of the same name who is reached elsewhere is asked about; the answer is kept", async () => {
    const name = "Tilda Marrowby";
    const first = await ownerOf(shop, { name, contact: "", same: true });
    expect(await ownerOf(shop, { name, contact: "Chapel Row", same: true })).toBe(first);
    expect(await refuseUnclearOwner(shop, name, "chapel  row")).toBe(true);
    expect(await refuseUnclearOwner(shop, name, "")).toBe(true);
    await expect(refuseUnclearOwner(shop, name, "Quay 3")).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining("reached at “Chapel Row”"),
      details: [{ field: "sameOwner" }],
    });
    const other = await ownerOf(shop, { name, contact: "Quay 3", same: false });
    expect(other).not.toBe(first);
    expect(await ownerOf(shop, { name, contact: "Quay 3", same: true })).toBe(other);
    expect(await contact(name)).toEqual(["Chapel Row", "Quay 3"]);
    expect((await ownerNames(shop)).filter((n) => n === name)).toHaveLength(1);
  });
  test("the same person with a new contact keeps their number", async () => {
    const id = await ownerOf(shop, { name: "The Hall", contact: "the caretaker", same: true });
    expect(await ownerOf(shop, { name: "The Hall", contact: "the treasurer", same: true })).toBe(id);
    expect(await contact("The Hall")).toEqual(["the treasurer"]);
  });
});

test("parts with a minimum, and the jobs that wait for them", async () => {
  const number = await addStockPart(shop, { letter: "C", value: 22e-9, rating: 630, kind: "film", pieces: 2 }, "J.M.");
  await setMinimum(shop, number, 10, "J.M.");
  await setMinimum(shop, number, 6, "P.Q.");
  expect((await stockParts(shop)).find((p) => p.number === number)).toMatchObject({ pieces: 2, minimum: 6 });
  await expect(setMinimum(shop, 9999, 1, "J.M.")).rejects.toMatchObject({ status: 404 });
  const id = await job();
  await say(id, opened("Osric Venn"));
  await say(id, { type: "waiting", payload: { on: "part", what: "22 nF film", stock: number } });
  expect((await waitingForParts(shop)).filter((w) => w.job === id)).toMatchObject([{ what: "22 nF film", stock: number, amp: "Wren 5" }]);
  await say(id, { type: "waiting", payload: { on: "you" } });
  expect((await waitingForParts(shop)).filter((w) => w.job === id)).toEqual([]);
});

test("the books: every standing bill and payment of the shop, between two days, as CSV", async () => {
  const id = await job("=Formula & Sons");
  await say(id, opened("=Formula & Sons"));
  const settings = await getSettings(shop);
  const vat = { name: "VAT", percent: 25, on: ["labour" as const] };
  await saveSettings(shop, { ...settings, money: { ...settings.money, taxes: [vat] } });
  await say(id, { type: "bill-line", payload: { text: "labour", kind: "labour", amount: 125 } });
  const line = { text: "labour", kind: "labour" as const, pieces: 1, price: 125, amount: 125, key: "line 2" };
  const sum = { net: 100, taxes: [{ ...vat, base: 100, amount: 25 }], included: true, rounding: 0, total: 125 };
  const bill = (more: object = {}): EventDraft => ({
    type: "bill",
    payload: { number: `${id}-1`, lines: [line], sum, differences: [], paid: 0, ...more },
  });
  // What was looked at is not what would go out: another sum, something paid that was not, another line.
  await expect(say(id, bill({ lines: [{ ...line, amount: 250 }], sum: { ...sum, net: 225, total: 250 } }))).rejects.toMatchObject({
    status: 409,
    message: expect.stringMatching(/comes to 125.00.* now, and 250.00/),
  });
  await expect(say(id, bill({ paid: 100 }))).rejects.toMatchObject({ status: 409 });
  await expect(say(id, bill({ lines: [{ ...line, text: "another" }] }))).rejects.toMatchObject({ status: 409 });
  // Number and days are the server's, whatever is sent.
  await say(id, bill({ number: "77", payBy: "2099-01-01" }));
  const made = (await wholeJob(shop, id)).events.findLast((e) => e.type === "bill")!.payload;
  expect(made).toMatchObject({ number: `${id}-1`, on: shopDay(Date.now(), settings.timeZone), sum: { total: 125 } });
  expect((made as { payBy: string }).payBy).not.toBe("2099-01-01");
  // It is made out once.
  await expect(say(id, bill())).rejects.toMatchObject({ status: 409, message: expect.stringContaining("nothing to bill") });
  await say(
    id,
    { type: "payment", payload: { amount: 125, on: "2026-03-05", means: "card", what: "payment" } },
    { type: "payment", payload: { amount: 5, on: "2026-03-06", means: "cash", what: "payment" } },
  );
  await say(id, { type: "undo", supersedes: 5, payload: {} });
  const rows = async (from?: string, to?: string) =>
    Papa.parse<Record<string, string>>(await bookkeepingCsv(shop, from, to), { header: true, skipEmptyLines: true }).data.filter(
      (r) => r.job === String(id),
    );
  expect(await rows()).toMatchObject([
    { kind: "payment", date: "2026-03-05", total: "125.00", means: "card", owner: "'=Formula & Sons" },
    { kind: "bill", number: `${id}-1`, net: "100.00", tax: "25.00", total: "125.00" },
  ]);
  expect((await rows("2026-03-05", "2026-03-05")).map((r) => r.kind)).toEqual(["payment"]);
  // A bill whose sum is not that of its lines is not taken.
  await expect(
    say(id, { type: "bill", payload: { number: "x", lines: [line], sum: { ...sum, net: 90 }, differences: [], paid: 0 } }),
  ).rejects.toMatchObject({
    status: 422,
    message: expect.stringContaining("the lines come to 125"),
  });
  await expect(
    say(id, { type: "bill", payload: { number: "x", lines: [line], sum: { ...sum, total: 200 }, differences: [], paid: 0 } }),
  ).rejects.toMatchObject({ status: 422 });
  await saveSettings(shop, settings);
});

test("what was given out before the jobs were kept here keeps its day", async () => {
  const id = await job("Eda Crane");
  const settings = await getSettings(shop);
  const then = (draft: EventDraft): IncomingEvent => ({ ...by(draft), at: "2026-03-01T11:00:00.000Z" });
  await appendPast(
    shop,
    id,
    [opened("Eda Crane"), { type: "bill-line", payload: { text: "labour", kind: "labour", amount: 40 } } as const].map(then),
  );
  const line = { text: "labour", kind: "labour" as const, pieces: 1, price: 40, amount: 40, key: "line 2" };
  const sum = { net: 40, taxes: [], included: true, rounding: 0, total: 40 };
  const [bill] = await appendPast(shop, id, [
    then({ type: "bill", payload: { number: "x", lines: [line], sum, differences: [], paid: 0 } }),
  ]);
  expect(settings.money.payDays).toBe(14);
  expect(bill!.payload).toMatchObject({ number: `${id}-1`, on: "2026-03-01", payBy: "2026-03-15" });
});

test("a shop that numbers its bills in a row: one after the other over all jobs, none twice, no gap where one is refused", async () => {
  const settings = await getSettings(shop);
  await saveSettings(shop, { ...settings, money: { ...settings.money, billNumbers: "shop" } });
  const bill = (amount: number): EventDraft => ({
    type: "bill",
    payload: {
      number: "next",
      lines: [{ text: "labour", kind: "labour", pieces: 1, price: amount, amount, key: "line 2" }],
      sum: { net: amount, taxes: [], included: true, rounding: 0, total: amount },
      differences: [],
      paid: 0,
    },
  });
  const jobs: number[] = [];
  for (const owner of ["Ada Crane", "Bo Crane", "Cy Crane"]) {
    const id = await job(owner);
    await say(id, opened(owner), { type: "bill-line", payload: { text: "labour", kind: "labour", amount: 40 } });
    jobs.push(id);
  }
  // At once, and one of them twice: it is refused and takes no number.
  const done = await Promise.allSettled([...jobs, jobs[0]!].map((id) => say(id, bill(40))));
  expect(done.filter((d) => d.status === "rejected")).toHaveLength(1);
  const numbers = await Promise.all(
    jobs.map(async (id) => ((await wholeJob(shop, id)).events.find((e) => e.type === "bill")!.payload as { number: string }).number),
  );
  expect(numbers.sort()).toEqual(["1", "2", "3"]);
  await expect(say(jobs[1]!, bill(40))).rejects.toMatchObject({ status: 409 });
  const next = await job("Di Crane");
  await say(next, opened("Di Crane"), { type: "bill-line", payload: { text: "labour", kind: "labour", amount: 40 } });
  await say(next, bill(40));
  expect((await wholeJob(shop, next)).events.at(-1)!.payload).toMatchObject({ number: "4" });
  await saveSettings(shop, settings);
});

test("the next service as a calendar file, read back by another program", async () => {
  const id = await job("Osric Venn");
  await expect((async () => serviceCalendar(await wholeJob(shop, id)))()).rejects.toMatchObject({ status: 404 });
  await say(
    id,
    { type: "identity", payload: { maker: "Brackwynd", model: "Wren 5", serial: "B1177" } },
    { type: "advice", payload: { text: "Keep it dry; mind the tubes, and the cord.", nextService: "2028-02-29" } },
  );
  const file = serviceCalendar(await wholeJob(shop, id));
  const event = new ICAL.Event(new ICAL.Component(ICAL.parse(file) as never).getFirstSubcomponent("vevent")!);
  expect(event.summary).toBe("Service of the Brackwynd Wren 5, serial B1177");
  expect([event.startDate.toString(), event.startDate.isDate, event.duration.toSeconds()]).toEqual(["2028-02-29", true, 86400]);
  expect(event.description).toContain("Keep it dry; mind the tubes, and the cord.");
  expect(event.component.getFirstSubcomponent("valarm")!.getFirstPropertyValue("trigger")!.toString()).toBe("-P14D");
  expect(serviceCalendar(await wholeJob(shop, id)).replace(/DTSTAMP.*/, "")).toBe(file.replace(/DTSTAMP.*/, ""));
});

test("the second job of a model finds what cured the first; the memory is made anew from the tapes", async () => {
  const model = await addModel(shop, readFileSync("demo/amps/wren-5.cir", "utf8"));
  const [first, second] = [await job("Ferry Dance Orchestra", model.id), await job("Osric Venn", model.id)];
  await say(
    first,
    { type: "complaint", payload: { words: "goes hoarse after ten minutes", when: ["when hot"] } },
    change("C6", { oldMeasured: "4 µA at 300 V" }),
    { type: "reading", payload: { point: "B1", kind: "dcv", value: 276, conditions: { mains: 230 } } },
    { type: "reproduction", payload: { reproduced: "no", run: "prove" } },
  );
  const hoarse = { words: "hoarse when it is warm", when: ["when hot"] };
  await say(second, { type: "complaint", payload: hoarse });
  const look = async () => [await shopHistory(shop, second, model, hoarse), await similarJobs(shop, second)] as const;
  const [memory, similar] = await look();
  expect(memory).toMatchObject({
    jobs: 1,
    replaced: { C6: 1 },
    like: { jobs: 1, cured: { C6: 1 }, cases: { C6: [{ job: first, line: 2 }] } },
    normal: { B1: { count: 1, jobs: [first] } },
  });
  expect(similar[0]).toMatchObject({ job: first, cured: true, proved: true, cures: [expect.stringContaining("C6")] });
  await rebuildSummaries(shop);
  expect(await look()).toEqual([memory, similar]);
  await expect(similarJobs(shop, 99_999)).rejects.toMatchObject({ status: 404 });
});

test("one search finds jobs by plan, approval and bill, and what is in the shop", async () => {
  const id = await job("Captain Isolde Rusk");
  await say(
    id,
    {
      type: "planned",
      payload: {
        position: "V4",
        what: "fit a matched pair",
        phase: "power off",
        from: "technician",
        reversible: true,
        parts: [{ text: "quincunx clips", pieces: 1, state: "to order" }],
      },
    },
    { type: "approval", payload: { what: "may the zither lead go?", answer: "asked" } },
  );
  for (const words of ["matched pair", "quincunx", "zither"]) expect((await search(shop, words)).map((j) => j.id)).toContain(id);
  await addStockPart(shop, { letter: "R", value: 56e3, rating: 2, kind: "metal oxide", pieces: 4, place: "drawer nine" }, "J.M.");
  expect(await searchElsewhere(shop, "oxide drawer")).toEqual([
    { kind: "part in stock", says: expect.stringMatching(/^number \d+, 56 kΩ 2 W metal oxide, drawer nine, 4 pieces$/) },
  ]);
  expect((await searchElsewhere(shop, "wren"))[0]).toMatchObject({ kind: "circuit", href: expect.stringMatching(/^\/library\/\d+$/) });
  expect(await searchElsewhere(shop, "  ")).toEqual([]);
});
