/** Prints what a stopped shop holds, read from its database and not through its pages: ids of all lines, photos, jobs with their lines. */

import { openDatabase } from "../../src/server/db";

const database = await openDatabase(process.env.SCUTUM_DATA, undefined);
const ids = await database.query<{ id: string }>("select id from events");
const photos = await database.query<{ hash: string }>("select hash from attachments");
const jobs = await database.query(
  `select j.uid, (select count(*)::int from events e where e.job_id = j.id) as lines, (select s.readings from job_summaries s where s.job_id = j.id) as summary from jobs j`,
);
await database.close();
process.stdout.write(JSON.stringify({ ids: ids.map((r) => r.id), photos: photos.map((r) => r.hash), jobs }));
