/** Makes the demo shop in the folder of SCUTUM_DATA, if there are no jobs in it yet. */

import "reflect-metadata";
import { dataFolder, openDatabase } from "@/server/db";
import { makeDemoShop } from "./make";

const database = await openDatabase();
const [jobs] = await database.query<{ n: number }>("select count(*)::int as n from jobs");
if (jobs!.n === 0) await makeDemoShop(database);
await database.close();
console.log(`The demo shop is in ${dataFolder()}.`);
