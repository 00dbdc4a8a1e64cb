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
}

export type NewStockPart = Omit<StockPart, "number">;
