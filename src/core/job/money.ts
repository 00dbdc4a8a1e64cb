/** Money as it stands on a bill. */

import { fixed } from "../language/language";

/** An amount in the shop's currency. @example money(82.4, "kr") // "82.40 kr" */
export const money = (amount: number, currency: string): string => `${fixed(amount, 2)} ${currency}`;
