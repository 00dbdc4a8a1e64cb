/** A sheet of paper to write on: headings, paragraphs, tables and small drawings, page after page. */

import { join } from "node:path";
import PDFDocument from "pdfkit";
import type { Verdict } from "@/core/expectation/expectation";
import type { Linework } from "@/core/drawing/linework";
import type { Cell, Column } from "@/core/papers/block";
import { VERDICT_WORD } from "@/core/expectation/expectation";

export type PaperSize = "A4" | "LETTER" | "A3";

/** A face that has Greek, Cyrillic and every Latin letter: ohms, micro and the names of owners print as they are written. */
const FONTS = join(/* turbopackIgnore: true */ process.cwd(), "node_modules/dejavu-fonts-ttf/ttf");
const REGULAR = join(FONTS, "DejaVuSans.ttf");
const BOLD = join(FONTS, "DejaVuSans-Bold.ttf");
const MARGIN = 52;
/** Points a unit of a drawing at most: a stage alone does not fill a page. */
const MOST_SCALE = 7;
export const INK = "#1b2a3a";
export const SOFT = "#5d6772";
export const RULE = "#b9b19c";

interface Look {
  face: "regular" | "bold";
  size: number;
  colour: string;
}
const HEAD: Look = { face: "bold", size: 7.5, colour: SOFT };
const ROW: Look = { face: "regular", size: 8.5, colour: INK };
const TOTAL: Look = { ...ROW, face: "bold" };

const textOf = (cell: Cell) => (typeof cell === "string" ? cell : cell.text);
/** Points that the mark of a verdict takes. */
const markOf = (cell: Cell) => (typeof cell === "string" ? 0 : 11);

export class Sheet {
  readonly doc: PDFKit.PDFDocument;
  private readonly parts: Buffer[] = [];
  private readonly root: PDFKit.PDFStructureElement;
  private readonly done: Promise<Buffer>;

