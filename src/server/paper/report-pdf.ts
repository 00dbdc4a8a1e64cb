/** The owner's report as a PDF. */

import { format } from "date-fns";
import { CURVE_FROM, CURVE_POINTS, CURVE_TO } from "@/core/noise/curve-scale";
import { formatVolts } from "@/core/quantity/format";
import { money, type Report } from "@/core/job/report";
import type { StaircaseStep } from "@/core/walk/walk";
import { INK, RULE, Sheet, SOFT, type PaperSize } from "./sheet";

/** @param photos bytes by hash: JPEG and PNG; others are left out by the caller. */
export async function reportPdf(report: Report, size: PaperSize, photos: ReadonlyMap<string, Uint8Array>): Promise<Buffer> {
  const day = (iso: string | undefined) => (iso ? format(new Date(iso), "d MMMM yyyy") : "");
  const sheet = new Sheet(size, `Report on job ${report.job}`, `${report.shop.name}   ·   job ${report.job}   ·   ${report.amp}`);
  const { doc } = sheet;

  doc.font("bold").fontSize(16).fillColor(INK).text(report.shop.name);
  if (report.shop.address) sheet.paragraph(report.shop.address, { size: 8.5, colour: SOFT });
  doc.moveDown(0.6);
  sheet.paragraph(`Report on the ${report.amp}${report.serial ? `, serial ${report.serial}` : ""}`, { size: 13, bold: true });
  sheet.paragraph(
    `For ${report.owner}   ·   job ${report.job}   ·   taken in ${day(report.opened)}${report.returned ? `   ·   returned ${day(report.returned)}` : ""}`,
    { colour: SOFT },
  );
  if (report.madeWhen) sheet.paragraph(report.madeWhen, { colour: SOFT });

  if (report.complaint) {
    sheet.heading("What you told us");
    sheet.paragraph(`“${report.complaint.words}”${report.complaint.when ? ` (${report.complaint.when})` : ""}`);
    for (const line of [report.complaint.reproduced, report.complaint.proved, ...report.brief])
      if (line) sheet.paragraph(line, { colour: SOFT });
  }
  if (report.findings.length > 0) {
    sheet.heading("What we found");
    sheet.table(
      [
        { title: "Place", share: 2 },
        { title: "Finding", share: 5 },
        { title: "Weight", share: 1.2 },
        { title: "Outcome", share: 3 },
      ],
      report.findings.map((f) => [f.place, f.text, f.severity, f.outcome]),
    );
  }
  if (report.parts.length > 0) {
    sheet.heading("What was replaced, and why");
    sheet.table(
      [
        { title: "Where", share: 1.2 },
        { title: "Old part", share: 3 },
        { title: "Fitted", share: 3 },
        { title: "Why", share: 3 },
        { title: "Old part went", share: 2 },
      ],
      report.parts.map((p) => [p.position, p.old, p.fitted + (p.reversible ? "" : " (not reversible)"), p.why, p.oldWent]),
    );
  }
  if (report.experiments.length > 0) {
    sheet.heading("What was tried");
    sheet.table(
      [
        { title: "Where", share: 1.5 },
        { title: "Tried", share: 4 },
        { title: "Result", share: 4 },
      ],
      report.experiments.map((e) => [e.position, e.what, e.outcome]),
    );
  }
  if (report.beforeAfter.length > 0) {
    sheet.heading("Voltages before and after");
    if (report.stairs) drawStairs(sheet, report.stairs.before, report.stairs.after);
    sheet.table(
      [
        { title: "Point", share: 1.3 },
        { title: "What it is", share: 3 },
        { title: "Should be today", share: 2.6 },
        { title: "Before", share: 1.6 },
        { title: "After", share: 1.6 },
      ],
      report.beforeAfter.map((b) => [b.point, b.label, b.expected, b.before, b.after ?? ""]),
    );
    sheet.paragraph("Round: in band. Triangle: just outside. Square: outside.", { size: 7.5, colour: SOFT });
  }
  sheet.heading("Safety work");
  sheet.table(
    [
      { title: "Test", share: 2.4 },
      { title: "Measured", share: 3 },
      { title: "Limit of this shop", share: 2.4 },
      { title: "Result", share: 1.4 },
    ],
    report.safety.map((s) => [s.name, s.result, s.limit, s.verdict]),
  );
  sheet.paragraph(report.safetyNote, { size: 8, colour: SOFT });
  if (report.declined.length > 0) {
    sheet.heading("Advised, and declined");
    for (const what of report.declined) sheet.paragraph(`– ${what}`);
  }
  if (report.unanswered.length > 0) {
    sheet.heading("Still waiting for your answer");
    for (const what of report.unanswered) sheet.paragraph(`– ${what}`);
  }
  if (report.noise) {
    sheet.heading("Noise");
    for (const text of report.noise.says) sheet.paragraph(text);
    if (report.noise.before) drawSpectrum(sheet, report.noise.before.curve, report.noise.after?.curve);
    if (report.noise.tests.length > 0)
      sheet.table(
        [
          { title: "Asked of it", share: 6 },
          { title: "Answer", share: 4 },
        ],
        report.noise.tests.map((t) => [t.what, t.outcome]),
      );
  }
  if (report.advice?.text) {
    sheet.heading("What to watch");
    sheet.paragraph(report.advice.text);
    if (report.advice.nextService) sheet.paragraph(`Next service: ${day(report.advice.nextService)}`, { bold: true });
  }
  if (report.oldParts.length + report.packing.length > 0) {
    sheet.heading("Goes back with the amplifier");
    for (const part of report.oldParts) sheet.paragraph(`– old part, bagged: ${part}`);
    for (const item of report.packing) sheet.paragraph(`${item.done ? "–" : "– (open)"} ${item.what}`);
  }
  if (report.bill.lines.length > 0) {
    sheet.heading("Bill");
    sheet.table(
      [
        { title: "For", share: 6 },
        { title: "Kind", share: 2 },
        { title: "Amount", share: 2, align: "right" },
      ],
      [
        ...report.bill.lines.map((l) => [l.text, l.kind, money(l.amount, report.bill.currency)]),
        ["Total", "", money(report.bill.total, report.bill.currency)],
      ],
    );
  }
  drawPhotos(sheet, report, photos);
  return sheet.finish();
}

