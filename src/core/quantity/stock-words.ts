/** A part of the stock in words. */

import { formatQuantity } from "./format";

interface Part {
  letter: "C" | "R";
  value: number;
  rating: number;
  kind: string;
  /** Of a can with several sections. */
  sections?: readonly number[];
}

/** @example partWords({ letter: "C", value: 22e-9, rating: 630, kind: "film" }) // "22 nF 630 V film" */
export function partWords({ letter, value, rating, kind, sections }: Part): string {
  const values = (sections ?? [value]).map((v) => formatQuantity(v, letter === "C" ? "F" : "Ω", 3).replace(/[.,]0+ /, " "));
  return `${values.join(" + ")} ${rating} ${letter === "C" ? "V" : "W"} ${kind}`;
}

/** With its number, its place and its pieces. */
export const stockPartWords = (p: Part & { number: number; place?: string; pieces: number }): string =>
  [`number ${p.number}`, partWords(p), p.place, `${p.pieces} ${p.pieces === 1 ? "piece" : "pieces"}`].filter(Boolean).join(", ");
