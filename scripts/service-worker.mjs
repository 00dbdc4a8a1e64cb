/** Bundles the service worker, after `next build`: with the list of the files that the pages are made of. Written to .next/service-worker.js. */

import { readdirSync, readFileSync } from "node:fs";
import { build } from "esbuild";

/** Their names hold a hash of their content, so they need no other mark. */
function filesUnder(folder) {
  return readdirSync(`.next/${folder}`, { withFileTypes: true }).flatMap((entry) => {
    const path = `${folder}/${entry.name}`;
    return entry.isDirectory() ? filesUnder(path) : { url: `/_next/${path}`, revision: null };
  });
}

const revision = readFileSync(".next/BUILD_ID", "utf8");
await build({
  entryPoints: ["src/workers/service-worker.ts"],
  outfile: ".next/service-worker.js",
  bundle: true,
  minify: true,
  format: "iife",
  target: "es2022",
  logLevel: "warning",
  define: {
    PRECACHE: JSON.stringify([...filesUnder("static"), { url: "/kept", revision }]),
    "process.env.NODE_ENV": '"production"',
  },
});
