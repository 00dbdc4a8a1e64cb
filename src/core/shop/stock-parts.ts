/** The shop's stock of parts for restoring: capacitors and resistors, with ratings, price, how many there are. */

export interface StockPart {
  number: number;
  letter: "C" | "R";
  /** Farads or ohms. */
  value: number;
  /** Volts or watts that it is rated for. */
  rating: number;
  kind: string;
  celsius?: number;
  hours?: number;
  ripple?: number;
  diameter?: number;
  length?: number;
  mounting?: string;
  safetyClass?: "X" | "Y";
  /** Of a can with several sections, farads of each; `value` is that of the first. */
  sections?: number[];
  /** In the shop's currency, for one. */
  price?: number;
  place?: string;
  /** Pieces at hand. */
  pieces: number;
  /** Pieces that the shop wants to have at least. */
  minimum?: number;
}

export type NewStockPart = Omit<StockPart, "number" | "minimum">;

/** A job that waits for a part. */
export interface PartWanted {
  job: number;
  amp: string;
  what: string;
  since: string;
  /** Its number in the stock, where it has one. */
  stock: number | null;
}

/** How many to order to have the least again: 0 where there are enough. */
export const toOrder = (part: Pick<StockPart, "pieces" | "minimum">, wanted = 0): number =>
  Math.max(0, (part.minimum ?? 0) + wanted - part.pieces);
