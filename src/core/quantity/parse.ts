/** Values as a technician types them: `4k7`, `2R2`, `.022`, `0.022u`, `31mV`, `-51.5`, `12,5`, `1e3`. */

import { formatQuantity } from "./format";
import type { Unit } from "./unit";
import { UNIT_WORDS } from "./unit";
import * as texts from "../texts/quantity";

export interface Quantity {
  /** In the base unit: volts, amperes, ohms, farads, henries, watts, hertz, seconds, percent. */
  value: number;
  unit?: Unit;
  /** Significant digits that the source showed; shown again with as many. */
  digits: number;
  /** How it was understood, e.g. "22 nF". */
  echo: string;
}

export type ParsedQuantity =
  { ok: true; quantity: Quantity } | { ok: false; read: string; why: string; accepted: string; choices?: Quantity[] };

export interface ParseOptions {
  /** Assumed when none is typed, and demanded when another is typed. */
  unit?: Unit;
  /** The shop's decimal sign; "." unless set. */
  decimal?: "." | ",";
}

/** As typed: M is mega and m is milli; u, µ and μ are micro. */
const PREFIX: Record<string, number> = {
  p: 1e-12,
  P: 1e-12,
  n: 1e-9,
  N: 1e-9,
  u: 1e-6,
  U: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  G: 1e9,
  R: 1,
  r: 1,
};

const ACCEPTED = texts.numberSuchMv;

/** As old drawings and part bodies have it, in place of a prefix and a unit. */
const OLD_WORDS: [RegExp, number, Unit][] = [
  [/^(mmfd?|uufd?|µµfd?|μμfd?)$/i, 1e-12, "F"],
  [/^mfd$/i, 1e-6, "F"],
  [/^meg(ohms?|[ΩΩ])?$/i, 1e6, "Ω"],
];

/** Scales without the rounding dust of a multiplication: 0.022 µ is read as 0.022e-6. */
function scaled(number: string, factor: number): number {
  const power = Math.round(Math.log10(factor));
  const [mantissa, exponent = "0"] = number.toLowerCase().split("e");
  return Number(`${mantissa}e${Number(exponent) + power}`);
}

function significantDigits(number: string): number {
  const mantissa = number.toLowerCase().split("e")[0] ?? "";
  const digits = mantissa.replace(/[^0-9]/g, "").replace(/^0+/, "");
  if (mantissa.includes(".")) return Math.max(1, digits.length);
  return Math.max(1, digits.replace(/0+$/, "").length);
}

function build(number: string, factor: number, unit: Unit | undefined): Quantity {
  const value = scaled(number, factor);
  const digits = significantDigits(number);
  return { value, unit, digits, echo: formatQuantity(value, unit, Math.max(digits, 2)) };
}

/**
 * Reads one typed value.
 * A bare capacitance under 1 is microfarads; a bare one of 1 or more is refused with both readings as `choices`.
 */
