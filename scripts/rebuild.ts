/** npm run rebuild: writes every job's summary row anew from its tape. */

import "reflect-metadata";
import { openDatabase } from "@/server/db";
import { rebuildSummaries } from "@/server/summaries";

const database = await openDatabase();
const { jobs, unreadable } = await rebuildSummaries(database);
await database.close();
console.log(`Rebuilt the summary rows of ${jobs} jobs.`);
for (const l of unreadable) console.warn(`Job ${l.jobId}, line ${l.seq} cannot be understood and counts for nothing: ${l.why}`);
