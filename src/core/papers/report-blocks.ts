/** The owner's report as an ordered list of blocks: what is said, in which order. The screen and the PDF only paint it. */

import { format } from "date-fns";
import type { StaircaseStep } from "../walk/walk";
import type { Block, Cell, Column } from "./block";
import * as texts from "../texts/papers";
import { billTable } from "./money-blocks";
import { proofBlocks } from "./report-proof";
import type { Report } from "./report";

/**
 * The blocks of a report, from the title to the pictures. Sections with nothing in them are left out.
 * @param stages pieces of the drawing with volts before and after (`reportStages`).
 */
export function reportBlocks(r: Report, stages: readonly Block[] = []): Block[] {
  return [
    ...title(r),
    ...r.front.warning.map((text): Block => ({ block: "text", look: "strong", text: `■ ${text}` })),
    ...complaint(r),
    ...list(TEXTS.was, r.front.was),
    ...list(TEXTS.did, r.front.did),
    ...list(TEXTS.now, r.front.now),
    ...advice(r),
    // What the owner reads stands on one page; the evidence comes after it.
    { block: "page" },
    ...table(TEXTS.findings, r.findings, FINDINGS, (f) => [f.place, f.text, f.severity, f.outcome]),
    ...table(TEXTS.parts, r.parts, PARTS, (p) => [
      p.position,
      p.old,
      `${p.fitted}${p.reversible ? "" : ` (${TEXTS.notReversible})`}`,
      p.why,
      p.oldWent,
    ]),
    ...table(TEXTS.experiments, r.experiments, EXPERIMENTS, (e) => [e.position, e.what, e.outcome]),
    ...voltages(r),
    ...stages,
    ...noise(r),
    ...capacitors(r),
    ...output(r),
    ...proofBlocks(r.proof),
    ...safety(r),
    ...list(TEXTS.declined, r.declined),
    ...list(TEXTS.unanswered, r.unanswered),
    ...list(TEXTS.goesBack, [
      ...r.oldParts.map((p) => `${TEXTS.oldPart}: ${p}`),
      ...r.packing.map((p) => (p.done ? p.what : `${p.what} (${TEXTS.notYet})`)),
    ]),
    ...r.bills.flatMap((b) => billTable(b, r.money)),
    ...photos(r),
  ];
}

const day = (iso: string) => format(new Date(iso), "d MMMM yyyy");

const TEXTS = {
  complaint: "What you told us",
  was: "What it was",
  did: "What we did",
  now: "What it does now",
  findings: "What we found",
  parts: "What was replaced, and why",
  notReversible: "cannot be reversed",
  experiments: "What was tried",
  voltages: "Voltages before and after",
  shapes: "● in band   ▲ just outside   ■ outside   ○ nothing to compare with",
  noise: "Noise",
  output: "Output stage",
  capacitors: "Capacitors",
  safety: "Electrical safety tests",
  declined: "Advised, and declined by you",
  unanswered: "Waiting for your answer",
  advice: "What to watch",
  nextService: "Next service",
  goesBack: "Goes back with the amplifier",
  oldPart: "Old part, bagged",
  notYet: "not yet done",
  photos: "Pictures",
} as const;

const FINDINGS: Column[] = [
  { title: "Place", share: 2 },
  { title: "Finding", share: 5 },
  { title: "Severity", share: 1.2 },
  { title: "Outcome", share: 3 },
];
const PARTS: Column[] = [
  { title: "Position", share: 1.2 },
  { title: "Old part", share: 3 },
  { title: "Fitted", share: 3 },
  { title: "Reason", share: 3 },
  { title: "Old part went to", share: 2 },
];
const EXPERIMENTS: Column[] = [
  { title: "Position", share: 1.5 },
  { title: "Tried", share: 4 },
  { title: "Result", share: 4 },
];
const VOLTAGES: Column[] = [
  { title: "Point", share: 1.3 },
  { title: "What it is", share: 3 },
  { title: "Expected", share: 2.6 },
  { title: "Before", share: 1.6 },
  { title: "After", share: 1.6 },
];
const NOISE_TESTS: Column[] = [
  { title: "Test", share: 6 },
  { title: "Result", share: 4 },
];
const FORMED: Column[] = [
  { title: "Reformed", share: 2 },
  { title: "Leaked at first", share: 3 },
  { title: "Leaks now", share: 3 },
  { title: "Result", share: 5 },
];
const BIAS: Column[] = [
  { title: "What", share: 5 },
  { title: "Before", share: 3 },
  { title: "After", share: 3 },
];
const SAFETY: Column[] = [
  { title: "Test", share: 2.4 },
  { title: "Measured", share: 3 },
  { title: "Limit of this shop", share: 2.4 },
  { title: "Result", share: 1.4 },
];
function title(r: Report): Block[] {
  const facts = [
    [`For ${r.owner}`, `job ${r.job}`, r.opened && `taken in ${day(r.opened)}`, r.returned && `returned ${day(r.returned)}`]
      .filter(Boolean)
      .join("   ·   "),
    r.madeWhen,
  ];
  return [
    {
      block: "title",
      shop: r.shop.name,
      address: r.shop.address,
      title: `${texts.reportOn(r.amp)}${r.serial ? `, serial ${r.serial}` : ""}`,
      facts: facts.filter(Boolean),
    },
  ];
}