export function parseQuantity(text: string, options: ParseOptions = {}): ParsedQuantity {
  const read = text.trim();
  const fail = (why: string, accepted = ACCEPTED, choices?: Quantity[]): ParsedQuantity => ({ ok: false, read, why, accepted, choices });
  if (read === "") return fail(texts.nothingWasTyped());

  // "16u 450V" is two values, and no 16.45 of anything. Blanks between groups of three are thousands.
  if (/[\d.,]\S*\s+[\d.,]/.test(read) && !/^[+\-−–]?\d{1,3}(\s\d{3})+(?!\d)/.test(read)) return fail(texts.twoValues(), texts.oneValue());
  let source = read.replace(/[−–]/g, "-").replace(/\s+/g, "");
  if (source.includes(",")) {
    if (options.decimal !== ",") return fail(texts.hasCommaShopWrites(), texts.inPlaceOf());
    if (/,.*[,.]/.test(source)) return fail(texts.hasMoreThanOne(), "12,5");
    source = source.replace(",", ".");
  }

  // R47 is 0.47 Ω, as small resistors are marked.
  source = source.replace(/^r(\d+)$/i, "0R$1");
  const match = /^([+-]?)(\d+\.?\d*|\.\d+)(e[+-]?\d+)?(.*)$/i.exec(source);
  if (!match) return fail(texts.doesNotStartNumber(read));
  const [, sign = "", whole = "", exponent = "", rest = ""] = match;

  let number = sign + whole;
  let tail = rest;
  let factor = 1;
  // The prefix in the place of the decimal point: 4k7, 2R2, 0u1.
  const infix = exponent ? null : /^([pPnNuUµμmkKMGRr])(\d+)(.*)$/.exec(tail);
  if (infix) {
    if (whole.includes(".")) return fail(texts.hasTwoDecimalPlaces(), "4k7 or 4.7k");
    number = `${sign}${whole}.${infix[2]}`;
    factor = PREFIX[infix[1] ?? ""] ?? 1;
    tail = infix[3] ?? "";
    const unit = unitOf(tail) ?? (/[Rr]/.test(infix[1] ?? "") ? "Ω" : undefined);
    if (tail && !unit) return fail(texts.notUnitKnownHere(tail));
    return checkUnit(number, factor, unit, options, fail);
  }
  number += exponent;

  if (tail === "") return bare(number, options, fail);
  const old = OLD_WORDS.find(([word]) => word.test(tail));
  if (old) return checkUnit(number, old[1], tail.toLowerCase() === "meg" ? undefined : old[2], options, fail);
  const whole_unit = unitOf(tail);
  const head = tail.charAt(0);
  // "R" alone is ohms; "M" alone is mega: both are prefixes first, whatever else they could be.
  if (head in PREFIX && (tail.length === 1 || unitOf(tail.slice(1)))) {
    if (!(whole_unit && tail.length > 1)) {
      factor = PREFIX[head] ?? 1;
      const unit = unitOf(tail.slice(1)) ?? (/[Rr]/.test(head) ? "Ω" : undefined);
      return checkUnit(number, factor, unit, options, fail);
    }
  }
  if (!whole_unit) return fail(texts.notUnitPrefixKnown(tail));
  return checkUnit(number, 1, whole_unit, options, fail);
}

type Fail = (why: string, accepted?: string, choices?: Quantity[]) => ParsedQuantity;

function bare(number: string, options: ParseOptions, fail: Fail): ParsedQuantity {
  if (options.unit === "F" && Number(number) !== 0) {
    const micro = build(number, 1e-6, "F");
    if (Math.abs(Number(number)) < 1) return { ok: true, quantity: micro };
    const pico = build(number, 1e-12, "F");
    return fail(`${micro.echo} or ${pico.echo}?`, `${number}u or ${number}p`, [micro, pico]);
  }
  return finish(build(number, 1, options.unit), fail);
}

function checkUnit(number: string, factor: number, unit: Unit | undefined, options: ParseOptions, fail: Fail): ParsedQuantity {
  if (unit && options.unit && unit !== options.unit) {
    return fail(texts.wantedHere(UNIT_WORDS[unit], UNIT_WORDS[options.unit]), ACCEPTED);
  }
  const quantity = build(number, factor, unit ?? options.unit);
  // "1k" where farads are wanted is a resistor.
  if (options.unit === "F" && unit === undefined && factor >= 1) return fail(texts.noSuchCapacitor(quantity.echo), "100n, 16u");
  return finish(quantity, fail);
}

function finish(quantity: Quantity, fail: Fail): ParsedQuantity {
  if (!Number.isFinite(quantity.value)) return fail(texts.tooLargeNumber());
  return { ok: true, quantity };
}

function unitOf(text: string): Unit | undefined {
  if (/^(ohms?|[ΩΩ])$/i.test(text)) return "Ω";
  if (/^(v|volts?|vdc|vac)$/i.test(text)) return "V";
  if (/^(a|amps?)$/i.test(text)) return "A";
  if (/^(f|farads?)$/i.test(text)) return "F";
  if (/^h$/i.test(text)) return "H";
  if (/^(w|watts?)$/i.test(text)) return "W";
  if (/^hz$/i.test(text)) return "Hz";
  if (/^(s|sec|seconds?)$/i.test(text)) return "s";
  if (/^%$/.test(text)) return "%";
  return undefined;
}
