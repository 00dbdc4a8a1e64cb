/** npm run migrate-shop -- to-server | to-folder: moves the shop between SCUTUM_DATA and DATABASE_URL. Both must be stopped; what it came from is left as it is. */

import { dataFolder, openDatabase } from "@/server/db";
import { moveShop } from "@/server/move-shop";

const way = process.argv[2];
const url = process.env.DATABASE_URL;
if ((way !== "to-server" && way !== "to-folder") || !url) {
  console.error(
    `Read ${JSON.stringify(process.argv.slice(2).join(" "))}; accepted: npm run migrate-shop -- to-server, or to-folder, with DATABASE_URL set and SCUTUM_DATA naming the data folder.`,
  );
  process.exit(2);
}
try {
  const [folder, server] = [await openDatabase(dataFolder(), ""), await openDatabase("", url)];
  const [from, to] = way === "to-server" ? [folder, server] : [server, folder];
  const moved = await moveShop(from, to, (job) => console.log(`job ${job}: the same in both`));
  console.log(
    `Moved ${moved.jobs} jobs, ${moved.lines} lines, ${moved.attachments} photos and recordings. The shop that it came from is as it was.`,
  );
  await folder.close();
  await server.close();
} catch (error) {
  console.error((error as Error).message);
  process.exit(1);
}
