/** npm run restore -- FILE: the shop of a backup, in place of what is in the data folder. What was there is kept beside it. */

import { dataFolder } from "@/server/db";
import { restoreFolder } from "@/server/backup";

const file = process.argv[2];
if (!file) {
  console.error("npm run restore -- FILE");
  process.exit(2);
}
try {
  const { kept, contents } = await restoreFolder(dataFolder(), file);
  console.log(
    `Restored ${file} into ${dataFolder()}: ${contents.jobs} jobs, ${contents.lines} lines.${kept ? ` What was there is in ${kept}.` : ""}`,
  );
} catch (error) {
  console.error((error as Error).message);
  process.exit(1);
}
