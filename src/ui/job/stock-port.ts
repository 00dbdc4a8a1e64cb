/** What the screens need of the shop's stock of tubes; the app hands it in. Every call rejects with an Error whose message can be shown. */

import type { NewStockTest, NewStockTube, StockTube } from "@/core/shop/stock-tubes";

export interface StockPort {
  list(): Promise<StockTube[]>;
  /** Takes a tube in; it gets the next number. */
  add(tube: NewStockTube): Promise<{ tubes: StockTube[]; number: number }>;
  test(number: number, test: NewStockTest): Promise<StockTube[]>;
  /** Says where it is from now on. */
  move(number: number, place: string): Promise<StockTube[]>;
}
