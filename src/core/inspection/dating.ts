/** When an amp was made: codes on its parts give ranges of years; the ranges are intersected and the odd one named. */

import * as texts from "../texts/inspection";

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
/** Parts of the turn of the year carry the next one's code already. */
const LAST = new Date().getFullYear() + 1;
/** Parts lie in a maker's drawer for a while: an amp is built from the parts' year to this many years later. */
const SHELF_YEARS = 2;

const decades = (digit: number) => Array.from({ length: LAST - FIRST + 1 }, (_, i) => FIRST + i).filter((y) => y % 10 === digit);
const twoDigits = (yy: number) => [1900 + yy, 2000 + yy].filter((y) => y >= FIRST && y <= LAST);

/**
 * Reads one code.
 * - source-date code: three maker digits, a year digit (or two), a two-digit week, with or without dashes;
 * - week and year: WW/YY or WW-YY; four digits: year and week, or week and year, both where both exist;
 * - a year in full, alone or in a text; a range 1958–1961.
 */
export function readDateCode(place: string, code: string): Dated | { why: string } {
  const text = code.trim();
  const range = /\b(19[3-9]\d|20[0-2]\d)\s*(?:-|–|to)\s*(19[3-9]\d|20[0-2]\d)\b/.exec(text);
  if (range) {
    const [a, b] = [Number(range[1]), Number(range[2])];
    if (a > b) return { why: texts.rangeRunsBackwards() };
    return { place, code, years: Array.from({ length: b - a + 1 }, (_, i) => a + i), read: `${a} to ${b}` };
  }
  const digits = text.replace(/[\s-]/g, "");
  const source = /^(\d{3})(\d{1,2})(\d{2})$/.exec(digits);
  if (source && (digits.length === 6 || digits.length === 7)) {
    const week = Number(source[3]);
    if (week < 1 || week > 53) return { why: texts.weekSourceDateCode(week) };
    const years = source[2]!.length === 1 ? decades(Number(source[2])) : twoDigits(Number(source[2]));
    if (years.length === 0) return { why: texts.yearBefore(source[2], FIRST) };
    return {
      place,
      code,
      years,
      week,
      read: texts.sourceDateCodeMaker(source[1], source[2]!.length === 1 ? `…${source[2]}` : source[2], week),
    };
  }
  const weekYear = /^(\d{1,2})\s*[/.]\s*(\d{2})$/.exec(text);
  if (weekYear && Number(weekYear[1]) >= 1 && Number(weekYear[1]) <= 53) {
    return {
      place,
      code,
      years: twoDigits(Number(weekYear[2])),
      week: Number(weekYear[1]),
      read: texts.weekOf(Number(weekYear[1]), weekYear[2]),
    };
  }
  const full = /\b(19[3-9]\d|20[0-2]\d)\b/.exec(text);
  if (full) return { place, code, years: [Number(full[1])], read: texts.year(full[1]) };
  const four = /^(\d{2})(\d{2})$/.exec(digits);
  if (four) return fourDigits(place, code, Number(four[1]), Number(four[2]));
  return {
    why: texts.notCodeReadHere(),
  };
}

/** Four digits are year and week, or week and year: both where both can be, and the amp's other dates decide. */
function fourDigits(place: string, code: string, first: number, second: number): Dated | { why: string } {
  const two = (n: number) => String(n).padStart(2, "0");
  const readings = [
    { year: first, week: second },
    { year: second, week: first },
  ].map(({ year, week }) => {
    const years = week >= 1 && week <= 53 ? twoDigits(year) : [];
    const why = week < 1 || week > 53 ? texts.thereNoWeek(week) : texts.noYearFrom(two(year), FIRST, LAST);
    return { year, week, years, says: texts.yearWeek(two(year), week), why };
  });
  const possible = readings.filter((r) => r.years.length > 0);
  if (possible.length === 0) return { why: readings.map((r) => `${r.says}: ${r.why}`).join("; ") };
  const not = readings.filter((r) => r.years.length === 0).map((r) => texts.not(r.says, r.why));
  const [only] = possible;
  return {
    place,
    code,
    years: [...new Set(possible.flatMap((r) => r.years))].sort((a, b) => a - b),
    ...(possible.length === 1 ? { week: only!.week } : {}),
    read: possible.map((r) => r.says).join(", or ") + not.join(""),
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
      sentence: span ? texts.noDateCodeRead(model!.from, model!.to ?? "now") : texts.noDateCodeRead2(),
    };

  const all = intersect(dated, span);
  if (all.length > 0) {
    return {
      dated,
      unread,
      from: all[0],
      to: all.at(-1),
      sentence: texts
        .madeAllCodesAgree(describe(all), dated.length)
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
      sentence: texts.madeExceptDoesNot(describe(years), d.place, d.code, nearest(d.years, years[0]!)),
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
      sentence: texts.doesNotFitModel(d.place, d.code, model!.from, model!.to ?? "now"),
    };
  }
  return {
    dated,
    unread,
    sentence: texts.codesContradictEachOther(),
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
