/** What the screens need of the shop's stock of parts and of what has a bad name in it; the app hands it in. Every call rejects with an Error whose message can be shown. */

import type { BadName, NewBadName } from "@/core/shop/bad-names";
import type { NewStockPart, PartWanted, StockPart } from "@/core/shop/stock-parts";

export interface PartsPort {
  list(): Promise<StockPart[]>;
  /** Open jobs that wait for a part. */
  waiting(): Promise<PartWanted[]>;
  /** How many of a part the shop wants to have at least. */
  minimum(number: number, minimum: number): Promise<StockPart[]>;
  add(part: NewStockPart): Promise<StockPart[]>;
  /** Pieces that came, below zero those that were taken. */
  pieces(number: number, pieces: number, why?: string): Promise<StockPart[]>;
  names(): Promise<BadName[]>;
  remember(name: NewBadName): Promise<BadName[]>;
  evidence(name: number, evidence: NewBadName["evidence"] & { withdraws?: boolean }): Promise<BadName[]>;
}
