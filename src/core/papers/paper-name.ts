/** The papers of a job by the name that they have in addresses: "report", "history", "quote-12" by the line of the tape. */

export type PaperName = { paper: "report" | "history" } | { paper: "quote" | "question" | "bill" | "credit"; line: number };

/** @returns undefined for what is no paper. @example readPaperName("bill-45") // { paper: "bill", line: 45 } */
export function readPaperName(text: string): PaperName | undefined {
  if (text === "report" || text === "history") return { paper: text };
  const match = /^(quote|question|bill|credit)-(\d{1,7})$/.exec(text);
  return match ? { paper: match[1] as "quote", line: Number(match[2]) } : undefined;
}

export const writePaperName = (p: PaperName): string => ("line" in p ? `${p.paper}-${p.line}` : p.paper);
