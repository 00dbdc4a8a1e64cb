/** npm run rebuild: writes every job's summary row anew from its tape. */

import "reflect-metadata";
import { openDatabase } from "@/server/db";
import { rebuildSummaries } from "@/server/tape";

const database = await openDatabase();
const jobs = await rebuildSummaries(database);
await database.close();
console.log(`Rebuilt the summary rows of ${jobs} jobs.`);
