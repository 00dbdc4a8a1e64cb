import { extractTextItems, getDocumentProxy } from "unpdf";
import type { Block } from "@/core/papers/block";
import { reportPdf } from "./report-pdf";

const title: Block = { block: "title", shop: "Łódzki Serwis Αθήνα Žďár", address: "", title: "Report on the Wren 5", facts: [] };
const bill = (lines: number): Block => ({
  block: "table",
  columns: [
    { title: "For", share: 3 },
    { title: "Amount", share: 1, align: "right" },
  ],
  rows: Array.from({ length: lines }, (_, i) => [`line ${i + 1}`, "1.00 kr"]),
  totals: [["Total", `${lines}.00 kr`]],
});

/** The texts of each page, by a reader of PDF that had no hand in writing it. */
async function pagesOf(blocks: Block[], size: "A4" | "LETTER" = "A4"): Promise<string[][]> {
  const pdf = await reportPdf(blocks, size, new Map());
  const { items } = await extractTextItems(await getDocumentProxy(new Uint8Array(pdf)));
  return items.map((page) => page.map((item) => item.str).filter((s) => s.trim() !== ""));
}

test("ohms, micro and every European letter are printed as they are", async () => {
  const text = "56 kΩ, 22 µF, ≥ 2 MΩ, −12.5 V; Ľubica Čížková, Ștefan Țurcanu, İpek Öztürk, Αλέξης, Олег, ø å ß ő €";
  const [page] = await pagesOf([title, { block: "text", text }]);
  // The micro sign and the Greek letter are one glyph: a reader gives back either.
  expect(page!.join(" ").replace(/\s+/g, " ").normalize("NFKC")).toContain(text.normalize("NFKC"));
  expect(page!.join(" ")).toContain("Łódzki Serwis Αθήνα Žďár");
});

test.each(["A4", "LETTER"] as const)(
  "a total never stands alone on a page: %s",
  async (size) => {
    // One more line at a time, through more than a page.
    for (let lines = 36; lines < 62; lines++) {
      const pages = await pagesOf([title, bill(lines)], size);
      const last = pages.find((page) => page.includes("Total"))!;
      expect([lines, last.includes(`line ${lines}`)]).toEqual([lines, true]);
      expect(last).toContain("Amount");
    }
  },
  60_000,
);

test("a heading is never the last thing on a page", async () => {
  for (let lines = 34; lines < 54; lines++) {
    const filler = Array.from({ length: lines }, (_, i): Block => ({ block: "text", text: `filler ${i}` }));
    const pages = await pagesOf([title, ...filler, { block: "heading", text: "Bill heading" }, bill(2)]);
    const page = pages.find((p) => p.includes("Bill heading"))!;
    expect(page).toContain("line 1");
  }
}, 60_000);
