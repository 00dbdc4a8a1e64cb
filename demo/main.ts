/** Makes the demo shop in the folder of SCUTUM_DATA, if there are no jobs in it yet. */

import "reflect-metadata";
import { board } from "@/server/board";
import { dataFolder, openDatabase } from "@/server/db";
import { makeDemoShop } from "./make";

const database = await openDatabase();
const { open, done } = await board(database);
if (open + done === 0) await makeDemoShop(database);
await database.close();
console.log(`The demo shop is in ${dataFolder()}.`);
