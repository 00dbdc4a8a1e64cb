/** The head of every paper of a job: the shop, what it is, whom it is for. */

import { format, parseISO } from "date-fns";
import { shopDay } from "../shop/day";
import type { Settings } from "../shop/settings";
import type { JobState } from "../tape/fold";
import type { Block } from "./block";

export interface PaperOf {
  job: number;
  owner: string;
  amp: string;
  serial: string;
}

export const paperOf = (job: number, state: Pick<JobState, "opened" | "identity">): PaperOf => ({
  job,
  owner: state.opened?.owner ?? "",
  amp: [state.identity?.maker, state.identity?.model].filter(Boolean).join(" ") || (state.opened?.amp ?? ""),
  serial: state.identity?.serial ?? "",
});

/** @param at when the paper was made: its day at the shop, or a moment in ISO. */
export function paperTitle(
  { job, owner, amp, serial }: PaperOf,
  title: string,
  settings: Pick<Settings, "shopName" | "shopAddress" | "timeZone">,
  at: string,
): Block {
  const day = at.length > 10 ? shopDay(at, settings.timeZone) : at;
  return {
    block: "title",
    shop: settings.shopName,
    address: settings.shopAddress,
    title: `${title}${serial && title.includes(amp) ? `, serial ${serial}` : ""}`,
    facts: [[owner && `For ${owner}`, `job ${job}`, day && format(parseISO(day), "d MMMM yyyy")].filter(Boolean).join("   ·   ")],
  };
}
