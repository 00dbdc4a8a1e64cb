/** Capacitors and resistors marked with colours: two figures, a multiplier, a tolerance, and on moulded capacitors the volts. */

import * as texts from "../texts/quantity";

const COLOURS = ["black", "brown", "red", "orange", "yellow", "green", "blue", "violet", "grey", "white"];
const ALIASES: Record<string, string> = { purple: "violet", gray: "grey" };
const TOLERANCE: Record<string, number> = {
  black: 0.2,
  brown: 0.01,
  red: 0.02,
  green: 0.05,
  white: 0.1,
  gold: 0.05,
  silver: 0.1,
  none: 0.2,
};
/** Multipliers below one. */
const SMALL: Record<string, number> = { gold: 0.1, silver: 0.01 };

export interface ColourCode {
  /** Farads of a capacitor, the code being picofarads; ohms of a resistor. */
  value: number;
  /** Part. */
  tolerance?: number;
  /** Of a moulded capacitor: the figure times a hundred. */
  volts?: number;
}

/**
 * Reads three to five colours in their order: figure, figure, multiplier, tolerance, volts / 100.
 * Source: the colour code of IEC 60062, and its use on moulded paper capacitors with a fifth band for the volts.
 * @returns why it cannot be read, with what is accepted.
 * @example readColours("brown black orange", "F") // { value: 10e-9 }
 */
export function readColours(text: string, unit: "F" | "Ω"): ColourCode | string {
  const words = text
    .toLowerCase()
    .split(/[\s,;/-]+/)
    .filter(Boolean)
    .map((w) => ALIASES[w] ?? w);
  const known = (w: string) => COLOURS.includes(w) || w in SMALL || w === "none";
  const odd = words.find((w) => !known(w));
  if (odd !== undefined) return texts.noColour(odd, COLOURS.join(", "));
  if (words.length < 3 || words.length > 5) return texts.colourCount(words.length);
  const [first, second] = [COLOURS.indexOf(words[0]!), COLOURS.indexOf(words[1]!)];
  if (first < 0 || second < 0) return texts.noColour(words[first < 0 ? 0 : 1]!, COLOURS.join(", "));
  const power = COLOURS.indexOf(words[2]!);
  const times = power >= 0 ? 10 ** power : SMALL[words[2]!];
  if (times === undefined) return texts.noColour(words[2]!, COLOURS.join(", "));
  const figures = 10 * first + second;
  if (figures === 0) return texts.colourZero();
  const tolerance = words[3] === undefined ? undefined : TOLERANCE[words[3]];
  const volts = words[4] === undefined ? undefined : COLOURS.indexOf(words[4]);
  // By powers in the text, so that no rounding dust comes in.
  const value =
    unit === "F" ? Number(`${figures}e${Math.round(Math.log10(times)) - 12}`) : Number(`${figures}e${Math.round(Math.log10(times))}`);
  return {
    value,
    ...(tolerance === undefined ? {} : { tolerance }),
    ...(volts !== undefined && volts > 0 ? { volts: 100 * volts } : {}),
  };
}
