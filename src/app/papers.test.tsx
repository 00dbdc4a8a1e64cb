/** The papers of a job as HTML and as PDF: both are read, and carry the same facts. */

import { readFileSync } from "node:fs";
import { renderToStaticMarkup } from "react-dom/server";
import { extractText, getDocumentProxy } from "unpdf";
import { billDraft } from "@/core/money/bill";
import { quoteOption } from "@/core/money/quote";
import { viewJob } from "@/core/job/job-view";
import { billBlocks } from "@/core/papers/bill-paper";
import type { Block } from "@/core/papers/block";
import { historyBlocks } from "@/core/papers/history-paper";
import { messageOf } from "@/core/papers/message";
import { readPaperName, writePaperName } from "@/core/papers/paper-name";
import { paperOf } from "@/core/papers/paper-title";
import { questionBlocks } from "@/core/papers/question-paper";
import { quoteBlocks } from "@/core/papers/quote-paper";
import { composeReport } from "@/core/papers/report";
import { reportBlocks, stairsAxis } from "@/core/papers/report-blocks";
import { DEFAULT_SETTINGS, type Settings } from "@/core/shop/settings";
import type { EventDraft } from "@/core/tape/events/event";
import { at, tape } from "@/core/tape/tape-for-tests";
import { questionsOf } from "@/core/repair/questions";
import { tasksOf } from "@/core/repair/tasks";
import { reportPdf } from "@/server/paper/report-pdf";
import { ReportPaper } from "@/ui/paper/report-paper";

const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
const settings: Settings = {
  ...DEFAULT_SETTINGS,
  shopName: "Saltmarsh Lane Amplifier Works",
  currency: "kr",
  money: {
    ...DEFAULT_SETTINGS.money,
    hourly: 600,
    marginPercent: 40,
    taxes: [{ name: "VAT", percent: 25, on: ["labour", "parts", "fixed price", "other"] }],
    warranty: "A year on our work.",
  },
};
const view = (...drafts: EventDraft[]) =>
  viewJob(tape(...drafts.map((d, i): [number, EventDraft] => [i * 60, d])), WREN, settings, at(5000));
const reading = (point: string, value: number): EventDraft => ({
  type: "reading",
  payload: { point, kind: "dcv", value, digits: 3, conditions: { mains: 230 } },
});
const planned = (position: string, cost: number): EventDraft => ({
  type: "planned",
  payload: {
    position,
    what: `renew ${position}`,
    phase: "power off",
    from: "finding",
    minutes: 60,
    reversible: true,
    parts: [{ text: `new part ${position}`, pieces: 1, cost, state: "here" }],
  },
});

const plan: EventDraft[] = [
  { type: "job-opened", payload: { owner: "Mrs. Žofie Ørsted-Łącka", amp: "Wren 5" } },
  { type: "complaint", payload: { words: "Hoarse after ten minutes", when: ["when hot"] } },
  { type: "reproduction", payload: { reproduced: "yes", run: "intake" } },
  { type: "finding", payload: { station: "look", place: "V2 socket", text: "pin 3 burnt", severity: "fault", brief: "allowed" } },
  reading("B1", 210),
  reading("V2.g", 9.1),
  planned("C6", 3),
  planned("R9", 2),
  planned("T1", 80),
];
const tasks = tasksOf(view(...plan).state, 0);
const way = (name: string, roots: number[]) =>
  quoteOption({ name, aim: "make it last", consequence: `${name} means quiet for years`, tasks: roots }, tasks, settings.money);
