/** Progress of a finished question is told to nobody any more: its channel is closed, where it would else stay open with the page. */

import { releaseProxy } from "comlink";

type Api = Record<string, (...args: never[]) => unknown>;

/** The same functions; each closes the callbacks that it was given once it has ended, however it ended. */
export function releasing<T extends Api>(api: T): T {
  return Object.fromEntries(
    Object.entries(api).map(([name, work]) => [
      name,
      async (...args: never[]) => {
        try {
          return await work(...args);
        } finally {
          for (const arg of args as unknown[]) if (typeof arg === "function") (arg as { [releaseProxy]?: () => void })[releaseProxy]?.();
        }
      },
    ]),
  ) as T;
}
