/** Paper as the text of a message: what can be pasted into a mail. */

import type { Block, Cell } from "./block";

const textOf = (cell: Cell): string => (typeof cell === "string" ? cell : cell.text);
/** Blanks that a mail would break at. */
const plain = (text: string): string => text.replaceAll("\u00a0", " ");

/** Drawings, photos and curves are left out: they go with the PDF. */
export function messageOf(blocks: readonly Block[]): string {
  const lines = blocks.flatMap((b): string[] => {
    switch (b.block) {
      case "title":
        return [b.title, ...b.facts, ""];
      case "heading":
        return ["", b.text.toUpperCase()];
      case "text":
        return [b.text];
      case "list":
        return b.items.map((item) => `- ${item}`);
      case "table":
        return [...b.rows, ...(b.totals ?? [])].map((row) => {
          const [first, ...rest] = row.map(textOf).filter(Boolean);
          return rest.length > 0 ? `- ${first}: ${rest.join(", ")}` : `- ${first ?? ""}`;
        });
      default:
        return [];
    }
  });
  return plain(lines.join("\n"))
    .replace(/\n{3,}/g, "\n\n")
    .trim();
}