  constructor(
    size: PaperSize,
    title: string,
    private readonly footer: string,
    layout: "portrait" | "landscape" = "portrait",
  ) {
    this.doc = new PDFDocument({
      size,
      layout,
      margin: MARGIN,
      bufferPages: true,
      // With its structure, so that a screen reader finds headings, rows and what a picture shows.
      pdfVersion: "1.5",
      tagged: true,
      lang: "en",
      displayTitle: true,
      info: { Title: title, Producer: "Scutum", Creator: "Scutum" },
    });
    this.root = this.doc.struct("Document");
    this.doc.addStructure(this.root);
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

  /** What is drawn belongs to an element of the document's structure. Pages are begun before, not inside. */
  private as(
    type: Parameters<PDFKit.PDFDocument["struct"]>[0],
    draw: () => void,
    parent: PDFKit.PDFStructureElement = this.root,
    options: { alt?: string; actual?: string } = {},
  ): void {
    const element = this.doc.struct(type, options, [draw]);
    parent.add(element);
    element.end();
  }

  /** A new page, unless this one is empty still. */
  page(): void {
    if (this.doc.y > MARGIN + 1) this.doc.addPage();
  }

  /** A drawing with what it shows in words. */
  figure(says: string, draw: () => void): void {
    draw();
    // Lines and labels are drawn as one picture: they have no order to be read in.
    this.as("Figure", () => {}, this.root, { alt: says });
  }

  title(text: string): void {
    this.as("H1", () => this.write(text, { size: 13, bold: true }));
  }

  list(items: readonly string[]): void {
    const list = this.doc.struct("L");
    this.root.add(list);
    for (const item of items) {
      const text = `–  ${item}`;
      this.doc.font("regular").fontSize(9.5);
      this.room(this.doc.heightOfString(text, { width: this.width }));
      const li = this.doc.struct("LI");
      list.add(li);
      this.as("LBody", () => this.write(text), li);
      li.end();
    }
    list.end();
  }

  /** Begins a new page when fewer than `height` points are left. */
  room(height: number): void {
    if (this.doc.y + height > this.bottom) this.doc.addPage();
  }

  heading(text: string): void {
    this.room(60);
    this.doc.moveDown(0.9);
    this.as("H2", () => this.doc.font("bold").fontSize(12).fillColor(INK).text(text, MARGIN, undefined, { width: this.width }));
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
    this.doc.font(options.bold ? "bold" : "regular").fontSize(options.size ?? 9.5);
    const height = this.doc.heightOfString(text, { width: this.width });
    this.room(height > 300 ? 40 : height);
    this.as("P", () => this.write(text, options));
  }

  private write(text: string, options: { size?: number; bold?: boolean; colour?: string } = {}): void {
    this.doc
      .font(options.bold ? "bold" : "regular")
      .fontSize(options.size ?? 9.5)
      .fillColor(options.colour ?? INK)
      .text(text, MARGIN, undefined, { width: this.width, lineGap: 1.5 });
    this.doc.moveDown(0.25);
  }

  space(lines: number): void {
    this.doc.moveDown(lines);
  }

  /** Head again on each new page; totals stay with the last row. */
  table(columns: Column[], rows: Cell[][], totals: Cell[][] = []): void {
    const sum = columns.reduce((s, c) => s + c.share, 0);
    const widths = columns.map((c) => (c.share / sum) * this.width);
    const head = columns.map((c) => c.title);
    const table = this.doc.struct("Table");
    this.root.add(table);
    const line = (cells: Cell[], look: Look) => this.row(table, columns, widths, cells, look);
    const height = (cells: Cell[], look: Look) => this.rowHeight(widths, cells, look);
    const fits = (needed: number) => this.doc.y + needed <= this.bottom;
    const end = totals.reduce((h, t) => h + height(t, TOTAL), 0);
    if (!fits(height(head, HEAD) + (rows[0] ? height(rows[0], ROW) : 0) + (rows.length <= 1 ? end : 0))) this.doc.addPage();
    line(head, HEAD);
    rows.forEach((cells, i) => {
      const needed = height(cells, ROW) + (i === rows.length - 1 ? end : 0);
      if (!fits(needed)) {
        this.doc.addPage();
        line(head, HEAD);
      }
      line(cells, ROW);
    });
    for (const total of totals) line(total, TOTAL);
    table.end();
    this.doc.x = MARGIN;
    this.doc.moveDown(0.3);
  }

  private rowHeight(widths: number[], cells: Cell[], look: Look): number {
    this.doc.font(look.face).fontSize(look.size);
    return Math.max(...cells.map((cell, i) => this.doc.heightOfString(textOf(cell) || " ", { width: widths[i]! - 6 - markOf(cell) }))) + 5;
  }

  private row(table: PDFKit.PDFStructureElement, columns: Column[], widths: number[], cells: Cell[], look: Look): void {
    const height = this.rowHeight(widths, cells, look);
    const y = this.doc.y;
    let x = MARGIN;
    const tr = this.doc.struct("TR");
    table.add(tr);
    const draw = (cell: Cell, i: number) => {
      this.doc.font(look.face).fontSize(look.size).fillColor(look.colour);
      if (typeof cell !== "string") this.verdict(cell.verdict, x + 4, y + 6);
      this.doc
        .fillColor(look.colour)
        .text(textOf(cell), x + markOf(cell), y, { width: widths[i]! - 6 - markOf(cell), align: columns[i]!.align ?? "left" });
    };
    cells.forEach((cell, i) => {
      const said = typeof cell === "string" ? {} : { actual: `${cell.text}, ${VERDICT_WORD[cell.verdict]}` };
      this.as(look === HEAD ? "TH" : "TD", () => draw(cell, i), tr, said);
      x += widths[i]!;
    });
    tr.end();
    this.doc
      .moveTo(MARGIN, y + height - 3)
      .lineTo(MARGIN + this.width, y + height - 3)
      .lineWidth(0.3)
      .strokeColor(RULE)
      .stroke();
    this.doc.y = y + height;
  }

  /** Points that are left on this page. */
  get rest(): number {
    return this.bottom - this.doc.y;
  }

  /**
   * A schematic as wide as the page, or as high as what is left of it where that is less. One that would come out smaller than half the
   * width of the page begins a page of its own.
   */
  linework({ view, strokes, texts }: Linework, most = Infinity): void {
    const scaleIn = (height: number) => Math.min(this.width / view.width, Math.min(most, height) / view.height, MOST_SCALE);
    if (scaleIn(this.rest) < scaleIn(this.bottom - MARGIN) / 2) this.doc.addPage();
    const scale = scaleIn(this.rest);
    const [x0, y0] = [MARGIN + (this.width - scale * view.width) / 2, this.doc.y];
    const { doc } = this;
    doc
      .save()
      .rect(x0, y0, scale * view.width, scale * view.height)
      .clip();
    doc.save().translate(x0, y0).scale(scale).translate(-view.x, -view.y).lineWidth(0.16).lineCap("round").strokeColor(INK).fillColor(INK);
    for (const { d, filled, dashed } of strokes) {
      if (dashed) doc.dash(0.5, { space: 0.35 });
      else doc.undash();
      doc.path(d);
      if (filled) doc.fillAndStroke(INK, INK);
      else doc.stroke();
    }
    doc.restore();
    for (const t of texts) {
      const size = t.size * scale;
      doc
        .font(t.bold ? "bold" : "regular")
        .fontSize(size)
        .fillColor(INK);
      const wide = doc.widthOfString(t.text);
      const x = x0 + (t.x - view.x) * scale - (t.anchor === "middle" ? wide / 2 : t.anchor === "end" ? wide : 0);
      doc.text(t.text, x, y0 + (t.y - view.y) * scale, { lineBreak: false, baseline: "alphabetic" });
    }
    doc.restore();
    doc.x = MARGIN;
    doc.y = y0 + scale * view.height + 8;
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
    this.root.end();
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
        .text(`${this.footer}   ·   page ${i - start + 1} of ${count}`, MARGIN, y, {
          width: this.width,
          align: "center",
          lineBreak: false,
        });
    }
    this.doc.end();
    return this.done;
  }
}
