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
  if (type === "brief" && (payload as { spendingLimit?: unknown } | null)?.spendingLimit !== undefined)
    return say`An apprentice agrees no spending limit with the owner: ask the technician`;
  if ((type === "planned" || type === "change") && hasPrice(payload)) return setsPriceRefusedTo(role);
  return type === "approval" && namesACost({ type, payload }) ? agreesNoCost() : undefined;
}

/** Why somebody of a role may not say what a part or a task costs; undefined when they may. */
export const setsPriceRefusedTo = (role: Role | undefined): string | undefined =>
  role === "apprentice" ? say`An apprentice sets no price: ask the technician` : undefined;

/** A task or a part with what it costs. */
function hasPrice(payload: unknown): boolean {
  const { fixedPrice, cost, parts } = (payload ?? {}) as { fixedPrice?: unknown; cost?: unknown; parts?: unknown };
  return (
    fixedPrice !== undefined ||
    cost !== undefined ||
    (Array.isArray(parts) && parts.some((p: { cost?: unknown } | null) => p?.cost !== undefined))
  );
}

const agreesNoCost = () => say`An apprentice agrees no cost with the owner: ask the technician`;

/** Whether a quote, a question or an answer names what the owner would pay. */
function namesACost({ type, payload }: Logged): boolean {
  const { cost, option, options } = (payload ?? {}) as { cost?: unknown; option?: unknown; options?: unknown };
  const ofAWay = Array.isArray(options) && options.some((o: { cost?: unknown } | null) => o?.cost !== undefined);
  return type === "quote" || (type === "approval" && (cost !== undefined || option !== undefined || ofAWay));
}

/**
 * Why somebody of a role may not answer for the owner; undefined when they may.
 * @param asked the lines that the answer is given to: a quote or a question, with its corrections.
 */
export const answerRefusedTo = (role: Role | undefined, asked: readonly Logged[]): string | undefined =>
  role === "apprentice" && asked.some(namesACost) ? agreesNoCost() : undefined;

/** Whether a role may change the shop: its settings, its people, its instruments' tokens. */
export const mayChangeShop = (role: Role): boolean => role === "owner";
