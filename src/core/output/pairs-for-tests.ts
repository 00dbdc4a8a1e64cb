/** Output stages on ideal supplies, as data sheets give them: truth comes from the sheets. */

import { circuitOf } from "../solver/circuits-for-tests";

export interface SheetPair {
  type: string;
  plate: number;
  screen: number;
  grid: number;
  zpp: number;
  /** Ohms of a common cathode resistor; 0 for fixed bias. */
  cathode: number;
  /** Published, for each tube at zero signal: milliamperes; and watts out of the pair. */
  plateMilliamps: number;
  watts: number;
}

/** Class AB1 tables of published data sheets. */
export const SHEET_PAIRS: SheetPair[] = [
  { type: "6V6GT", plate: 285, screen: 285, grid: -19, zpp: 8000, cathode: 0, plateMilliamps: 35, watts: 14 },
  { type: "6L6GC", plate: 360, screen: 270, grid: -22.5, zpp: 6600, cathode: 0, plateMilliamps: 44, watts: 26.5 },
  { type: "EL84", plate: 300, screen: 300, grid: 0, zpp: 8000, cathode: 130, plateMilliamps: 36, watts: 17 },
  { type: "6AQ5", plate: 250, screen: 250, grid: -15, zpp: 10000, cathode: 0, plateMilliamps: 35, watts: 10 },
];

/** A pair on ideal supplies, its grids driven apart by an ideal transformer behind `in`. */
export const pairOf = (p: Pick<SheetPair, "type" | "plate" | "screen" | "grid" | "zpp" | "cathode">) =>
  circuitOf(
    `VA b 0 ${p.plate}`,
    `VS s 0 ${p.screen}`,
    `VG g 0 ${p.grid}`,
    `XT1 p1 b p2 out 0 OPT_PP zpp=${p.zpp} load=8 dcr=0.1 dcr2=0.1 lp=40`,
    "R50 out 0 8",
    `XV1 p1 s g1 ${p.cathode ? "k" : "0"} ${p.type}`,
    `XV2 p2 s g2 ${p.cathode ? "k" : "0"} ${p.type}`,
    "R1 g1 g 1k",
    "R2 g2 g 1k",
    ...(p.cathode ? [`R3 k 0 ${p.cathode}`] : []),
  );
