/**
 * The line protocol between Scutum and instruments: one line of text each, a word and `key=value` pairs.
 *
 *     meter n=182 at=1764070000123 kind=dcv value=318.2 digit=0.1 range=1000 auto
 *     meter n=183 at=1764070000373 kind=dcv over digit=0.1 range=200
 *     mains n=7 at=1764070000400 volts=230.4 amps=0.52 lamp=60 glow=0.1
 *     tester n=9 at=1764070000500 part=C1 seconds=120 supply=200 volts=181.4 amps=0.00039 digit=1e-7
 *     gone meter
 *     want n=4 point=V2.p kind=dcv range=1000
 *     set mains=115 lamp=60
 *     set turn=P9 pos=0.62
 *     set tone=0.01 hertz=1000
 *
 * Base units throughout; milliamperes for kind ma. Documented in docs/instruments.md.
 */

import { READING_KINDS, type ReadingKind } from "../tape/events/words";

/** What the meter shows. */
export interface MeterLine {
  tell: "meter";
  /** Counts up; with `at` it tells a repeated or a late line. */
  n: number;
  /** Milliseconds since 1970 by the instrument's clock. */
  at: number;
  kind: ReadingKind;
  /** Undefined when the display shows an overload, or nothing while it changes range. */
  value?: number;
  over?: boolean;
  /** The last digit of the display in this range. */
  digit: number;
  /** Full scale. */
  range: number;
  /** The meter chooses its range itself. */
  auto: boolean;
}

/** What the mains instrument at the amp shows. */
export interface MainsLine {
  tell: "mains";
  n: number;
  at: number;
  volts: number;
  amps: number;
  /** Watts of the series lamp, where one is in circuit, and the part of its power that it glows with. */
  lamp?: number;
  glow?: number;
  /** The fuse in the line has gone: nothing flows until it is renewed. */
  fuse?: "blown";
}

/** What a leakage tester, or a supply with an ammeter, shows of one capacitor that is being formed. */
export interface TesterLine {
  tell: "tester";
  n: number;
  at: number;
  part: string;
  /** Under voltage so far by the tester's own clock, pauses left out. */
  seconds: number;
  /** Volts of the supply, and across the capacitor; amperes into it. */
  supply: number;
  volts: number;
  amps: number;
  /** Last digit of its range, amperes. */
  digit: number;
}

/** An instrument that was heard and is heard no more. */
export interface GoneLine {
  tell: "gone";
  what: "meter" | "mains" | "tester";
}

/** What Scutum wants next: the point that the probe should be on, and what is to be measured there. */
export interface WantLine {
  tell: "want";
  n: number;
  point: string;
  kind: ReadingKind;
  /** Full scale; the meter's own choice unless given. */
  range?: number;
  /** How switches and controls were noted to stand; percent-encoded on the line. */
  noted?: string;
}

/** Settings for a variable mains: volts, and the watts of a series lamp (0: none); on the simulated bench also a control of the amp. */
export interface SetLine {
  tell: "set";
  mains?: number;
  lamp?: number;
  /** A control of the simulated amp, and where it is turned to, 0 to 1. No real bench has one that Scutum can turn. */
  turn?: string;
  pos?: number;
  /** The simulated generator at the amp's input: volts rms, 0 for silence, and hertz. */
  tone?: number;
  hertz?: number;
}

export type InstrumentLine = MeterLine | MainsLine | TesterLine | GoneLine;
export type BenchLine = InstrumentLine | WantLine | SetLine;

export type ReadLine = { ok: true; line: BenchLine } | { ok: false; read: string; why: string; accepted: string };

const FORMS: Record<string, string> = {
  meter: "meter n=1 at=1764070000123 kind=dcv value=318.2 digit=0.1 range=1000 [auto] [over]",
  mains: "mains n=1 at=1764070000123 volts=230.4 amps=0.52 [lamp=60 glow=0.1] [fuse=blown]",
  tester: "tester n=1 at=1764070000123 part=C1 seconds=120 supply=200 volts=181.4 amps=0.00039 digit=1e-7",
  gone: "gone meter, gone mains, or gone tester",
  want: "want n=1 point=V2.p kind=dcv [range=1000] [noted=panel%20on]",
  set: "set [mains=115] [lamp=60] [turn=P9 pos=0.5] [tone=0.01 hertz=1000]",
};
/** Longer lines are no instrument's. */
const LONGEST = 400;

