import { readFileSync } from "node:fs";
import { extractTextItems, getDocumentProxy } from "unpdf";
import { DEFAULT_SETTINGS } from "@/core/shop/settings";
import { benchSheetOf } from "./bench-sheet-of";

const netlist = readFileSync("demo/amps/drover-40.cir", "utf8");

/** Size and texts of each page, by a reader of PDF that had no hand in writing it. */
async function pagesOf(pdf: Uint8Array) {
  const document = await getDocumentProxy(new Uint8Array(pdf));
  const { items } = await extractTextItems(document);
  const { width, height } = (await document.getPage(1)).getViewport({ scale: 1 });
  return {
    texts: items.map((page) => page.map((item) => item.str).filter((text) => text.trim() !== "")),
    width: Math.round(width),
    height: Math.round(height),
  };
}

test.each([
  ["A4", 842, 595],
  ["A3", 1191, 842],
  ["LETTER", 792, 612],
] as const)("on %s, the long side level, the schematic with its volts is on the first page", async (size, width, height) => {
  const sheet = await pagesOf(await benchSheetOf({ settings: DEFAULT_SETTINGS, netlist, size }));
  expect([sheet.width, sheet.height]).toEqual([width, height]);
  for (const text of ["Skellmere Drover 40, circuit C", "V4A", "820 Ω", "(405 V)", "Bias supply"]) expect(sheet.texts[0]).toContain(text);
  expect(sheet.texts.flat()).toEqual(expect.arrayContaining(["Sockets, by pin number", "Output tubes at idle"]));
});

test("it is solved at the mains that was asked for, and refuses a file that cannot be read", async () => {
  const at = async (mains: number) =>
    (await pagesOf(await benchSheetOf({ settings: DEFAULT_SETTINGS, netlist, mains, size: "A3" }))).texts[0]!;
  const [low, high] = [await at(207), await at(253)];
  const volts = (texts: string[]) => Number(/^(\d+) V$/.exec(texts[texts.indexOf("(405 V)") - 1]!)![1]);
  // A rail follows the wall: 253/207 = 1.22, a little less of a loaded one.
  expect(volts(high) / volts(low)).toBeGreaterThan(1.15);
  expect(volts(high) / volts(low)).toBeLessThan(1.25);
  await expect(
    benchSheetOf({ settings: DEFAULT_SETTINGS, netlist: netlist.replace("b2 b3 10k", "b2 b3 tenk"), size: "A4" }),
  ).rejects.toThrow("found tenk");
});
