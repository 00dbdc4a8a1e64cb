import { readFileSync } from "node:fs";
import type { EventDraft } from "../tape/events/event";
import { DEFAULT_SETTINGS } from "../shop/settings";
import { at, tape } from "../tape/tape-for-tests";
import { viewJob } from "../job/job-view";
import { composeReport } from "./report";
import type { Block } from "./block";
import { reportBlocks } from "./report-blocks";

const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
const blocksOf = (...drafts: EventDraft[]) =>
  reportBlocks(
    composeReport(
      7,
      viewJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d])), WREN, DEFAULT_SETTINGS, at(1000)),
      DEFAULT_SETTINGS,
    ),
  );
const headings = (blocks: Block[]) => blocks.flatMap((b) => (b.block === "heading" ? [b.text] : []));
const opened: EventDraft = { type: "job-opened", payload: { owner: "Osric Venn", amp: "Wren 5" } };
const photo = "a".repeat(64);

test("sections come in one order, and empty ones are left out", () => {
  expect(headings(blocksOf(opened))).toEqual(["Electrical safety tests"]);
  const all = blocksOf(
    opened,
    { type: "complaint", payload: { words: "hoarse when warm", when: ["warm"] } },
    {
      type: "finding",
      payload: { station: "look", place: "V2 socket", text: "loose pin", severity: "fault", brief: "allowed", photos: [photo] },
    },
    { type: "reading", payload: { point: "B1", kind: "dcv", value: 250, conditions: { mains: 230 } } },
    { type: "change", payload: { position: "C6", kind: "replacement", newPart: "22 nF", reversible: true } },
    { type: "approval", payload: { what: "new transformer", answer: "no" } },
    { type: "advice", payload: { text: "keep it dry" } },
    { type: "bill-line", payload: { text: "Work", amount: 82.4, kind: "labour" } },
  );
  expect(headings(all)).toEqual([
    "What you told us",
    "What it was",
    "What we did",
    "What to watch",
    "What we found",
    "What was replaced, and why",
    "Voltages before and after",
    "Electrical safety tests",
    "Advised, and declined by you",
    "Bill, not made out yet",
    "Pictures",
  ]);
  // The picture of a finding is in the report of the screen as in the PDF's, with what it shows.
  expect(all.at(-1)).toEqual({ block: "photos", photos: [{ hash: photo, caption: "V2 socket: loose pin" }] });
});

test("a bill has its total with it", () => {
  const blocks = blocksOf(
    opened,
    { type: "bill-line", payload: { text: "Work", amount: 82.4, kind: "labour" } },
    { type: "bill-line", payload: { text: "Film capacitor", amount: 3.25, kind: "parts" } },
  );
  const bill = blocks.find((b) => b.block === "table" && b.totals);
  expect(bill).toMatchObject({
    rows: [
      ["Work", "labour", "1 h", "82.40\u00a0¤", "82.40\u00a0¤"],
      ["Film capacitor", "parts", "1", "3.25\u00a0¤", "3.25\u00a0¤"],
    ],
    totals: [["Total", "", "", "", "85.65\u00a0¤"]],
  });
});
