/** The people of a shop and what each of them may log. */

import { say } from "../language/language";

export const ROLES = ["owner", "technician", "apprentice"] as const;
export type Role = (typeof ROLES)[number];

/** Somebody who is signed in. */
export interface Person {
  id: number;
  initials: string;
  name: string;
  role: Role;
}

/** What a line is judged by: its type, and the cost that an answer to the owner names. */
interface Logged {
  type: string;
  payload: unknown;
}

/**
 * Why somebody of a role may not log a line; undefined when they may.
 * Where nobody signs in there is no role, and everybody may. An apprentice settles no money with the owner and passes no safety gate on their own word.
 */
export function refusedTo(role: Role | undefined, { type, payload }: Logged): string | undefined {
  if (role !== "apprentice") return undefined;
  if (type === "gate-passed") return say`An apprentice passes no safety gate: ask the technician`;
  if (type === "bill-line" || type === "bill" || type === "bill-cancelled")
    return say`An apprentice enters nothing on the bill: ask the technician`;
  if (type === "quote") return say`An apprentice makes no quote: ask the technician`;
  if (type === "payment") return say`An apprentice takes no payment: ask the technician`;
  const agreed = payload as { cost?: unknown; option?: unknown } | null;
  if (type === "approval" && (agreed?.cost !== undefined || agreed?.option !== undefined))
    return say`An apprentice agrees no cost with the owner: ask the technician`;
  return undefined;
}

/** Whether a role may change the shop: its settings, its people, its instruments' tokens. */
export const mayChangeShop = (role: Role): boolean => role === "owner";
