/** A link for the amp's owner: the report of one job, to read, until a day. Signed, so that nothing has to be kept. */

import type { Sql } from "../database";
import { signed, unsigned } from "./secret";

export const LINK_DAYS = 30;

/** What stands in the address. */
export async function linkTo(sql: Sql, jobId: number, now = Date.now()): Promise<{ token: string; until: string }> {
  const until = new Date(now + LINK_DAYS * 86400_000).toISOString().slice(0, 10);
  return { token: await signed(sql, `report-${jobId}-${until}`), until };
}

/** The job of a link, or undefined when it is none of this shop's or its day is over. */
export async function jobOfLink(sql: Sql, token: string, now = Date.now()): Promise<number | undefined> {
  const [, job, until] = /^report-(\d{1,9})-(\d{4}-\d{2}-\d{2})$/.exec((await unsigned(sql, token)) ?? "") ?? [];
  return job && until && new Date(now).toISOString().slice(0, 10) <= until ? Number(job) : undefined;
}
