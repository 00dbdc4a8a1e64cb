/**
 * Runs in the browser between the pages and the server: while the server is not reached, a page of the shop is answered with the one that
 * draws from what the browser keeps (src/app/kept). Nothing of the interface is answered from here, so that nothing old passes for new.
 * Bundled by scripts/service-worker.mjs, apart from the pages.
 */

import { CacheFirst, ExpirationPlugin, NetworkOnly, Serwist, type PrecacheEntry, type SerwistPlugin } from "serwist";
import { jobPage, KEPT_PAGE, KEPT_PHOTOS, pageOfShop } from "./kept-addresses";

/** Every file that the pages are made of, and the page for the time without a server; put in when this is bundled. */
declare const PRECACHE: PrecacheEntry[];

/** A network that is gone but not known to be gone answers nothing at all. A station that the server is slower with goes on from here, too. */
const STATION_SECONDS = 8;
const MOST_PHOTOS = 200;

const station = (path: string): boolean => (jobPage(path)?.place ?? "report") !== "report";

/**
 * A worker is told by the part of its address behind the "#" which files it is made of, and reads it from the address of the answer: one from
 * the cache has lost that part, one without an address is taken to have the address that was asked for.
 */
const withWorkerAddress: SerwistPlugin = {
  cachedResponseWillBeUsed: ({ event, cachedResponse }) =>
    cachedResponse && (event as { request?: Request }).request?.destination === "worker"
      ? new Response(cachedResponse.body, cachedResponse)
      : cachedResponse,
};

new Serwist({
  precacheEntries: PRECACHE,
  precacheOptions: { plugins: [withWorkerAddress] },
  skipWaiting: true,
  clientsClaim: true,
  disableDevLogs: true,
  runtimeCaching: [
    {
      matcher: ({ request, sameOrigin, url }) => sameOrigin && request.mode === "navigate" && station(url.pathname),
      handler: new NetworkOnly({ networkTimeoutSeconds: STATION_SECONDS }),
    },
    {
      // Nothing is kept in their place: a report may take its time.
      matcher: ({ request, sameOrigin, url }) => sameOrigin && request.mode === "navigate" && pageOfShop(url.pathname),
      handler: new NetworkOnly(),
    },
    {
      // By the hash of its content: it never changes.
      matcher: ({ sameOrigin, url }) => sameOrigin && /^\/api\/v1\/photos\/[0-9a-f]{64}$/.test(url.pathname),
      handler: new CacheFirst({ cacheName: KEPT_PHOTOS, plugins: [new ExpirationPlugin({ maxEntries: MOST_PHOTOS })] }),
    },
  ],
  fallbacks: { entries: [{ url: KEPT_PAGE, matcher: ({ request }) => request.mode === "navigate" }] },
}).addEventListeners();
