/** What lies in the shop's drawers for restoring, and what has a bad name here. */

import { addBadName } from "@/server/bad-names";
import type { Database } from "@/server/database";
import { addStockPart } from "@/server/stock-parts";
import type { NewStockPart } from "@/core/shop/stock-parts";

const electrolytic = (
  microfarads: number,
  volts: number,
  price: number,
  pieces: number,
  more: Partial<NewStockPart> = {},
): NewStockPart => ({
  letter: "C",
  value: Number(`${microfarads}e-6`),
  rating: volts,
  kind: "electrolytic",
  celsius: 105,
  hours: 5000,
  ripple: 0.28,
  price,
  pieces,
  place: "drawer 4",
  ...more,
});
const film = (nanofarads: number, volts: number, price: number, pieces: number): NewStockPart => ({
  letter: "C",
  value: Number(`${nanofarads}e-9`),
  rating: volts,
  kind: "polypropylene",
  price,
  pieces,
  place: "drawer 2",
});

const PARTS: NewStockPart[] = [
  electrolytic(47, 500, 6.4, 8, { ripple: 0.36, diameter: 22, length: 40 }),
  electrolytic(33, 450, 4.9, 5, { ripple: 0.3, diameter: 18, length: 36 }),
  electrolytic(22, 450, 4.2, 6, { ripple: 0.22, diameter: 16, length: 32 }),
  electrolytic(22, 63, 0.6, 30, { ripple: 0.12 }),
  electrolytic(100, 100, 1.1, 12, { ripple: 0.3 }),
  {
    ...electrolytic(100, 500, 38, 2, { ripple: 0.75, diameter: 35, length: 80, mounting: "clamp", place: "shelf, cans" }),
    sections: [100e-6, 50e-6, 50e-6],
  },
  film(22, 630, 1.3, 20),
  film(47, 630, 1.5, 14),
  film(100, 630, 1.9, 11),
  { letter: "C", value: 4.7e-9, rating: 275, kind: "ceramic", safetyClass: "Y", price: 0.9, pieces: 10, place: "drawer 1" },
  { letter: "C", value: 47e-9, rating: 275, kind: "polypropylene", safetyClass: "X", price: 1.2, pieces: 6, place: "drawer 1" },
];

export async function stockPartsOf(database: Database): Promise<void> {
  for (const part of PARTS) await addStockPart(database, part, "J.M.");
  await addBadName(
    database,
    {
      letter: "C",
      words: "paper",
      fromYear: 1955,
      toYear: 1962,
      does: "leaks onto the grid when warm",
      evidence: { job: 1004, text: "C6 of the Wren 5" },
    },
    "J.M.",
  );
}
