/** A shop on a PostgreSQL server, where DATABASE_URL names one: several processes may serve it at once. */

import type { Client, Pool, PoolClient } from "pg";
import type { Database, Sql } from "./database";
import { explain } from "./errors";
import { live } from "./live";
import { PRESENCE_CHANNEL, Presence } from "./presence";

/** Every process of the shop tells the others by it which job has changed. */
const CHANNEL = "scutum_job";
const LISTEN_AGAIN_MS = 2000;
/** Of the lock under which one process changes the tables while the others wait. Any number that no other program takes. */
const ALONE = 7_283_861;

const on = (client: Pick<Pool | PoolClient, "query">): Sql => ({
  async query<T>(text: string, params: unknown[] = []) {
    try {
      return (await client.query(text, params)).rows as T[];
    } catch (error) {
      throw explain(error);
    }
  },
});

export async function openServer(url: string): Promise<Database> {
  const { Pool } = await import("pg");
  const pool = new Pool({ connectionString: url, max: 8 });
  // A connection that breaks while nobody uses it: the next query gets another one.
  pool.on("error", (error) => console.error(`scutum: a connection to the database broke: ${error.message}`));
  const presence = new Presence((channel, text) => pool.query("select pg_notify($1, $2)", [channel, text]));
  const listening = new Listening(url, presence);
  await listening.begin();
  presence.begin();
  const withClient = async <T>(work: (client: PoolClient) => Promise<T>): Promise<T> => {
    const client = await pool.connect().catch((error: unknown) => {
      throw explain(error);
    });
    let broken: Error | undefined;
    const note = (error: Error) => void (broken = error);
    client.on("error", note);
    try {
      return await work(client);
    } finally {
      client.off("error", note);
      client.release(broken);
    }
  };
  return {
    ...on(pool),
    transaction: (work) =>
      withClient(async (client) => {
        try {
          await client.query("begin");
          const result = await work(on(client));
          await client.query("commit");
          return result;
        } catch (error) {
          // A connection that is gone has nothing to roll back; what went wrong first is what is told.
          await client.query("rollback").catch(() => undefined);
          throw explain(error);
        }
      }),
    async script(text) {
      await pool.query(text);
    },
    alone: (work) =>
      withClient(async (client) => {
        await client.query("select pg_advisory_lock($1)", [ALONE]);
        try {
          return await work();
        } finally {
          await client.query("select pg_advisory_unlock($1)", [ALONE]);
        }
      }),
    async announce(jobId) {
      // The line is stored; should this fail, screens of other processes get it at their next look.
      await pool.query("select pg_notify($1, $2)", [CHANNEL, String(jobId)]).catch((error: Error) => {
        console.error(`scutum: other processes were not told of job ${jobId}: ${error.message}`);
        live().changed(jobId);
      });
    },
    async close() {
      await presence.end();
      await listening.end();
      await pool.end();
    },
  };
}

/** A connection that hears which job has changed, made anew when it breaks. */
class Listening {
  private client?: Client;
  private ended = false;

  constructor(
    private readonly url: string,
    private readonly presence: Presence,
  ) {}

  async begin(): Promise<void> {
    const { Client } = await import("pg");
    const client = new Client({ connectionString: this.url });
    client.on("notification", ({ channel, payload = "" }) => {
      if (channel === CHANNEL) live().changed(Number(payload));
      else this.presence.hear(payload);
    });
    client.on("error", () => this.again(client));
    client.on("end", () => this.again(client));
    await client.connect();
    await client.query(`listen ${CHANNEL}; listen ${PRESENCE_CHANNEL}`);
    this.client = client;
  }

  private again(broken: Client): void {
    if (this.ended || this.client !== broken) return;
    this.client = undefined;
    const retry = () => {
      if (this.ended) return;
      this.begin().then(
        // What was told meanwhile was not heard: everybody looks.
        () => live().changedAll(),
        () => setTimeout(retry, LISTEN_AGAIN_MS).unref(),
      );
    };
    setTimeout(retry, LISTEN_AGAIN_MS).unref();
  }

  async end(): Promise<void> {
    this.ended = true;
    await this.client?.end();
  }
}