/** Reads one line of the protocol. Never throws. */
export function readLine(text: string): ReadLine {
  const line = text.trim();
  const [tell = "", ...words] = line.split(/\s+/);
  const accepted = FORMS[tell] ?? Object.values(FORMS).join("; ");
  const no = (why: string): ReadLine => ({ ok: false, read: line.slice(0, 80), why, accepted });
  if (line.length > LONGEST) return no(`a line of ${line.length} characters; up to ${LONGEST} are read`);
  if (!Object.hasOwn(FORMS, tell)) return no(tell === "" ? "an empty line" : `"${tell}" is no word of an instrument`);
  const fields = new Map(words.map((w) => w.split("=", 2) as [string, string | undefined]));
  const missing: string[] = [];
  const number = (key: string, least = -Infinity): number => {
    const value = Number(fields.get(key) ?? NaN);
    if (!Number.isFinite(value) || value < least) missing.push(`${key}=${fields.get(key) ?? "?"}`);
    return value;
  };
  const maybe = (key: string, least?: number) => (fields.has(key) ? number(key, least) : undefined);
  const kind = (): ReadingKind => {
    const read = fields.get("kind") as ReadingKind;
    if (!READING_KINDS.includes(read)) missing.push(`kind=${read ?? "?"}`);
    return read;
  };
  const done = (made: BenchLine): ReadLine => (missing.length > 0 ? no(`${missing.join(", ")} cannot be read`) : { ok: true, line: made });

  switch (tell) {
    case "meter": {
      const over = fields.has("over");
      const value = over || !fields.has("value") ? undefined : number("value");
      return done({
        tell,
        n: number("n", 0),
        at: number("at", 1),
        kind: kind(),
        ...(value === undefined ? {} : { value }),
        ...(over ? { over } : {}),
        digit: number("digit", 1e-15),
        range: number("range", 1e-12),
        auto: fields.has("auto"),
      });
    }
    case "mains":
      return done({
        tell,
        n: number("n", 0),
        at: number("at", 1),
        volts: number("volts", 0),
        amps: number("amps", 0),
        ...(fields.has("lamp") ? { lamp: number("lamp", 0), glow: maybe("glow", 0) ?? 0 } : {}),
        ...(fields.get("fuse") === "blown" ? { fuse: "blown" as const } : {}),
      });
    case "tester": {
      const part = fields.get("part");
      if (!part) missing.push("part=?");
      return done({
        tell,
        n: number("n", 0),
        at: number("at", 1),
        part: part!,
        seconds: number("seconds", 0),
        supply: number("supply", 0),
        volts: number("volts"),
        amps: number("amps", 0),
        digit: number("digit", 1e-15),
      });
    }
    case "gone": {
      const what = words[0];
      return what === "meter" || what === "mains" || what === "tester"
        ? { ok: true, line: { tell, what } }
        : no(`"${what ?? ""}" is no instrument`);
    }
    case "want": {
      const point = fields.get("point");
      if (!point) missing.push("point=?");
      const range = maybe("range", 1e-12);
      const noted = fields.get("noted");
      return done({
        tell,
        n: number("n", 0),
        point: point!,
        kind: kind(),
        ...(range === undefined ? {} : { range }),
        ...(noted ? { noted: decoded(noted) } : {}),
      });
    }
    default: {
      const mains = maybe("mains", 0);
      const lamp = maybe("lamp", 0);
      const turn = fields.get("turn");
      const pos = turn === undefined ? undefined : number("pos", 0);
      if (pos !== undefined && pos > 1) missing.push(`pos=${pos}`);
      const tone = maybe("tone", 0);
      const hertz = maybe("hertz", 1);
      if (mains === undefined && lamp === undefined && turn === undefined && tone === undefined) return no("nothing is set");
      return done({
        tell: "set",
        ...(mains === undefined ? {} : { mains }),
        ...(lamp === undefined ? {} : { lamp }),
        ...(turn ? { turn: turn.toUpperCase(), pos: pos! } : {}),
        ...(tone === undefined ? {} : { tone, hertz: hertz ?? 1000 }),
      });
    }
  }
}

/** The text of a line, without its end. `readLine` gives the same line back. */
export function writeLine(line: BenchLine): string {
  const pair = (key: string, value: number | string | undefined) => (value === undefined ? [] : [`${key}=${value}`]);
  switch (line.tell) {
    case "meter":
      return [
        `meter n=${line.n} at=${line.at} kind=${line.kind}`,
        ...(line.over ? ["over"] : pair("value", line.value)),
        `digit=${line.digit} range=${line.range}`,
        ...(line.auto ? ["auto"] : []),
      ].join(" ");
    case "mains":
      return [
        `mains n=${line.n} at=${line.at} volts=${line.volts} amps=${line.amps}`,
        ...pair("lamp", line.lamp),
        ...pair("glow", line.glow),
        ...pair("fuse", line.fuse),
      ].join(" ");
    case "tester":
      return `tester n=${line.n} at=${line.at} part=${line.part} seconds=${line.seconds} supply=${line.supply} volts=${line.volts} amps=${line.amps} digit=${line.digit}`;
    case "gone":
      return `gone ${line.what}`;
    case "want":
      return [
        `want n=${line.n} point=${line.point} kind=${line.kind}`,
        ...pair("range", line.range),
        ...(line.noted ? pair("noted", encodeURIComponent(line.noted)) : []),
      ].join(" ");
    case "set":
      return [
        "set",
        ...pair("mains", line.mains),
        ...pair("lamp", line.lamp),
        ...pair("turn", line.turn),
        ...pair("pos", line.pos),
        ...pair("tone", line.tone),
        ...pair("hertz", line.hertz),
      ].join(" ");
  }
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** A line that comes late is behind by fewer lines than this. */
const LATEST = 40;

/** Passes each line of an instrument once and in its order: what comes twice or late is dropped. */
export class LineOrder {
  private readonly last = new Map<string, { n: number; at: number }>();
  dropped = 0;

  /** True for a line that is new. A count that begins anew long after is a restarted instrument, whatever its clock says. */
  accepts(line: InstrumentLine): boolean {
    if (line.tell === "gone") {
      // What comes after it is another instrument, with a clock of its own.
      this.last.delete(line.what);
      return true;
    }
    const last = this.last.get(line.tell);
    const fresh = !last || line.at > last.at || (line.at === last.at && line.n > last.n) || (line.n === 0 && last.n > LATEST);
    if (fresh) this.last.set(line.tell, { n: line.n, at: line.at });
    else this.dropped++;
    return fresh;
  }
}
