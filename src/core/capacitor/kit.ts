/** What to order for the capacitors of one amp: values that exist, quantities, what is in the way, prices, what is at hand; as a list and as CSV. */

import { formatQuantity } from "../quantity/format";
import { figure } from "../language/language";
import type { Circuit } from "../circuit/circuit";
import { spiceNumber } from "../circuit/write";
import type { StockPart } from "../shop/stock-parts";
import type { KnownCapacitor } from "./known";
import type { CapacitorStress } from "./stress";
import { placeNeeds, type ShopAsks } from "./place-needs";
import { suggestCapacitor, type Suggested } from "./suggest-capacitor";
import { checkCapacitor, type CapacitorOffer } from "./substitute-capacitor";
import type { PartCheck } from "./check";
import * as texts from "../texts/capacitor";

export interface KitLine {
  /** Positions that take it, in the order of the amp. */
  parts: string[];
  pieces: number;
  suggested: Suggested;
  /** As it is asked for in a shop: "47 µF 500 V 105 °C electrolytic". */
  text: string;
  /** What it was held against in each of the places. */
  checks: { part: string; checks: PartCheck[] }[];
  /** What has to come out or apart to reach it. */
  reach: string[];
  /** Of the stock, one that is good for it. */
  stock?: {
    number: number;
    pieces: number;
    place?: string;
    /** What is asked of it here and not known of it: "ripple current". */ unknown?: string[];
  };
  /** For one. */
  price?: number;
}

export interface Kit {
  lines: KitLine[];
  /** Places for which nothing is suggested, with the reason. */
  none: { part: string; why: string }[];
  /** Of the lines that have a price. */
  total: number;
  /** Lines without one. */
  unpriced: number;
}

export const offerText = (o: CapacitorOffer): string =>
  [
    formatQuantity(o.farads, "F", 2).replace(/[.,]0 /, " "),
    `${o.volts} V`,
    o.celsius === undefined ? "" : `${o.celsius} °C${o.hours === undefined ? "" : ` ${o.hours} h`}`,
    o.safetyClass ? `class ${o.safetyClass}2` : "",
    o.kind,
  ]
    .filter(Boolean)
    .join(" ");

const stockOffer = (s: StockPart): CapacitorOffer => ({
  farads: s.value,
  volts: s.rating,
  kind: s.kind,
  celsius: s.celsius,
  hours: s.hours,
  ripple: s.ripple,
  diameter: s.diameter,
  length: s.length,
  ...(s.safetyClass ? { safetyClass: s.safetyClass } : {}),
});

/** What its life hangs on and nobody noted of a part. That its size is not known is seen when it is held there. */
const unknownOf = (place: ReturnType<typeof placeNeeds>, offer: CapacitorOffer): string[] => [
  ...checkCapacitor(place, offer)
    .filter((c) => c.verdict === "none" && (c.what === "ripple current" || c.what === "temperature"))
    .map((c) => c.what),
  ...(/electrolytic/i.test(offer.kind) && offer.hours === undefined ? ["life"] : []),
];

/** A part of the stock that nothing speaks against in that place: one of which all is known before others, then the nearest value, the smallest rating. */
export function fromStock(place: ReturnType<typeof placeNeeds>, stock: readonly StockPart[]): StockPart | undefined {
  return stock
    .filter(
      (s) =>
        s.letter === "C" &&
        // A safety type is marked for alternating mains and costs more: it is kept for where it has to be.
        (s.safetyClass === undefined || place.safety !== undefined) &&
        s.pieces > 0 &&
        !s.sections?.length &&
        !checkCapacitor(place, stockOffer(s)).some((c) => c.verdict === "out" || c.verdict === "watch"),
    )
    .sort(
      (a, b) =>
        unknownOf(place, stockOffer(a)).length - unknownOf(place, stockOffer(b)).length ||
        Math.abs(Math.log(a.value / place.farads)) - Math.abs(Math.log(b.value / place.farads)) ||
        a.rating - b.rating,
    )[0];
}

const unknown = (...of: Parameters<typeof unknownOf>) => {
  const names = unknownOf(...of);
  return names.length > 0 ? { unknown: names } : {};
};

/** What is in the way of a part: sections of its can come with it; tubes whose sockets it hangs on are pulled first. */
function reachOf(circuit: Circuit, c: KnownCapacitor): string[] {
  const out: string[] = [];
  if (c.section) {
    const others = circuit.elements
      .filter((e) => e.letter === "C" && e.notes.section === c.section && e.name !== c.name)
      .map((e) => e.name);
    out.push(texts.canComesOut(c.section, others.join(", ")));
  }
  const sockets = circuit.elements
    .filter((e) => e.tube && c.element?.nodes.some((n) => n !== "0" && e.nodes.includes(n)))
    .map((e) => e.name);
  if (!c.section && sockets.length > 0) out.push(texts.atSockets(sockets.join(", ")));
  return out;
}

