/** Addresses that the service worker and the pages have to agree on. */

/** Draws a job from what the browser keeps; holds nothing of the shop itself. */
export const KEPT_PAGE = "/kept";

/** Name of the browser's cache with the photos that were looked at. */
export const KEPT_PHOTOS = "scutum-photos";

/** Whether an address is one of the shop's own pages, and not a file, an interface or the door. */
export const pageOfShop = (path: string): boolean => !/^\/(api|_next|shared|sign-in|service-worker\.js)(\/|$)/.test(path);

/** The job and what of it an address is about; undefined for another page. @example jobPage("/jobs/7/walk") // { jobId: 7, place: "walk" } */
export function jobPage(path: string): { jobId: number; place: string } | undefined {
  const found = /^\/jobs\/(\d{1,9})(?:\/([a-z-]+))?\/?$/.exec(path);
  return found ? { jobId: Number(found[1]), place: found[2] ?? "intake" } : undefined;
}
