/** A shop on a PostgreSQL server, where DATABASE_URL names one. */

import type { Database, Sql } from "./db";
import { explain } from "./errors";

export async function openServer(url: string): Promise<Database> {
  const { Pool } = await import("pg");
  const pool = new Pool({ connectionString: url, max: 8 });
  const on = (client: { query(text: string, params?: unknown[]): Promise<{ rows: unknown[] }> }): Sql => ({
    async query<T>(text: string, params: unknown[] = []) {
      return (await client.query(text, params)).rows as T[];
    },
  });
  return {
    ...on(pool),
    async transaction(work) {
      const client = await pool.connect();
      try {
        await client.query("begin");
        const result = await work(on(client));
        await client.query("commit");
        return result;
      } catch (error) {
        await client.query("rollback").catch(() => undefined);
        throw explain(error);
      } finally {
        client.release();
      }
    },
    async script(text) {
      await pool.query(text);
    },
    close: () => pool.end(),
  };
}