/** @param wanted the capacitors that are to be replaced. */
export function recapKit(
  circuit: Circuit,
  wanted: readonly KnownCapacitor[],
  stresses: ReadonlyMap<string, CapacitorStress>,
  stock: readonly StockPart[] = [],
  asks?: ShopAsks,
): Kit {
  const lines = new Map<string, KitLine>();
  const none: Kit["none"] = [];
  for (const c of wanted) {
    const place = placeNeeds(circuit, c, stresses.get(c.name), asks);
    try {
      const suggested = suggestCapacitor(place);
      const own = fromStock(place, stock);
      // What lies in the drawer and is good is fitted; else what has to be ordered.
      const offer = own ? stockOffer(own) : suggested.offer;
      const inSeries = own ? 1 : suggested.inSeries;
      const text =
        inSeries === 2
          ? `${offerText({ ...offer, farads: offer.farads * 2, volts: offer.volts / 2 })}, ${texts.pairInSeries()}`
          : offerText(offer);
      const key = `${text} ${own?.number ?? ""}`;
      const known = lines.get(key);
      const reach = reachOf(circuit, c);
      if (known) {
        known.parts.push(c.name);
        known.pieces += inSeries;
        known.reach = [...new Set([...known.reach, ...reach])];
        known.checks.push({ part: c.name, checks: checkCapacitor(place, offer) });
        continue;
      }
      lines.set(key, {
        parts: [c.name],
        pieces: inSeries,
        suggested: own ? { offer, inSeries: 1, why: texts.fromDrawer(own.number) } : suggested,
        text,
        checks: [{ part: c.name, checks: checkCapacitor(place, offer) }],
        reach,
        ...(own
          ? { stock: { number: own.number, pieces: own.pieces, ...(own.place ? { place: own.place } : {}), ...unknown(place, offer) } }
          : {}),
        ...(own?.price === undefined ? {} : { price: own.price }),
      });
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      none.push({ part: c.name, why: error.message });
    }
  }
  const all = [...lines.values()];
  return {
    lines: all,
    none,
    total: all.reduce((s, l) => s + (l.price ?? 0) * l.pieces, 0),
    unpriced: all.filter((l) => l.price === undefined).length,
  };
}

/** Text of a cell: what a spreadsheet would take for a formula is quoted. */
const cell = (text: string) => (/^[=+\-@]/.test(text) ? `'${text}` : text);

/** Rows for a CSV file, the header first; decimals with a point and the currency apart, so that any spreadsheet reads them. */
export function kitRows(kit: Kit, currency: string): (string | number)[][] {
  return [
    [
      "positions",
      "pieces",
      "part",
      "farads",
      "volts",
      "kind",
      "temperature_c",
      "life_h",
      "stock_number",
      "at_hand",
      `price_${currency}`,
      `sum_${currency}`,
      "to_reach",
    ],
    ...kit.lines.map((l) => {
      const { offer, inSeries } = l.suggested;
      return [
        l.parts.join(" "),
        l.pieces,
        cell(l.text),
        inSeries === 2 ? offer.farads * 2 : offer.farads,
        offer.volts / inSeries,
        offer.kind,
        offer.celsius ?? "",
        offer.hours ?? "",
        l.stock?.number ?? "",
        l.stock?.pieces ?? 0,
        l.price ?? "",
        l.price === undefined ? "" : Number((l.price * l.pieces).toFixed(2)),
        cell(l.reach.join("; ")),
      ];
    }),
  ];
}

/** The kit in the engine's words, for the circuit with all of it fitted. */
export function kitSet(kit: Kit, year: number): string[] {
  return kit.lines.flatMap((l) => l.parts.flatMap((part) => fittedSet(part, l.suggested.offer, year)));
}

/** One new capacitor in the engine's words: value, volts, kind, year. */
export function fittedSet(part: string, offer: Pick<CapacitorOffer, "farads" | "volts" | "kind">, year: number): string[] {
  const kind = /^[a-z][a-z0-9-]{1,30}$/i.test(offer.kind) ? [`${part}.kind=${offer.kind}`] : [];
  // With its unit: a bare number below one would be read as microfarads.
  return [`${part}=${spiceNumber(offer.farads)}F`, `${part}.volts=${offer.volts}`, ...kind, `${part}.year=${year}`];
}

/** One label for a bag of parts. */
export const bagLabel = (line: KitLine, job: string): string[] => [line.parts.join(" "), `${figure(line.pieces)} × ${line.text}`, job];
