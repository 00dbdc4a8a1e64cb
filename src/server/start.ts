/** Opens the shop's database at the start of the server and closes it at its end. */

import { closeDb, db } from "./db";
import { UserError } from "./errors";
import { refreshSummaries } from "./tape";

export async function startShop(): Promise<void> {
  try {
    const database = await db();
    const made = await refreshSummaries(database);
    if (made > 0) console.log(`scutum: the board's rows of ${made} jobs were made anew from their tapes`);
  } catch (error) {
    console.error(error instanceof UserError ? `scutum: ${error.message}` : error);
    process.exit(1);
  }
  for (const signal of ["SIGINT", "SIGTERM"] as const) {
    process.once(signal, () => void closeDb().finally(() => process.exit(0)));
  }
}
