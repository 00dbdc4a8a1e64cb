/** A new, empty shop for a test: in a folder, or, within `onServer`, in a database of its own on a PostgreSQL server. */

import { rmSync } from "node:fs";
import type { Database } from "./database";
import { closeDb, openDatabase } from "./db";
import { freshShopFolder } from "./fresh-folder-for-tests";
import { postgresPossible, startCluster, type Cluster } from "./postgres-for-tests";

let cluster: Cluster | undefined;
let made = 0;

/** Runs the tests that `suite` registers on a PostgreSQL server; they are passed over where the machine has none. */
export function onServer(suite: () => void): void {
  (postgresPossible ? describe : describe.skip)("on a PostgreSQL server", () => {
    beforeAll(async () => void (cluster = await startCluster()));
    afterAll(() => {
      cluster!.stop();
      cluster = undefined;
    });
    suite();
  });
}

interface Place {
  folder: string;
  /** For DATABASE_URL; undefined for a shop in its folder. */
  url?: string;
}

async function freshPlace(): Promise<Place> {
  const folder = await freshShopFolder();
  return cluster ? { folder, url: await cluster.database(`shop${made++}`) } : { folder };
}

/** Closing it removes it. */
export async function freshShop(): Promise<Database> {
  const { folder, url } = await freshPlace();
  const shop = await openDatabase(folder, url);
  return {
    ...shop,
    async close() {
      await shop.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Has `db()` open a new shop. @returns what closes and removes it. */
export async function freshSharedShop(): Promise<() => Promise<void>> {
  const { folder, url } = await freshPlace();
  process.env.SCUTUM_DATA = folder;
  if (url) process.env.DATABASE_URL = url;
  return async () => {
    await closeDb();
    delete process.env.SCUTUM_DATA;
    delete process.env.DATABASE_URL;
    rmSync(folder, { recursive: true, force: true });
  };
}
