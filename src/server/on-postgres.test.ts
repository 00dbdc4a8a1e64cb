/** All tests of the shop's records and of its interface once more, on a PostgreSQL server. */

import { freshShop, onServer } from "./fresh-shop-for-tests";

onServer(() => {
  test("it is a server: reached over the network", async () => {
    const shop = await freshShop();
    const [{ port }] = (await shop.query<{ port: number | null }>("select inet_server_port() as port")) as [{ port: number | null }];
    expect(port).toBeGreaterThan(0);
    await shop.close();
  });
  for (const file of [
    "./server.test",
    "./unreadable.test",
    "./archive.property.test",
    "./bench.test",
    "./point-places.test",
    "./door/door.test",
    "../app/api/routes.test",
  ])
    // eslint-disable-next-line @typescript-eslint/no-require-imports -- a file of tests registers them as it is loaded, within this describe
    describe(file, () => void require(file));
});
