/** npm run backup -- FILE: the whole shop as one file. The shop must be stopped. */

import { dataFolder } from "@/server/db";
import { backupFolder } from "@/server/backup";

const file = process.argv[2] ?? `scutum-${new Date().toISOString().slice(0, 10)}.backup`;
try {
  console.log(`Wrote ${await backupFolder(dataFolder(), file)} bytes to ${file}.`);
} catch (error) {
  console.error((error as Error).message);
  process.exit(1);
}
