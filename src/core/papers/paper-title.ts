/** The head of every paper of a job: the shop, what it is, whom it is for. */

import { format } from "date-fns";
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

/** @param at when the paper was made, ISO. */
export function paperTitle(
  { job, owner, amp, serial }: PaperOf,
  title: string,
  settings: Pick<Settings, "shopName" | "shopAddress">,
  at: string,
): Block {
  return {
    block: "title",
    shop: settings.shopName,
    address: settings.shopAddress,
    title: `${title}${serial && title.includes(amp) ? `, serial ${serial}` : ""}`,
    facts: [[owner && `For ${owner}`, `job ${job}`, at && format(new Date(at), "d MMMM yyyy")].filter(Boolean).join("   ·   ")],
  };
}
