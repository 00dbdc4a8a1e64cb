/** Runs statements on a stopped shop: node --import tsx tests/soak/run-sql.ts "…". */

import { openFolder } from "../../src/server/folder-database";

const database = await openFolder(process.env.SCUTUM_DATA!);
await database.script(process.argv[2]!);
await database.close();
