/** The owner's report as a PDF: the blocks of the report, painted on sheets. */

import type { Block } from "@/core/papers/block";
import { formatVolts } from "@/core/quantity/format";
import { CURVE_FROM, CURVE_POINTS, CURVE_TO } from "@/core/sound/curve-scale";
import type { StaircaseStep } from "@/core/walk/walk";
import { INK, RULE, Sheet, SOFT, type PaperSize } from "./sheet";

type Title = Extract<Block, { block: "title" }>;

/** Points that a stage on the report takes at most. */
const STAGE_HEIGHT = 220;

/** A bench sheet: its blocks on sheets whose long side is level. */
export async function benchSheetPdf(blocks: readonly Block[], size: PaperSize, name: string): Promise<Buffer> {
  const sheet = new Sheet(size, name, name, "landscape");
  for (const block of blocks) paint(sheet, block, new Map(), true);
  return sheet.finish();
}

/** @param photos bytes by hash, JPEG or PNG; a picture that is not among them is named in words. */
export async function reportPdf(blocks: readonly Block[], size: PaperSize, photos: ReadonlyMap<string, Uint8Array>): Promise<Buffer> {
  const title = blocks.find((b): b is Title => b.block === "title");
  const sheet = new Sheet(size, title?.title ?? "Report", [title?.shop, title?.title].filter(Boolean).join("   ·   "));
  for (const block of blocks) paint(sheet, block, photos);
  return sheet.finish();
}

const LOOK = { quote: { size: 11 }, small: { size: 8, colour: SOFT }, strong: { bold: true } } as const;

function paint(sheet: Sheet, b: Block, photos: ReadonlyMap<string, Uint8Array>, landscape = false): void {
  switch (b.block) {
    case "title":
      sheet.paragraph(b.shop, { size: 16, bold: true });
      if (b.address) sheet.paragraph(b.address, { size: 8.5, colour: SOFT });
      sheet.space(0.6);
      sheet.title(b.title);
      for (const fact of b.facts) sheet.paragraph(fact, { colour: SOFT });
      return;
    case "heading":
      return sheet.heading(b.text);
    case "text":
      return sheet.paragraph(b.text, b.look ? LOOK[b.look] : {});
    case "list":
      return sheet.list(b.items);
    case "page":
      return sheet.page();
    case "table":
      return sheet.table(b.columns, b.rows, b.totals);
    case "stairs":
      return sheet.figure(STAIRS_SAYS(b.before, b.after), () => drawStairs(sheet, b.before, b.after, b.axis));
    case "spectrum":
      return sheet.figure("Spectrum of the recording before and after", () => drawSpectrum(sheet, b.before, b.after));
    case "waves":
      return sheet.figure("One period at the speaker before and after", () => drawWaves(sheet, b.before, b.after));
    case "drawing":
      sheet.figure(b.caption ?? "Schematic", () => sheet.linework(b, landscape ? undefined : STAGE_HEIGHT));
      if (b.caption) sheet.paragraph(b.caption, LOOK.small);
      return;
    case "photos":
      return sheet.figure(b.photos.map((p) => p.caption).join("; "), () => drawPhotos(sheet, b.photos, photos));
  }
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

/** One period at the speaker before in grey, after in ink, on one scale about zero. */
function drawWaves(sheet: Sheet, before: readonly number[] | undefined, after: readonly number[] | undefined): void {
  const { doc } = sheet;
  const [height, width] = [120, sheet.width * 0.6];
  sheet.room(height + 20);
  const middle = doc.y + 6 + height / 2;
  const most = Math.max(1e-6, ...[...(before ?? []), ...(after ?? [])].map(Math.abs));
  const trace = (wave: readonly number[], colour: string, thick: number) => {
    wave.forEach((v, i) => {
      const [x, y] = [sheet.left + (i / (wave.length - 1)) * width, middle - (v / most) * (height / 2)];
      if (i === 0) doc.moveTo(x, y);
      else doc.lineTo(x, y);
    });
    doc.lineWidth(thick).strokeColor(colour).stroke();
  };
  doc
    .moveTo(sheet.left, middle)
    .lineTo(sheet.left + width, middle)
    .lineWidth(0.5)
    .strokeColor(RULE)
    .stroke();
  if (before) trace(before, RULE, 1.8);
  if (after) trace(after, INK, 1.1);
  doc.font("regular").fontSize(7.5).fillColor(SOFT);
  const says = [before ? "grey: before" : "", after ? "dark: after" : ""].filter(Boolean).join(", ");
  doc.text(`one period at the speaker, ±${most.toPrecision(2)} V; ${says}`, sheet.left, middle + height / 2 + 3, {
    width,
    lineBreak: false,
  });
  doc.x = sheet.left;
  doc.y = middle + height / 2 + 16;
}

/** What a screen reader says in place of the stairs. */
const STAIRS_SAYS = (before: StaircaseStep[], after: StaircaseStep[]) => {
  const of = (steps: StaircaseStep[]) =>
    steps.map((s) => `${s.name} ${s.measured === undefined ? "not taken" : formatVolts(s.measured)}`).join(", ");
  return `Supply voltages before: ${of(before)}; after: ${of(after)}`;
};

/** The supply chain as two descending staircases on one scale: measured tread in ink, expected band in grey. */
function drawStairs(sheet: Sheet, before: StaircaseStep[], after: StaircaseStep[], [foot, most]: [number, number]): void {
  const { doc } = sheet;
  const height = 120;
  sheet.room(height + 40);
  const top = doc.y + 12;
  const half = (sheet.width - 24) / 2;
  [
    { title: "Before", steps: before },
    { title: "After", steps: after },
  ].forEach(({ title, steps }, side) => {
    const x0 = sheet.left + side * (half + 24);
    const w = half / Math.max(1, steps.length);
    const y = (v: number) => top + height - ((v - foot) / (most - foot)) * height;
    doc
      .font("bold")
      .fontSize(8)
      .fillColor(SOFT)
      .text(foot === 0 ? title : `${title} (the axis begins at ${formatVolts(foot)})`, x0, top - 12, { lineBreak: false });
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

function drawPhotos(sheet: Sheet, shown: { hash: string; caption: string }[], photos: ReadonlyMap<string, Uint8Array>): void {
  const { doc } = sheet;
  const width = (sheet.width - 16) / 2;
  const height = width * 0.66;
  for (let i = 0; i < shown.length; i += 2) {
    sheet.room(height + 30);
    const y = doc.y;
    shown.slice(i, i + 2).forEach((p, k) => {
      const x = sheet.left + k * (width + 16);
      const bytes = photos.get(p.hash);
      if (bytes) doc.image(Buffer.from(bytes), x, y, { fit: [width, height], align: "center", valign: "center" });
      doc
        .font("regular")
        .fontSize(8)
        .fillColor(SOFT)
        .text(bytes ? p.caption : `${p.caption} (picture ${p.hash.slice(0, 8)} is not in this shop)`, x, y + height + 3, {
          width,
          height: 20,
          ellipsis: true,
        });
    });
    doc.x = sheet.left;
    doc.y = y + height + 28;
  }
}
