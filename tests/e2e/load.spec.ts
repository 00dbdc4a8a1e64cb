/** A small run of `npm run load`: benches behind two processes and one PostgreSQL, each process killed once. */

import { expect, test } from "@playwright/test";
import { postgresPossible } from "../../src/server/postgres-for-tests";
import { load } from "../load/load";

test("six benches behind two processes, each killed once: nothing acknowledged is lost, nothing doubled, all is shown on the other bench", async () => {
  test.skip(!postgresPossible, "this machine has no PostgreSQL server");
  test.setTimeout(300_000);
  const told = await load({ benches: 6, seconds: 20, everyMs: 1000 });
  expect(told.failures).toEqual([]);
  expect(told.posted).toBeGreaterThan(20);
});
