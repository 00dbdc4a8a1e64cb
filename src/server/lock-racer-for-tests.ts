/** A process that takes a folder when it is told "take", says "yes" or why not, and gives it back at "give". */

import { createInterface } from "node:readline";
import { lockFolder } from "./lock";

let give: (() => void) | undefined;
createInterface({ input: process.stdin }).on("line", (line) => {
  if (line === "give") give?.();
  else {
    try {
      give = lockFolder(line.slice("take ".length));
      console.log("yes");
    } catch (error) {
      give = undefined;
      console.log((error as Error).message);
    }
  }
});
console.log("ready");
