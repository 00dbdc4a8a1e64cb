/** When an amp was made: codes on its parts give ranges of years; the ranges are intersected and the odd one named. */

export interface Dated {
  place: string;
  code: string;
  /** Candidate years of the part itself, in order; a one-digit year gives one a decade. */
  years: number[];
  week?: number;
  /** How the code was read. */
  read: string;
}

export interface Dating {
  dated: Dated[];
  unread: { place: string; code: string; why: string }[];
  /** Years in which the amp can have been made so that every part (but the outlier) fits. */
  from?: number;
  to?: number;
  /** The one part without which the rest agree. */
  outlier?: Dated;
  sentence: string;
}

const FIRST = 1930;
const LAST = 2026;
/** Parts lie in a maker's drawer for a while: an amp is built from the parts' year to this many years later. */
const SHELF_YEARS = 2;

const decades = (digit: number) => Array.from({ length: LAST - FIRST + 1 }, (_, i) => FIRST + i).filter((y) => y % 10 === digit);
const twoDigits = (yy: number) => [1900 + yy, 2000 + yy].filter((y) => y >= FIRST && y <= LAST);

/**
 * Reads one code.
 * - source-date code: three maker digits, a year digit (or two), a two-digit week, with or without dashes;
 * - week and year: WW/YY or WW-YY; year and week: YYWW as four digits;
 * - a year in full, alone or in a text; a range 1958–1961.
 */
export function readDateCode(place: string, code: string): Dated | { why: string } {
  const text = code.trim();
  const range = /\b(19[3-9]\d|20[0-2]\d)\s*(?:-|–|to)\s*(19[3-9]\d|20[0-2]\d)\b/.exec(text);
  if (range) {
    const [a, b] = [Number(range[1]), Number(range[2])];
    if (a > b) return { why: "the range runs backwards" };
    return { place, code, years: Array.from({ length: b - a + 1 }, (_, i) => a + i), read: `${a} to ${b}` };
  }
  const digits = text.replace(/[\s-]/g, "");
  const source = /^(\d{3})(\d{1,2})(\d{2})$/.exec(digits);
  if (source && (digits.length === 6 || digits.length === 7)) {
    const week = Number(source[3]);
    if (week < 1 || week > 53) return { why: `week ${week}: a source-date code ends in a week from 01 to 53` };
    const years = source[2]!.length === 1 ? decades(Number(source[2])) : twoDigits(Number(source[2]));
    if (years.length === 0) return { why: `year ${source[2]} is before ${FIRST}` };
    return {
      place,
      code,
      years,
      week,
      read: `source-date code: maker ${source[1]}, year ${source[2]!.length === 1 ? `…${source[2]}` : source[2]}, week ${week}`,
    };
  }
  const weekYear = /^(\d{1,2})\s*[/.]\s*(\d{2})$/.exec(text);
  if (weekYear && Number(weekYear[1]) >= 1 && Number(weekYear[1]) <= 53) {
    return {
      place,
      code,
      years: twoDigits(Number(weekYear[2])),
      week: Number(weekYear[1]),
      read: `week ${Number(weekYear[1])} of '${weekYear[2]}`,
    };
  }
  const full = /\b(19[3-9]\d|20[0-2]\d)\b/.exec(text);
  if (full) return { place, code, years: [Number(full[1])], read: `year ${full[1]}` };
  const yearWeek = /^(\d{2})(\d{2})$/.exec(digits);
  if (yearWeek && Number(yearWeek[2]) >= 1 && Number(yearWeek[2]) <= 53) {
    return {
      place,
      code,
      years: twoDigits(Number(yearWeek[1])),
      week: Number(yearWeek[2]),
      read: `year '${yearWeek[1]}, week ${Number(yearWeek[2])}`,
    };
  }
  return {
    why: "not a code that is read here; accepted: 137-6118 style source-date codes, 23/61 (week/year), 6123 (year, week), 1961, 1958-1961",
  };
}

/** Years of the amp that a part allows: not before the part, and not long after it. */
function ampYears(d: Dated): Set<number> {
  return new Set(d.years.flatMap((y) => Array.from({ length: SHELF_YEARS + 1 }, (_, i) => y + i)));
}

function intersect(all: Dated[], model: Set<number> | undefined): number[] {
  const sets = all.map(ampYears);
  if (model) sets.push(model);
  const [first, ...rest] = sets;
  if (!first) return [];
  return [...first].filter((y) => y <= LAST && rest.every((s) => s.has(y))).sort((a, b) => a - b);
}

/** Intersects what the codes allow with the years in which the model was made, where those are known. */
export function dateAmp(codes: { place: string; code: string }[], model?: { from?: number; to?: number }): Dating {
  const dated: Dated[] = [];
  const unread: Dating["unread"] = [];
  for (const { place, code } of codes) {
    const result = readDateCode(place, code);
    if ("why" in result) unread.push({ place, code, why: result.why });
    else dated.push(result);
  }
  const span =
    model?.from !== undefined ? new Set(Array.from({ length: (model.to ?? LAST) - model.from + 1 }, (_, i) => model.from! + i)) : undefined;
  if (dated.length === 0)
    return {
      dated,
      unread,
      sentence: span ? `No date code read yet. The model was made from ${model!.from} to ${model!.to ?? "now"}.` : "No date code read yet.",
    };

  const all = intersect(dated, span);
  if (all.length > 0) {
    return {
      dated,
      unread,
      from: all[0],
      to: all.at(-1),
      sentence: `Made ${describe(all)}: all ${dated.length} codes agree.`
        .replace("all 1 codes agree", "by the one code read")
        .replace("all 2 codes", "both codes"),
    };
  }
  const without = dated
    .map((d) => ({
      d,
      years: intersect(
        dated.filter((x) => x !== d),
        span,
      ),
    }))
    .filter((c) => c.years.length > 0);
  if (dated.length > 1 && without.length === 1) {
    const { d, years } = without[0]!;
    return {
      dated,
      unread,
      from: years[0],
      to: years.at(-1),
      outlier: d,
      sentence: `Made ${describe(years)}, except the ${d.place} (${d.code}, ${nearest(d.years, years[0]!)}): it does not fit and may be a replacement.`,
    };
  }
  if (dated.length === 1 && span) {
    const d = dated[0]!;
    return {
      dated,
      unread,
      from: model!.from,
      to: model!.to,
      outlier: d,
      sentence: `The ${d.place} (${d.code}) does not fit a model made from ${model!.from} to ${model!.to ?? "now"}: it may be a replacement.`,
    };
  }
  return {
    dated,
    unread,
    sentence: "The codes contradict each other and no single part explains it: more than one part was replaced, or a code was misread.",
  };
}

/** Years in words; a one-digit year code leaves gaps of a decade, which are shown as such. */
function describe(years: number[]): string {
  const runs: number[][] = [];
  for (const y of years) {
    const last = runs.at(-1);
    if (last && y === last.at(-1)! + 1) last.push(y);
    else runs.push([y]);
  }
  return runs.map((r) => (r.length === 1 ? `${r[0]}` : `${r[0]} to ${r.at(-1)}`)).join(", or ");
}

const nearest = (years: number[], to: number) => years.reduce((best, y) => (Math.abs(y - to) < Math.abs(best - to) ? y : best));
