/** The next service of an amp as a calendar file (iCalendar, RFC 5545): a whole day, with a reminder two weeks before. */

import { createEvent } from "ics";
import { paperOf } from "@/core/papers/paper-title";
import { foldJob } from "@/core/tape/fold";
import { UserError } from "./errors";
import type { WholeJob } from "./shop";

/** @throws UserError 404 for a job without a date for the next service. */
export function serviceCalendar({ head, events, settings }: Pick<WholeJob, "head" | "events" | "settings">): string {
  const state = foldJob(events);
  const day = state.advice?.nextService;
  if (!day) throw new UserError(404, `Job ${head.id} has no date for the next service yet.`);
  const { amp, serial, owner } = paperOf(head.id, state);
  const [year, month, date] = day.split("-").map(Number) as [number, number, number];
  const { error, value } = createEvent({
    uid: `${head.uid}@scutum`,
    productId: "Scutum",
    title: `Service of the ${amp}${serial ? `, serial ${serial}` : ""}`,
    description: [`${settings.shopName}, job ${head.id}, for ${owner}.`, state.advice?.text].filter(Boolean).join("\n"),
    location: settings.shopAddress,
    start: [year, month, date],
    duration: { days: 1 },
    // When it was last changed: the same file for the same advice.
    created: Date.parse(state.advice!.at),
    lastModified: Date.parse(state.advice!.at),
    alarms: [{ action: "display", description: `Service of the ${amp} in two weeks`, trigger: { days: 14, before: true } }],
  });
  if (error) throw new UserError(422, `The calendar file cannot be made: ${error.message}`);
  return value!;
}