const done: EventDraft[] = [
  ...plan,
  {
    type: "quote",
    payload: { options: [way("Small", [7]), way("Middle", [7, 8]), way("Large", [7, 8, 9])], validUntil: "2026-04-01", deposit: 200 },
  },
  {
    type: "approval",
    payload: { what: "quote", answer: "part", asks: 10, option: 2, declined: [4, 5], on: "2026-03-03", by: "telephone", said: "Žofie" },
  },
  {
    type: "change",
    payload: {
      position: "C6",
      kind: "replacement",
      oldPart: "22 nF paper",
      oldMeasured: "4 µA, 22 MΩ",
      newPart: "new part C6",
      reason: "it leaked",
      reversible: true,
      planned: 7,
      oldWent: "bag for the owner",
      batch: "2610",
    },
  },
  {
    type: "change",
    payload: { position: "R9", kind: "replacement", newPart: "new part R9", reason: "gone high", reversible: false, planned: 8 },
  },
  {
    type: "change",
    payload: { position: "C8", kind: "experiment", newPart: "47 µF", reversible: true, outcome: "reverted", hypothesis: "less hum" },
  },
  {
    type: "approval",
    payload: {
      what: "A new speaker?",
      answer: "asked",
      cost: 300,
      consequence: "the old one rattles",
      evidence: [6],
      options: [
        { name: "used", cost: 90 },
        { name: "new", cost: 300, consequence: "for good" },
      ],
    },
  },
  reading("B1", 276),
  reading("V2.g", 0.01),
  { type: "tube-test", payload: { tube: "V2", method: "transconductance", percent: 78 } },
  { type: "isolation-step", payload: { kind: "seen", id: "x", what: "all tubes out", outcome: "holds" } as never },
  { type: "reproduction", payload: { reproduced: "no", run: "prove" } },
  { type: "safety-test", payload: { test: "earth bond", value: 0.06, limit: 0.1, passed: true } },
  { type: "advice", payload: { text: "Keep it dry.", nextService: "2027-03-01" } },
];
const before = view(...done);
const draft = billDraft(before.state, tasksOf(before.state, 0), settings, 0);
const all = view(
  ...done,
  {
    type: "bill",
    payload: {
      number: "7-1",
      lines: draft.lines,
      sum: draft.sum,
      differences: draft.differences,
      paid: 0,
      payBy: "2026-04-01",
      warranty: settings.money.warranty,
    },
  },
  { type: "payment", payload: { amount: 500, on: "2026-03-05", means: "card", what: "payment" } },
);
const of = paperOf(7, all.state);
const [quote, question] = [
  questionsOf(all.state).find((q) => q.kind === "quote")!,
  questionsOf(all.state).find((q) => q.kind === "question")!,
];
const papers: [string, Block[]][] = [
  ["report", reportBlocks(composeReport(7, all, settings))],
  ["quote", quoteBlocks(of, quote, settings)],
  ["question", questionBlocks(of, question, all.state, settings)],
  ["bill", billBlocks(of, all.state.bills[0]!, settings, 1000)],
  ["history", historyBlocks(7, all, settings)],
];

