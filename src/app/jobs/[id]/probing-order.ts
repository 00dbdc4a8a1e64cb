import type { ProbeModeProps } from "@/ui/probe/probe-mode";

const ORDERS = ["chain", "suspects", "cold", "safe"] as const;
/** The bias of the output stage at a transformer. */
const BIAS = /^bias:\w{0,20}$/;

/** The order of probing that an address asks for; that of the fewest movements where it asks for none that there is. */
export const probingOrder = (asked: string | null | undefined): ProbeModeProps["order"] =>
  ORDERS.find((order) => order === asked) ?? (asked && BIAS.test(asked) ? (asked as `bias:${string}`) : "movement");
