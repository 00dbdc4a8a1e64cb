/** A PostgreSQL cluster of its own for a test, thrown away after, where the machine has the server (Debian: postgresql). */

import { execFileSync, spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir, userInfo } from "node:os";
import { join } from "node:path";
import { Client } from "pg";

const versions = existsSync("/usr/lib/postgresql") ? readdirSync("/usr/lib/postgresql") : [];
const bin = versions.map((v) => `/usr/lib/postgresql/${v}/bin`).find((b) => existsSync(join(b, "initdb")));
const root = userInfo().uid === 0;

/** PostgreSQL refuses to run as root: then its own user has to be there. */
export const postgresPossible = bin !== undefined && (!root || spawnSync("id", ["postgres"]).status === 0);

const run = (program: string, args: string[]) =>
  root
    ? execFileSync("runuser", ["-u", "postgres", "--", join(bin!, program), ...args], { stdio: "pipe" })
    : execFileSync(join(bin!, program), args, { stdio: "pipe" });

export interface Cluster {
  /** For DATABASE_URL. */
  url: string;
  /** Makes an empty database. @returns its own address. */
  database(name: string): Promise<string>;
  stop(): void;
}

export async function startCluster(): Promise<Cluster> {
  const folder = mkdtempSync(join(tmpdir(), "scutum-pg-"));
  if (root) execFileSync("chown", ["postgres", folder]);
  const port = await new Promise<number>((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
  const data = join(folder, "data");
  run("initdb", ["-D", data, "-U", "scutum", "--auth=trust", "-E", "UTF8", "--no-sync"]);
  const options = `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=${folder}`;
  run("pg_ctl", ["-D", data, "-w", "-l", join(folder, "log"), "-o", options, "start"]);
  return {
    url: `postgres://scutum@127.0.0.1:${port}/postgres`,
    async database(name) {
      const client = new Client({ connectionString: `postgres://scutum@127.0.0.1:${port}/postgres` });
      await client.connect();
      await client.query(`create database ${name}`);
      await client.end();
      return `postgres://scutum@127.0.0.1:${port}/${name}`;
    },
    stop() {
      run("pg_ctl", ["-D", data, "-m", "immediate", "stop"]);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
