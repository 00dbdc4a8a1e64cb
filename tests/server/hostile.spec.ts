/** Odd requests and lines, fewer of them than `npm run fuzz` sends; no browser has a part in it. */

import { expect, test } from "@playwright/test";
import { Client } from "../hostile/client";
import { attackWithLines, storeBoth } from "../hostile/lines";
import { attackWithRequests } from "../hostile/requests";
import { Shop } from "../e2e/shop";

let shop: Shop;
let client: Client;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
  client = new Client(shop.address);
});
test.afterAll(async () => {
  client.close();
  await shop.close();
});

test("no odd request is answered with an error of the server's own", async () => {
  const outcome = await attackWithRequests(client, await storeBoth(client), 600, 11);
  expect(outcome.failures).toEqual([]);
  expect(outcome.accepted + outcome.refused).toBe(600);
});

test("whatever line is accepted, every page and export of the job opens", async () => {
  const outcome = await attackWithLines(client, 110, 7);
  expect(outcome.failures).toEqual([]);
  expect(outcome.accepted).toBeGreaterThan(20);
});