/** The spectrum before in grey, after in ink, on one scale from 15 Hz to 20 kHz. */
function drawSpectrum(sheet: Sheet, before: readonly number[], after: readonly number[] | undefined): void {
  const { doc } = sheet;
  const height = 110;
  sheet.room(height + 30);
  const top = doc.y + 6;
  const most = Math.max(...before, ...(after ?? [])) + 6;
  const x = (i: number) => sheet.left + (i / (CURVE_POINTS - 1)) * sheet.width;
  const y = (db: number) => top + height * Math.min(1, (most - db) / 100);
  const trace = (curve: readonly number[], colour: string, width: number) => {
    curve.forEach((db, i) => (i === 0 ? doc.moveTo(x(i), y(db)) : doc.lineTo(x(i), y(db))));
    doc.lineWidth(width).strokeColor(colour).stroke();
  };
  trace(before, RULE, 1.6);
  if (after) trace(after, INK, 1);
  doc.font("regular").fontSize(7.5).fillColor(SOFT);
  for (const [hertz, name] of [
    [50, "50 Hz"],
    [100, "100"],
    [1000, "1 k"],
    [10_000, "10 k"],
  ] as const)
    doc.text(name, x((Math.log(hertz / CURVE_FROM) / Math.log(CURVE_TO / CURVE_FROM)) * (CURVE_POINTS - 1)) - 12, top + height + 3, {
      width: 24,
      align: "center",
      lineBreak: false,
    });
  doc.text(after ? "grey: before, dark: after" : "before", sheet.left + sheet.width - 120, top, {
    width: 120,
    align: "right",
    lineBreak: false,
  });
  doc.x = sheet.left;
  doc.y = top + height + 18;
}

/** The supply chain as two descending staircases on one scale: measured tread in ink, expected band in grey. */
function drawStairs(sheet: Sheet, before: StaircaseStep[], after: StaircaseStep[]): void {
  const { doc } = sheet;
  const height = 120;
  sheet.room(height + 40);
  const top = doc.y + 12;
  const most = Math.max(...[...before, ...after].flatMap((s) => [s.expected?.high ?? 0, s.measured ?? 0])) * 1.05 || 1;
  const half = (sheet.width - 24) / 2;
  [
    { title: "Before", steps: before },
    { title: "After", steps: after },
  ].forEach(({ title, steps }, side) => {
    const x0 = sheet.left + side * (half + 24);
    const w = half / Math.max(1, steps.length);
    const y = (v: number) => top + height - (v / most) * height;
    doc
      .font("bold")
      .fontSize(8)
      .fillColor(SOFT)
      .text(title, x0, top - 12, { lineBreak: false });
    doc
      .moveTo(x0, top + height)
      .lineTo(x0 + half, top + height)
      .lineWidth(0.6)
      .strokeColor(RULE)
      .stroke();
    steps.forEach((s, i) => {
      const x = x0 + i * w;
      if (s.expected) doc.rect(x, y(s.expected.high), w - 3, y(s.expected.low) - y(s.expected.high)).fill("#e4dfd0");
      if (s.measured !== undefined) {
        doc
          .moveTo(x, y(s.measured))
          .lineTo(x + w - 3, y(s.measured))
          .lineWidth(2)
          .strokeColor(INK)
          .stroke();
        doc
          .font("regular")
          .fontSize(7.5)
          .fillColor(INK)
          .text(formatVolts(s.measured), x, y(s.measured) - 10, { width: w - 3, align: "center", lineBreak: false });
        sheet.verdict(s.verdict, x + (w - 3) / 2, top + height - 8, 3);
      }
      doc
        .font("regular")
        .fontSize(7.5)
        .fillColor(SOFT)
        .text(s.name, x, top + height + 3, { width: w - 3, align: "center", lineBreak: false });
    });
  });
  doc.x = sheet.left;
  doc.y = top + height + 18;
}

function drawPhotos(sheet: Sheet, report: Report, photos: ReadonlyMap<string, Uint8Array>): void {
  const shown = [
    ...report.photos,
    ...report.findings.flatMap((f) => f.photos.map((hash) => ({ hash, caption: `${f.place}: ${f.text}` }))),
  ].filter((p, i, all) => photos.has(p.hash) && all.findIndex((q) => q.hash === p.hash) === i);
  if (shown.length === 0) return;
  sheet.heading("Pictures");
  const { doc } = sheet;
  const width = (sheet.width - 16) / 2;
  const height = width * 0.66;
  for (let i = 0; i < shown.length; i += 2) {
    sheet.room(height + 30);
    const y = doc.y;
    shown.slice(i, i + 2).forEach((p, k) => {
      const x = sheet.left + k * (width + 16);
      doc.image(Buffer.from(photos.get(p.hash)!), x, y, { fit: [width, height], align: "center", valign: "center" });
      doc
        .font("regular")
        .fontSize(8)
        .fillColor(SOFT)
        .text(p.caption.replace(/[^\u0000-\u00ff\u2000-\u206f]/g, "?"), x, y + height + 3, { width, height: 20, ellipsis: true });
    });
    doc.x = sheet.left;
    doc.y = y + height + 28;
  }
}
