import { freshShop } from "./fresh-shop-for-tests";
import { TABLES } from "./move-shop";

test("every table of a shop moves with it, but for who is signed in and which migrations were made", async () => {
  const shop = await freshShop();
  const tables = await shop.query<{ name: string }>(
    "select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'",
  );
  await shop.close();
  expect(
    tables
      .map((t) => t.name)
      .filter((name) => !TABLES.includes(name))
      .sort(),
  ).toEqual(["migrations", "sessions"]);
});
