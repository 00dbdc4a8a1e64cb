/** npm run backup -- FILE: the whole shop as one file, read back. The shop must be stopped; a running one makes its own. */

import { backupFolder } from "@/server/backup";
import { backupName } from "@/server/backup-files";
import { dataFolder } from "@/server/db";

try {
  const { file, bytes, contents } = await backupFolder(dataFolder(), process.argv[2] ?? backupName());
  console.log(
    `Wrote ${file}, ${bytes} bytes, and read it back: ${contents.jobs} jobs, ${contents.lines} lines, ${contents.attachments} photos and recordings.`,
  );
} catch (error) {
  console.error((error as Error).message);
  process.exit(1);
}