function complaint({ complaint: c, brief }: Report): Block[] {
  if (!c) return [];
  const lines = [c.reproduced, ...brief].filter(Boolean);
  return [
    { block: "heading", text: TEXTS.complaint },
    { block: "text", look: "quote", text: `“${c.words}”${c.when ? ` (${c.when})` : ""}` },
    ...lines.map((text): Block => ({ block: "text", text: `${text}.` })),
  ];
}

function table<T>(heading: string, items: readonly T[], columns: Column[], row: (item: T) => Cell[]): Block[] {
  if (items.length === 0) return [];
  return [
    { block: "heading", text: heading },
    { block: "table", columns, rows: items.map(row) },
  ];
}

function list(heading: string, items: string[]): Block[] {
  if (items.length === 0) return [];
  return [
    { block: "heading", text: heading },
    { block: "list", items },
  ];
}

/**
 * The volts that a staircase is drawn between: from zero a step of ten volts in three hundred is not seen. It begins where what is shown
 * leaves a sixth of its span free below, on a round figure, or at zero where that is near.
 * @returns volts at the foot and at the top of the axis, in this order.
 */
export function stairsAxis(steps: readonly StaircaseStep[]): [number, number] {
  const all = steps.flatMap((s) => [s.measured, s.expected?.low, s.expected?.high]).filter((v) => v !== undefined);
  const [least, most] = [Math.min(...all), Math.max(...all)];
  if (all.length === 0 || least <= 0) return [Math.min(0, least * 1.05 || 0), Math.max(1, most * 1.05 || 1)];
  const free = (most - least || most * 0.1) / 6;
  const round = 10 ** Math.max(0, Math.floor(Math.log10(free)));
  const foot = Math.floor((least - free) / round) * round;
  return [foot < 0.25 * most ? 0 : foot, Math.ceil((most + free) / round) * round];
}

function voltages(r: Report): Block[] {
  const [heading, ...rest] = table(TEXTS.voltages, r.beforeAfter, VOLTAGES, (b) => [b.point, b.label, b.expected, b.before, b.after ?? ""]);
  if (!heading) return [];
  const stairs: Block[] = r.stairs ? [{ block: "stairs", ...r.stairs, axis: stairsAxis([...r.stairs.before, ...r.stairs.after]) }] : [];
  return [heading, ...stairs, ...rest, { block: "text", look: "small", text: `${TEXTS.shapes} ${r.expectedFrom}` }];
}

function noise({ noise: n }: Report): Block[] {
  if (!n) return [];
  const spectrum: Block[] = n.before
    ? [{ block: "spectrum", hertz: n.hertz, before: n.before.curve, ...(n.after ? { after: n.after.curve } : {}) }]
    : [];
  const tests: Block[] =
    n.tests.length > 0 ? [{ block: "table", columns: NOISE_TESTS, rows: n.tests.map((t) => [t.what, t.outcome]) }] : [];
  return [{ block: "heading", text: TEXTS.noise }, ...n.says.map((text): Block => ({ block: "text", text })), ...spectrum, ...tests];
}

function capacitors({ capacitors: c }: Report): Block[] {
  if (!c) return [];
  return [
    { block: "heading", text: TEXTS.capacitors },
    ...c.says.map((text): Block => ({ block: "text", text })),
    ...(c.formed.length > 0
      ? [
          {
            block: "table" as const,
            columns: FORMED,
            rows: c.formed.map((f): Cell[] => [f.name, f.before, f.after, f.result]),
          },
        ]
      : []),
  ];
}

function output({ output: o }: Report): Block[] {
  if (!o) return [];
  return [
    { block: "heading", text: TEXTS.output },
    ...o.says.map((text): Block => ({ block: "text", text })),
    ...(o.bias.length > 0
      ? [{ block: "table" as const, columns: BIAS, rows: o.bias.map((b): Cell[] => [b.name, b.before, b.after]) }]
      : []),
    ...(o.waves ? [{ block: "waves" as const, ...o.waves }] : []),
  ];
}

function safety(r: Report): Block[] {
  return [
    ...table(TEXTS.safety, r.safety, SAFETY, (s) => [s.name, s.result, s.limit, s.verdict]),
    { block: "text", look: "small", text: r.safetyNote },
  ];
}

function advice({ advice: a }: Report): Block[] {
  if (!a?.text) return [];
  const next: Block[] = a.nextService ? [{ block: "text", look: "strong", text: `${TEXTS.nextService}: ${day(a.nextService)}` }] : [];
  return [{ block: "heading", text: TEXTS.advice }, { block: "text", text: a.text }, ...next];
}

/** The job's pictures, then those of its findings; each once. */
function photos(r: Report): Block[] {
  const all = [...r.photos, ...r.findings.flatMap((f) => f.photos.map((hash) => ({ hash, caption: `${f.place}: ${f.text}` })))];
  const each = all.filter((p, i) => all.findIndex((q) => q.hash === p.hash) === i);
  if (each.length === 0) return [];
  return [
    { block: "heading", text: TEXTS.photos },
    { block: "photos", photos: each },
  ];
}
