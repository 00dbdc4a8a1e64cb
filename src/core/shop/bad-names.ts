/** Parts that have a bad name in a shop: a series, a maker's line, a kind of some years; with what it was learnt from. */

export interface BadName {
  id: number;
  /** Letter of the parts that it is about: C, R, L, or "V" for tubes. */
  letter: "C" | "R" | "L" | "V";
  /** Words that a part's marking, kind or label holds, all of them; without them every part of the years is meant. */
  words: string;
  fromYear?: number;
  toYear?: number;
  /** What they do: "leaks", "goes open", "drifts high". */
  does: string;
  evidence: Evidence[];
}

export interface Evidence {
  job?: number;
  line?: number;
  text: string;
  at: string;
  who: string;
}

export type NewBadName = Omit<BadName, "id" | "evidence"> & { evidence: Pick<Evidence, "job" | "line" | "text"> };

/** What a name is held against. */
export interface NamedPart {
  letter: string;
  /** Marking, kind and label, as they are known. */
  text: string;
  year?: number;
}

/** Whether a part is one of those: every word there, the year inside; a year that is not known does not part them. */
export function hasBadName(part: NamedPart, name: Pick<BadName, "letter" | "words" | "fromYear" | "toYear">): boolean {
  if (part.letter !== name.letter) return false;
  const wanted = name.words.toLowerCase().split(/\s+/).filter(Boolean);
  const text = part.text.toLowerCase();
  if (!wanted.every((w) => text.includes(w))) return false;
  if (part.year === undefined) return wanted.length > 0;
  return part.year >= (name.fromYear ?? -Infinity) && part.year <= (name.toYear ?? Infinity);
}

/** How many times likelier a fault of such a part is: (n + 1) times for n pieces of evidence, six at most. Scutum's own. */
export const badNameFactor = (names: readonly Pick<BadName, "evidence">[]): number =>
  Math.min(6, 1 + names.reduce((n, name) => n + Math.max(1, name.evidence.length), 0));
