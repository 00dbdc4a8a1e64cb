import { readFile } from "node:fs/promises";
import { join } from "node:path";

const FILE = join(/* turbopackIgnore: true */ process.cwd(), ".next/service-worker.js");

/** The service worker of this build; none while the program is being developed. */
export async function GET() {
  const text = process.env.NODE_ENV === "production" ? await readFile(FILE, "utf8").catch(() => undefined) : undefined;
  if (text === undefined) return new Response("Not found", { status: 404 });
  return new Response(text, { headers: { "content-type": "text/javascript; charset=utf-8", "cache-control": "no-cache" } });
}
