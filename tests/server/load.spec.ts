/** Small runs of `npm run load`, benches behind two processes and one PostgreSQL, each process killed once; and of `npm run long-bench`. */

import { expect, test } from "@playwright/test";
import { postgresPossible } from "../../src/server/postgres-for-tests";
import { load } from "../load/load";
import { longBench } from "../load/long-bench";

test("six benches behind two processes, each killed once: nothing acknowledged is lost, nothing doubled, all is shown on the other bench", async () => {
  test.skip(!postgresPossible, "this machine has no PostgreSQL server");
  test.setTimeout(600_000);
  const told = await load({ benches: 6, seconds: 20, everyMs: 1000 });
  expect(told.failures).toEqual([]);
  expect(told.posted).toBeGreaterThan(20);
});

test("simulated benches that show, streams that listen, readings that are logged: none is refused and none ends", async () => {
  test.setTimeout(600_000);
  const told = await longBench({ minutes: 0.2, streams: 10, everyMs: 500, atLeast: 5, demo: process.env.SCUTUM_E2E_DEMO! });
  expect(told.failures).toEqual([]);
  expect(told.logged).toBeGreaterThan(20);
  expect(told.heard).toBeGreaterThan(told.logged);
  expect(told.memory.length).toBeGreaterThan(2);
});
