/** What this browser keeps of the shop goes when whoever used it goes; lines that are not sent yet stay. */

import { KEPT_PHOTOS } from "@/workers/kept-addresses";
import { forgetDrawings } from "@/workers/drawing";
import { forgetKeptJobs } from "./kept/kept-jobs";

export async function forgetKept(): Promise<void> {
  await forgetKeptJobs();
  await forgetDrawings();
  // There only where the page is trusted.
  if ("caches" in window) await caches.delete(KEPT_PHOTOS);
}
