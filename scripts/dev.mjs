/** npm run dev: the application with reloading, on the demo shop. */

import { existsSync } from "node:fs";
import { ensureInstalled, run } from "./setup.mjs";

ensureInstalled();
const data = process.env.SCUTUM_DATA ?? "demo-data";
if (!existsSync(`${data}/pg`)) run(process.execPath, ["node_modules/tsx/dist/cli.mjs", "demo/main.ts"], { env: { SCUTUM_DATA: data } });
process.exit(
  run(process.execPath, ["node_modules/next/dist/bin/next", "dev", "-H", "127.0.0.1", "-p", process.env.PORT ?? "4740"], {
    env: { SCUTUM_DATA: data },
    must: false,
  }),
);
