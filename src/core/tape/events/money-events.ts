/** Payloads of money: quotes, bills, payments. Amounts are in the shop's currency, rounded to its smallest coin as its settings stood. */

import { IsArray, IsBoolean, IsIn, IsInt, IsNumber, Max, Min } from "class-validator";
import { IsA, IsDay, IsListOf, IsText, IsTextList, Optional } from "../../checks/accepted";
import { BILL_KINDS, type BillKind } from "../../shop/bill-kinds";
import { MOST_LINES, MOST_MONEY, OPTION_AIMS, PAYMENT_MEANS, TEXT_LIMIT, type OptionAim, type PaymentMeans } from "./words";

export class BillLine {
  @IsText(300) text!: string;
  @IsNumber() @Min(-1e6) @Max(1e6) amount!: number;
  @IsIn(BILL_KINDS) kind!: BillKind;
}

/** A line of a quote or a bill: `amount` is pieces times price, rounded. */
export class MoneyLine {
  @IsText(300) text!: string;
  @IsIn(BILL_KINDS) kind!: BillKind;
  @IsNumber() @Min(0) @Max(1e6) pieces!: number;
  /** Of one piece; of labour, of an hour. Below zero only for what is taken off. */
  @IsNumber() @Min(-MOST_MONEY) @Max(MOST_MONEY) price!: number;
  @IsNumber() @Min(-MOST_MONEY) @Max(MOST_MONEY) amount!: number;
  /** The task that it is for, by the line that it was first planned in. */
  @Optional() @IsInt() @Min(1) @Max(MOST_LINES) planned?: number;
  /** What it was made from: "planned 12 labour", "change 45", "line 33". On one bill only. */
  @Optional() @IsText(80) key?: string;
  @Optional() @IsInt() @Min(0) @Max(1e6) minutes?: number;
}

export class TaxLine {
  @IsText(60) name!: string;
  @IsNumber() @Min(0) @Max(100) percent!: number;
  /** What it is reckoned on. */
  @IsNumber() @Min(-MOST_MONEY) @Max(MOST_MONEY) base!: number;
  /** Kinds of lines that it stands on; tapes of before did not say. */
  @Optional() @IsArray() @IsIn(BILL_KINDS, { each: true }) on?: BillKind[];
  @IsNumber() @Min(-MOST_MONEY) @Max(MOST_MONEY) amount!: number;
}

export class MoneySum {
  /** Without taxes. */
  @IsNumber() @Min(-MOST_MONEY) @Max(MOST_MONEY) net!: number;
  @IsListOf(() => TaxLine, 8) taxes!: TaxLine[];
  /** Whether the lines hold the taxes already. */
  @IsBoolean() included!: boolean;
  /** To the smallest coin that is paid with. */
  @IsNumber() @Min(-100) @Max(100) rounding!: number;
  @IsNumber() @Min(-MOST_MONEY) @Max(MOST_MONEY) total!: number;
}

export class QuoteOption {
  @IsText(100) name!: string;
  @Optional() @IsIn(OPTION_AIMS) aim?: OptionAim;
  /** What it means for the owner, in their words. */
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) consequence?: string;
  @IsListOf(() => MoneyLine, 200, { least: 1 }) lines!: MoneyLine[];
  @IsA(() => MoneySum) sum!: MoneySum;
}

export class Quote {
  @IsListOf(() => QuoteOption, 5, { least: 1 }) options!: QuoteOption[];
  /** The day at the shop on which it was made, and the last on which it can be accepted: by the server's clock. */
  @Optional() @IsDay() on?: string;
  @Optional() @IsDay() validUntil?: string;
  /** Asked for before the work begins. */
  @Optional() @IsNumber() @Min(0) @Max(MOST_MONEY) deposit?: number;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) note?: string;
}

export class Bill {
  /** Given by the server: of the job, "1004-2", or of the shop without gaps, "17". */
  @IsText(30) number!: string;
  /** The day at the shop on which it was made out: by the server's clock. */
  @Optional() @IsDay() on?: string;
  @IsListOf(() => MoneyLine, 300, { least: 1 }) lines!: MoneyLine[];
  @IsA(() => MoneySum) sum!: MoneySum;
  /** Each difference from what was agreed, a sentence each. */
  @IsTextList(200, 500) differences!: string[];
  /** Paid before it was made. */
  @IsNumber() @Min(-MOST_MONEY) @Max(MOST_MONEY) paid!: number;
  @Optional() @IsDay() payBy?: string;
  @Optional() @IsText(TEXT_LIMIT, { empty: true }) warranty?: string;
}

/** A bill that was wrong: what stands on it can be billed anew. */
export class BillCancelled {
  @IsInt() @Min(1) @Max(MOST_LINES) bill!: number;
  /** The day at the shop: by the server's clock. */
  @Optional() @IsDay() on?: string;
  @IsText(TEXT_LIMIT) why!: string;
}

export class Payment {
  /** Below zero for what is paid back. */
  @IsNumber() @Min(-MOST_MONEY) @Max(MOST_MONEY) amount!: number;
  @IsDay() on!: string;
  @IsIn(PAYMENT_MEANS) means!: PaymentMeans;
  @IsIn(["deposit", "payment", "paid back"]) what!: "deposit" | "payment" | "paid back";
  @Optional() @IsText(300, { empty: true }) note?: string;
}
