/** Opens the shop's database at the start of the server and closes it at its end. */

import { keepBackups } from "./daily-backup";
import { closeDb, db } from "./db";
import { UserError } from "./errors";
import { layExamples } from "./examples";
import { refreshSummaries } from "./summaries";

export async function startShop(): Promise<void> {
  try {
    const database = await db();
    const made = await database.alone(() => refreshSummaries(database));
    if (made.jobs > 0) console.log(`scutum: the tapes of ${made.jobs} jobs were checked and their rows on the board made anew`);
    for (const l of made.unreadable)
      console.warn(`scutum: job ${l.jobId}, line ${l.seq} cannot be understood and counts for nothing: ${l.why}`);
    await database.alone(() => layExamples(database));
    keepBackups(database);
  } catch (error) {
    console.error(error instanceof UserError ? `scutum: ${error.message}` : error);
    process.exit(1);
  }
  for (const signal of ["SIGINT", "SIGTERM"] as const) {
    process.once(signal, () => void closeDb().finally(() => process.exit(0)));
  }
}
