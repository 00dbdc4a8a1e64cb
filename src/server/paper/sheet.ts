/** A sheet of paper to write on: headings, paragraphs, tables and small drawings, page after page. */

import { join } from "node:path";
import PDFDocument from "pdfkit";
import type { Verdict } from "@/core/walk/expectation";

export type PaperSize = "A4" | "LETTER";

const FONTS = join(/* turbopackIgnore: true */ process.cwd(), "node_modules/@fontsource");
const REGULAR = join(FONTS, "b612/files/b612-latin-400-normal.woff");
const BOLD = join(FONTS, "b612/files/b612-latin-700-normal.woff");
const MARGIN = 52;
export const INK = "#1b2a3a";
export const SOFT = "#5d6772";
export const RULE = "#b9b19c";

export interface Column {
  title: string;
  /** Part of the width; the parts are scaled to the whole. */
  share: number;
  align?: "left" | "right";
}

export type Cell = string | { text: string; verdict: Verdict };

/** The face has no Greek: ohms are written out on paper, and what it cannot draw becomes a question mark. */
function printable(text: string): string {
  return text
    .replace(/Ω/g, "ohm")
    .replace(/≥/g, "at least ")
    .replace(/≤/g, "at most ")
    .replace(/→/g, "to")
    .replace(/[^\u0000-\u00ff\u0131\u0152\u0153\u2000-\u206f\u20ac\u2212\n]/g, "?");
}

export class Sheet {
  readonly doc: PDFKit.PDFDocument;
  private readonly parts: Buffer[] = [];
  private readonly done: Promise<Buffer>;

  constructor(
    size: PaperSize,
    title: string,
    private readonly footer: string,
  ) {
    this.doc = new PDFDocument({ size, margin: MARGIN, bufferPages: true, info: { Title: title, Producer: "Scutum", Creator: "Scutum" } });
    this.doc.registerFont("regular", REGULAR).registerFont("bold", BOLD).font("regular");
    this.done = new Promise((resolve, reject) => {
      this.doc.on("data", (part: Buffer) => this.parts.push(part));
      this.doc.on("end", () => resolve(Buffer.concat(this.parts)));
      this.doc.on("error", reject);
    });
  }

  get width(): number {
    return this.doc.page.width - 2 * MARGIN;
  }
  get left(): number {
    return MARGIN;
  }
  private get bottom(): number {
    return this.doc.page.height - MARGIN - 24;
  }

  /** Begins a new page when fewer than `height` points are left. */
  room(height: number): void {
    if (this.doc.y + height > this.bottom) this.doc.addPage();
  }

  heading(text: string): void {
    this.room(60);
    this.doc.moveDown(0.9).font("bold").fontSize(12).fillColor(INK).text(printable(text), MARGIN, undefined, { width: this.width });
    const y = this.doc.y + 2;
    this.doc
      .moveTo(MARGIN, y)
      .lineTo(MARGIN + this.width, y)
      .lineWidth(0.7)
      .strokeColor(RULE)
      .stroke();
    this.doc.y = y + 6;
  }

  paragraph(text: string, options: { size?: number; bold?: boolean; colour?: string } = {}): void {
    this.doc
      .font(options.bold ? "bold" : "regular")
      .fontSize(options.size ?? 9.5)
      .fillColor(options.colour ?? INK);
    this.room(
      this.doc.heightOfString(printable(text), { width: this.width }) > 300
        ? 40
        : this.doc.heightOfString(printable(text), { width: this.width }),
    );
    this.doc.text(printable(text), MARGIN, undefined, { width: this.width, lineGap: 1.5 });
    this.doc.moveDown(0.25);
  }

  table(columns: Column[], rows: Cell[][]): void {
    const total = columns.reduce((sum, c) => sum + c.share, 0);
    const widths = columns.map((c) => (c.share / total) * this.width);
    const line = (cells: Cell[], bold: boolean) => {
      this.doc.font(bold ? "bold" : "regular").fontSize(bold ? 8 : 9);
      const textOf = (cell: Cell) => printable(typeof cell === "string" ? cell : cell.text);
      const shape = (cell: Cell) => (typeof cell === "string" ? 0 : 11);
      const height =
        Math.max(...cells.map((cell, i) => this.doc.heightOfString(textOf(cell) || " ", { width: widths[i]! - 6 - shape(cell) }))) + 5;
      this.room(height);
      const y = this.doc.y;
      let x = MARGIN;
      cells.forEach((cell, i) => {
        this.doc
          .font(bold ? "bold" : "regular")
          .fontSize(bold ? 8 : 9)
          .fillColor(bold ? SOFT : INK);
        if (typeof cell !== "string") this.verdict(cell.verdict, x + 4, y + 6);
        this.doc.text(textOf(cell), x + shape(cell), y, { width: widths[i]! - 6 - shape(cell), align: columns[i]!.align ?? "left" });
        x += widths[i]!;
      });
      this.doc
        .moveTo(MARGIN, y + height - 3)
        .lineTo(MARGIN + this.width, y + height - 3)
        .lineWidth(0.3)
        .strokeColor(RULE)
        .stroke();
      this.doc.y = y + height;
    };
    line(
      columns.map((c) => c.title),
      true,
    );
    for (const row of rows) line(row, false);
    this.doc.x = MARGIN;
    this.doc.moveDown(0.3);
  }

  /** ● ▲ ■ ○ as drawings, since a shape must print the same on every machine. */
  verdict(verdict: Verdict, x: number, y: number, r = 3.6): void {
    this.doc.lineWidth(1).fillColor(INK).strokeColor(INK);
    if (verdict === "in") this.doc.circle(x, y, r).fill();
    else if (verdict === "watch") this.doc.polygon([x, y - r], [x + r, y + r], [x - r, y + r]).fill();
    else if (verdict === "out") this.doc.rect(x - r, y - r, 2 * r, 2 * r).fill();
    else this.doc.circle(x, y, r).stroke();
  }

  /** Numbers the pages and gives the finished file. */
  async finish(): Promise<Buffer> {
    const { start, count } = this.doc.bufferedPageRange();
    for (let i = start; i < start + count; i++) {
      this.doc.switchToPage(i);
      // The footer stands in the margin; without this PDFKit would begin another page for it.
      this.doc.page.margins.bottom = 0;
      const y = this.doc.page.height - MARGIN;
      this.doc
        .font("regular")
        .fontSize(7.5)
        .fillColor(SOFT)
        .text(printable(`${this.footer}   ·   page ${i - start + 1} of ${count}`), MARGIN, y, {
          width: this.width,
          align: "center",
          lineBreak: false,
        });
    }
    this.doc.end();
    return this.done;
  }
}
