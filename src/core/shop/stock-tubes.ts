/** The shop's stock of tubes: each with a number, its tests over time, and where it is or went. */

/** One test of a tube at the volts that it was made at. */
export interface StockTest {
  id: number;
  /** ISO. */
  at: string;
  who: string;
  /** Plate milliamperes. */
  milliamps: number;
  /** mA/V. */
  gm?: number;
  plateVolts: number;
  screenVolts?: number;
  gridVolts: number;
  /** "none" or which electrodes. */
  shorts?: string;
  note?: string;
}

export interface StockMove {
  at: string;
  who: string;
  /** "drawer 3", "in job 1004, V5", "scrapped". */
  place: string;
}

export interface StockTube {
  number: number;
  type: string;
  note?: string;
  /** Oldest first. */
  tests: StockTest[];
  moves: StockMove[];
}

/** A tube as it is entered. */
export interface NewStockTube {
  type: string;
  place: string;
  note?: string;
}

export type NewStockTest = Omit<StockTest, "id" | "at" | "who">;

/** Where it is now. */
export const placeOf = (tube: StockTube): string => tube.moves.at(-1)?.place ?? "";

export const lastTest = (tube: StockTube): StockTest | undefined => tube.tests.at(-1);

/** Places that a tube does not come back from. */
export const GONE = /^(in job|scrapped|sold|with the owner)/i;

export const inStock = (tube: StockTube): boolean => !GONE.test(placeOf(tube));

/** Volts that tests may differ by, in parts, and still be held side by side. */
const SAME_TEST = 0.03;

/** Whether two tests were made at the same volts: only then do their currents compare. */
export function sameVolts(a: NewStockTest, b: NewStockTest): boolean {
  const close = (x: number | undefined, y: number | undefined) =>
    (x === undefined && y === undefined) ||
    (x !== undefined && y !== undefined && Math.abs(x - y) <= SAME_TEST * Math.max(Math.abs(x), Math.abs(y)));
  return close(a.plateVolts, b.plateVolts) && close(a.screenVolts, b.screenVolts) && close(a.gridVolts, b.gridVolts);
}
