/** tsx scripts/read-backup.ts FILE: reads a backup back and prints what it holds as JSON. */

import { readBackup } from "@/server/backup";

try {
  console.log(JSON.stringify(await readBackup(process.argv[2] ?? "")));
} catch (error) {
  console.error((error as Error).message);
  process.exit(1);
}
