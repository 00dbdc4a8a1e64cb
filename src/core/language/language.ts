/**
 * How this shop speaks: tube or valve, mains or line, point or comma. Set once where a program starts (the server, a page, a worker) from
 * the shop's settings; every text and every figure that is shown goes through here.
 */

export interface Language {
  tube: "tube" | "valve";
  mains: "mains" | "line";
  decimal: "." | ",";
}

const USUAL: Language = { tube: "tube", mains: "mains", decimal: "." };
let current: Language = USUAL;

/** Sets the words and the decimal sign for everything that is said from now on; the usual ones when nothing is given. */
export function setLanguage(language: Language = USUAL): void {
  current = { tube: language.tube, mains: language.mains, decimal: language.decimal };
}

export const language = (): Readonly<Language> => current;

/** Phrases that are not made word by word. */
const LINE_PHRASES: [RegExp, string][] = [
  [/\bmains transformer/g, "power transformer"],
  [/\bMains transformer/g, "Power transformer"],
  [/\bmains side\b/g, "primary side"],
  [/\bMains side\b/g, "Primary side"],
];

/**
 * A text of Scutum's own in the shop's words. Not for what somebody typed: that stays as it was typed. The notes of the circuit file
 * (`*@tube`, `mains=`) and options of the command line are names, and stay.
 * @example words("Tubes out; mains 230 V") // "Valves out; line 230 V" in a shop that says valve and line
 */
export function words(text: string): string {
  let said = text;
  if (current.tube === "valve")
    said = said
      .replace(/\btube/g, "valve")
      .replace(/\bTube/g, "Valve")
      .replace(/\bTUBE/g, "VALVE");
  if (current.mains === "line") {
    for (const [phrase, other] of LINE_PHRASES) said = said.replace(phrase, other);
    said = said
      .replace(/(?<![@\w-])mains\b(?!=)/g, "line")
      .replace(/\bMains\b/g, "Line")
      .replace(/\bMAINS\b/g, "LINE");
  }
  return said;
}

/** A figure with the shop's decimal sign and a true minus. */
export function figure(text: string | number): string {
  const said = String(text).replace("-", "−");
  return current.decimal === "," ? said.replace(".", ",") : said;
}

/** The number that a text written with the shop's decimal sign stands for; NaN where it is none. */
export const typedNumber = (text: string): number => {
  const source = text.trim().replace("−", "-");
  return source === "" ? NaN : Number(current.decimal === "," ? source.replace(",", ".") : source);
};

/** A number with that many decimals. @example fixed(-2.345, 1) // "−2.3" */
export const fixed = (value: number, decimals: number): string => figure(value.toFixed(decimals));

/** "an EL84", "a 12AX7", "an 807": a type with its article, by how its first letter or number is said. */
export const aType = (type: string): string => `${/^(?:[AEFHILMNORSX8]|11|18)/i.test(type) ? "an" : "a"} ${type}`;

/** What stands in a text: words that were made elsewhere, a number, or nothing. */
export type Value = string | number | undefined;

/**
 * A text with values in it: the text is put into the shop's words, the values stay as they are, numbers get the shop's decimal sign.
 * @example say`${tube} draws ${1.5} times what a new tube does`
 */
export function say(texts: TemplateStringsArray, ...values: Value[]): string {
  return texts.map((text, i) => words(text) + (i < values.length ? shown(values[i]) : "")).join("");
}

const shown = (value: Value) => (typeof value === "number" ? figure(value) : (value ?? ""));
