/** Numbers in a netlist, by the SPICE rule: suffixes are case-insensitive, M is milli and MEG is mega. */

import * as texts from "../texts/circuit";

const SUFFIX: [string, number][] = [
  ["meg", 6],
  ["t", 12],
  ["g", 9],
  ["k", 3],
  ["m", -3],
  ["u", -6],
  ["µ", -6],
  ["n", -9],
  ["p", -12],
  ["f", -15],
];

export type SpiceNumber = { ok: true; value: number; suffix: string } | { ok: false; expected: string };

/** Reads `4.7k`, `32u`, `1MEG`, `1e-3`; letters after the suffix are a unit and ignored, as SPICE does. */
export function parseSpiceNumber(text: string): SpiceNumber {
  const infix = /^([+-]?\d+)([kKrRmMuUnNpP])(\d+)$/.exec(text);
  if (infix) {
    const letter = infix[2] ?? "";
    const shown = /[rR]/.test(letter)
      ? `${infix[1]}.${infix[3]}`
      : `${infix[1]}.${infix[3]}${/M/.test(letter) ? "MEG" : letter.toLowerCase()}`;
    return { ok: false, expected: texts.numberNetlistsWrite(shown) };
  }
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+))(?:e([+-]?\d{1,3}))?([a-zµ]*)$/i.exec(text);
  if (!match) return { ok: false, expected: texts.numberSuchMeg() };
  const [, mantissa, exponent = "0", letters = ""] = match;
  const lower = letters.toLowerCase();
  const suffix = SUFFIX.find(([s]) => lower.startsWith(s));
  const value = Number(`${mantissa}e${Number(exponent) + (suffix?.[1] ?? 0)}`);
  if (!Number.isFinite(value)) return { ok: false, expected: texts.numberNotBeyondAll() };
  return { ok: true, value, suffix: suffix?.[0] ?? "" };
}