/** Every text that a reader is to find. */
function factsOf(blocks: readonly Block[]): string[] {
  return blocks.flatMap((b): string[] => {
    if (b.block === "title") return [b.shop, b.title, ...b.facts];
    if (b.block === "heading" || b.block === "text") return [b.text];
    if (b.block === "list") return b.items;
    if (b.block === "table")
      return [
        ...b.columns.map((c) => c.title),
        ...[...b.rows, ...(b.totals ?? [])].flat().map((c) => (typeof c === "string" ? c : c.text)),
      ];
    return [];
  });
}
/** Without the blanks that a line's end makes, and with one sign for micro and ohm. */
const bare = (text: string) => text.normalize("NFKC").replace(/\s+/g, "");
const unescaped = (html: string) =>
  html
    .replace(/<[^>]*>/g, " ")
    .replace(/&#x27;/g, "'")
    .replace(/&quot;/g, '"')
    .replace(/&lt;/g, "<")
    .replace(/&gt;/g, ">")
    .replace(/&amp;/g, "&");

describe.each(papers)("%s", (name, blocks) => {
  const facts = factsOf(blocks).filter((f) => f.trim() !== "");
  test("HTML and PDF, on A4 and Letter, carry the same facts", async () => {
    expect(facts.length).toBeGreaterThan(8);
    const html = bare(unescaped(renderToStaticMarkup(<ReportPaper blocks={blocks} />)));
    expect(facts.filter((f) => !html.includes(bare(f)))).toEqual([]);
    for (const size of ["A4", "LETTER"] as const) {
      const pdf = await getDocumentProxy(new Uint8Array(await reportPdf(blocks, size, new Map())));
      const { text } = await extractText(pdf, { mergePages: true });
      // A line that goes over to the next page has the footer of its page in it.
      const read = bare(text);
      expect([size, facts.filter((f) => !read.includes(bare(f)))]).toEqual([size, []]);
    }
  });
  test("a screen reader finds one title, headings beneath it, and tables with their heads", async () => {
    const html = renderToStaticMarkup(<ReportPaper blocks={blocks} />);
    expect(html.match(/<h1/g)).toHaveLength(1);
    expect(html).not.toMatch(/<h[3-6]/);
    expect(html.match(/<th /g)?.length ?? 0).toBe(html.match(/<th scope="col"/g)?.length ?? 0);
    const pdf = await getDocumentProxy(new Uint8Array(await reportPdf(blocks, "A4", new Map())));
    const roles: string[] = [];
    const walk = (node: { role?: string; children?: unknown[] } | null) => {
      if (node?.role) roles.push(node.role);
      for (const child of node?.children ?? []) walk(child as { role?: string });
    };
    for (let p = 1; p <= pdf.numPages; p++) walk((await (await pdf.getPage(p)).getStructTree()) as { role?: string });
    expect(roles.filter((r) => r === "H1")).toHaveLength(1);
    expect(roles.filter((r) => r === "H2").length).toBeGreaterThanOrEqual(blocks.filter((b) => b.block === "heading").length);
    // The title is read before the first heading, as it stands.
    expect(roles.indexOf("H1")).toBeLessThan(roles.indexOf("H2"));
    if (blocks.some((b) => b.block === "table")) expect(roles).toEqual(expect.arrayContaining(["Table", "TR", "TH", "TD"]));
    expect((await pdf.getMetadata()).info).toMatchObject({ Language: "en" });
  });
  if (name !== "history")
    test("the text of a message says what the tables say", () => {
      const message = bare(messageOf(blocks));
      const told = factsOf(blocks.filter((b) => b.block === "list" || b.block === "text"));
      expect(told.filter((f) => f.trim() !== "" && !message.includes(bare(f.replaceAll("\u00a0", " "))))).toEqual([]);
    });
});

test("the quote's answer and the bill's differences are in the owner's words", () => {
  const [quoted, billed] = [factsOf(papers[1]![1]).join("\n"), factsOf(papers[3]![1]).join("\n")];
  expect(quoted).toContain("You chose “Large” on 3 March 2026, by telephone, Žofie.");
  expect(quoted).toContain("Without: T1: renew T1 (labour, 1 h); new part T1 for T1.");
  expect(billed).toContain("T1: renew T1 (labour, 1 h): declined by you on 2026-03-03, not done and not billed.");
  expect(billed).toContain("Still to pay");
});

test("a report's staircase is drawn around its step, on round volts, unless zero is near", () => {
  const step = (measured: number) => ({ name: "B1", label: "", droppers: "", measured, verdict: "in" as const });
  expect(stairsAxis([step(285), step(310)])).toEqual([280, 315]);
  expect(stairsAxis([step(250), step(310)])).toEqual([240, 320]);
  expect(stairsAxis([step(30), step(310)])).toEqual([0, 360]);
  const [foot, top] = stairsAxis([step(0), step(310)]);
  expect([foot, top > 310]).toEqual([0, true]);
  expect(stairsAxis([])).toEqual([0, 1]);
});

test("papers by their name in addresses", () => {
  for (const name of ["report", "history", "quote-12", "question-3", "bill-45"]) expect(writePaperName(readPaperName(name)!)).toBe(name);
  for (const name of ["", "quote", "bill-", "bill-x", "report-3", "quote-12345678"]) expect(readPaperName(name)).toBeUndefined();
});
