/** Points of a model on photos of its chassis: for every version of the model, moved, taken away, and only on a photo that is here. */

import { readFileSync } from "node:fs";
import { storePhoto } from "./attachments";
import type { Database } from "./database";
import { freshShop } from "./fresh-shop-for-tests";
import { addModel, type AmpModel } from "./models";
import { markPlace, placesOf, unmarkPlace } from "./point-places";

let shop: Database;
let wren: AmpModel;
let hash: string;
beforeAll(async () => {
  shop = await freshShop();
  wren = await addModel(shop, readFileSync("demo/amps/wren-5.cir", "utf8"));
  ({ hash } = await storePhoto(shop, readFileSync("tests/e2e/front.png")));
});
afterAll(() => shop.close());

test("a mark is kept with the model whatever its version, moved, and taken away", async () => {
  await markPlace(shop, wren, { point: "V2.k", hash, x: 0.25, y: 1 / 3 }, "J.M.");
  await markPlace(shop, wren, { point: "B1", hash, x: 0, y: 1 }, "J.M.");
  const next = await addModel(shop, wren.netlist.replace("Redrawn at the bench", "Drawn anew"));
  expect(next.version).toBe(2);
  expect(await placesOf(shop, next)).toEqual([
    { point: "B1", hash, x: 0, y: 1 },
    { point: "V2.k", hash, x: 0.25, y: 1 / 3 },
  ]);
  await markPlace(shop, next, { point: "V2.k", hash, x: 0.5, y: 0.5 }, "P.Q.");
  await unmarkPlace(shop, wren, "B1");
  expect(await placesOf(shop, wren)).toEqual([{ point: "V2.k", hash, x: 0.5, y: 0.5 }]);
  expect(await placesOf(shop, { maker: wren.maker, name: "another" })).toEqual([]);
});

test("a photo that is not here and a mark that is not there are refused with a word", async () => {
  await expect(markPlace(shop, wren, { point: "B2", hash: "0".repeat(64), x: 0, y: 0 }, "J.M.")).rejects.toMatchObject({ status: 422 });
  await expect(unmarkPlace(shop, wren, "B3")).rejects.toMatchObject({ status: 404, message: expect.stringContaining("B3 is not marked") });
});
