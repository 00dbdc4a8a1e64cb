/** What a meter's own interface sends, as most do: its display as text. "318.2 V DC", "-12.4 mV", "0.L MΩ", "4,7 kΩ". */

import { parseQuantity } from "../quantity/parse";
import type { ReadingKind } from "../tape/events/words";
import * as texts from "../texts/instrument";

export interface Display {
  kind: ReadingKind;
  /** Base units, milliamperes for "ma"; undefined for an overload. */
  value?: number;
  over: boolean;
  /** The last digit that was shown, in the same unit. */
  digit: number;
  /** The least full scale that shows so many digits: what the display tells of the range. */
  range: number;
}

export type ReadDisplay = { ok: true; display: Display } | { ok: false; read: string; why: string; accepted: string };

const ACCEPTED = texts.numberUnitDcMv;
/** Prefix and unit at the end, AC or DC before or behind it. */
const SHOWN = /^(?:(ac|dc)\s*)?([-−+]?\s*[\d.,]+|[-−]?0?[.,]?ol|[-−]?0?[.,]?l)\s*([µuμmkM]?)(V|A|Ω|Ω|ohms?)\s*(ac|dc|~)?$/i;
const PREFIX: Record<string, number> = { "": 1, µ: 1e-6, u: 1e-6, μ: 1e-6, m: 1e-3, k: 1e3, K: 1e3, M: 1e6 };

/** Reads a meter's display. A bare number has no unit and is refused: it may be millivolts. Never throws. */
export function readDisplay(text: string): ReadDisplay {
  const line = text.trim().replace(/\s+/g, " ");
  const no = (why: string): ReadDisplay => ({ ok: false, read: line.slice(0, 40), why, accepted: ACCEPTED });
  const found = SHOWN.exec(line);
  if (!found) return no(/^[-−+]?[\d.,]+$/.test(line) ? texts.numberWithoutUnitMay() : texts.noDisplayCanRead());
  const [, before, number = "", prefix = "", unitWord = "", after] = found;
  const ac = /ac|~/i.test(before ?? after ?? "");
  const unit = /^v$/i.test(unitWord) ? "V" : /^a$/i.test(unitWord) ? "A" : "Ω";
  if (unit === "A" && ac) return no(texts.alternatingCurrentNotLogged());
  const kind: ReadingKind = unit === "V" ? (ac ? "acv" : "dcv") : unit === "A" ? "ma" : "ohm";
  const scale = PREFIX[prefix]! * (kind === "ma" ? 1e3 : 1);
  if (/l/i.test(number)) return { ok: true, display: { kind, over: true, digit: scale, range: scale } };
  const parsed = parseQuantity(number.replace(/\s/g, "").replace("−", "-"), { unit, decimal: number.includes(",") ? "," : "." });
  if (!parsed.ok) return no(parsed.why);
  const decimals = /[.,](\d*)$/.exec(number)?.[1]?.length ?? 0;
  const digits = number.replace(/\D/g, "").length;
  const digit = scale * 10 ** -decimals;
  return {
    ok: true,
    display: { kind, value: tidy(parsed.quantity.value * scale), over: false, digit: tidy(digit), range: tidy(digit * 10 ** digits) },
  };
}

/** 0.0124 where the arithmetic gives 0.012400000000000001. */
const tidy = (x: number) => Number(x.toPrecision(12));
