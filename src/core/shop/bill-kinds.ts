/** Kinds of lines on quotes and bills: taxes differ by them. */

export const BILL_KINDS = ["labour", "parts", "fixed price", "other"] as const;
export type BillKind = (typeof BILL_KINDS)[number];
