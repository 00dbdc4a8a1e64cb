/** What a shop asks for its work: rates, margin, taxes, and how its money is written. */

import { ArrayMaxSize, ArrayUnique, IsArray, IsBoolean, IsIn, IsInt, IsNumber, Max, Min } from "class-validator";
import { IsListOf, IsText } from "../checks/accepted";
import { BILL_KINDS, type BillKind } from "./bill-kinds";

export class FixedPrice {
  @IsText(100) name!: string;
  @IsNumber() @Min(0) @Max(1e7) amount!: number;
}

export class TaxRate {
  @IsText(60) name!: string;
  /** Of what it is reckoned on. */
  @IsNumber() @Min(0) @Max(100) percent!: number;
  /** Kinds of lines that it is reckoned on. */
  @IsArray() @ArrayUnique() @ArrayMaxSize(BILL_KINDS.length) @IsIn(BILL_KINDS, { each: true }) on!: BillKind[];
}

export class MoneySettings {
  /** Decimals of the smallest coin: 2 for hundredths. */
  @IsIn([0, 2, 3]) places!: 0 | 2 | 3;
  /** Whether the currency stands before the amount. */
  @IsBoolean() symbolFirst!: boolean;
  /** What parts thousands. */
  @IsIn(["", " ", ",", ".", "'"]) thousands!: "" | " " | "," | "." | "'";
  /** Smallest step that is paid, in smallest coins: 1 for none, 5 for five hundredths. */
  @IsInt() @Min(1) @Max(1000) cashStep!: number;
  /** Labour, an hour. */
  @IsNumber() @Min(0) @Max(1e6) hourly!: number;
  /** Labour is billed in whole steps of so many minutes. */
  @IsIn([1, 5, 6, 10, 15, 30, 60]) stepMinutes!: 1 | 5 | 6 | 10 | 15 | 30 | 60;
  /** On what a part costs the shop. */
  @IsNumber() @Min(0) @Max(1000) marginPercent!: number;
  @IsListOf(() => FixedPrice, 50) fixedPrices!: FixedPrice[];
  @IsListOf(() => TaxRate, 4) taxes!: TaxRate[];
  /** Whether rates and prices hold the taxes already. */
  @IsBoolean() pricesIncludeTax!: boolean;
  /** Of a quote, asked for before the work begins. */
  @IsNumber() @Min(0) @Max(100) depositPercent!: number;
  /** Bills are numbered by their job, "1004-2", or one after the other in the whole shop, without gaps. */
  @IsIn(["job", "shop"]) billNumbers!: "job" | "shop";
  @IsInt() @Min(1) @Max(365) quoteDays!: number;
  @IsInt() @Min(0) @Max(365) payDays!: number;
  /** Hours a day that are worked at the bench: what a promised date is held against. */
  @IsNumber() @Min(0.5) @Max(24) benchHours!: number;
  @IsText(4000, { empty: true }) warranty!: string;
}
