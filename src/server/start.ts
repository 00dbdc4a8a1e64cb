/** Opens the shop's database at the start of the server and closes it at its end. */

import { closeDb, db } from "./db";
import { UserError } from "./errors";

export async function startShop(): Promise<void> {
  try {
    await db();
  } catch (error) {
    console.error(error instanceof UserError ? `scutum: ${error.message}` : error);
    process.exit(1);
  }
  for (const signal of ["SIGINT", "SIGTERM"] as const) {
    process.once(signal, () => void closeDb().finally(() => process.exit(0)));
  }
}
