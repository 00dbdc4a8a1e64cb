/** The circuits that come with the program, in a shop of their own. */

import { readFileSync } from "node:fs";
import { layExamples, removeExample } from "./examples";
import { freshShop } from "./fresh-shop-for-tests";
import { addModel, libraryModels } from "./models";
import { openJob } from "./tape";

test("they are laid once, after the shop's own; what is taken out does not come back", async () => {
  const shop = await freshShop();
  const own = await addModel(shop, readFileSync("demo/amps/wren-5.cir", "utf8").replace("R4 k2 0 180", "R4 k2 0 150"));
  expect(await layExamples(shop)).toBe(5);
  const library = await libraryModels(shop);
  expect(library.map((m) => m.example)).toEqual([false, true, true, true, true, true]);
  // The shop's own Wren stays as it is.
  expect(library[0]).toMatchObject({ id: own.id, version: 1 });
  const minor = library.find((m) => m.name === "Minor")!;
  await removeExample(shop, minor.id);
  expect(await layExamples(shop)).toBe(0);
  expect((await libraryModels(shop)).map((m) => m.name)).not.toContain("Minor");
  await expect(removeExample(shop, own.id)).rejects.toMatchObject({
    status: 409,
    message: expect.stringContaining("a model of this shop"),
  });
  await expect(removeExample(shop, minor.id)).rejects.toMatchObject({ status: 404 });
  const lantern = library.find((m) => m.name === "Lantern 15")!;
  const job = await shop.transaction((sql) => openJob(sql, { owner: "Somebody", amp: "Lantern 15", modelId: lantern.id, who: "J.M." }));
  await expect(removeExample(shop, lantern.id)).rejects.toMatchObject({
    status: 409,
    message: expect.stringContaining(`Job ${job.id} uses`),
  });
});
