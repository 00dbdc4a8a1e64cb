"use client";
/**
 * Parts of a page that are loaded after it. They are fetched as soon as the page is idle, so that a dialog opens even when the
 * server is gone by then, and what cannot be fetched is tried again instead of ending the page.
 */

import dynamic from "next/dynamic";
import { useEffect, useState, type ComponentType } from "react";

/** Milliseconds between two attempts. */
const AGAIN_MS = 2000;
/** A part that comes within this time needs no word. */
const PATIENCE_MS = 700;

const known = new Set<() => Promise<unknown>>();

/**
 * A component that is loaded after the page, and drawn by the server where the page is opened with it.
 * `next/dynamic` alone gives up at the first failed request, and for good: React keeps a rejected part.
 * @example const Grounds = late(() => import("./grounds").then((m) => m.Grounds));
 */
export function late<P>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  return dynamic(fetched(load), { loading: () => <Loading /> });
}

/**
 * The same for what the server does not draw: what can be seen of it answers to a hand.
 * @param room classes of what holds its room on the screen until it is there.
 */
export function lateInBrowser<P>(load: () => Promise<ComponentType<P>>, room?: string): ComponentType<P> {
  return dynamic(fetched(load), { ssr: false, loading: () => <Loading room={room} /> });
}

function fetched<T>(load: () => Promise<T>): () => Promise<T> {
  let part: Promise<T> | undefined;
  const once = () => (part ??= untilLoaded(load));
  known.add(once);
  return once;
}

async function untilLoaded<T>(load: () => Promise<T>): Promise<T> {
  for (;;) {
    try {
      return await load();
    } catch (error) {
      // Anything but a file that did not come is a fault of the program: the page's error screen says it.
      if ((error as Error).name !== "ChunkLoadError") throw error;
      // What waits for it says so on the screen (Loading); the reason is for whoever looks at the page's log.
      console.warn("a part of the page is not loaded yet, it is tried again", error);
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    }
  }
}

/** Fetches what this page loads late, once the browser has nothing else to do. */
export function useLateParts(): void {
  useEffect(() => {
    const fetchAll = () => known.forEach((part) => void part());
    if (!("requestIdleCallback" in window)) {
      const timer = setTimeout(fetchAll, 200);
      return () => clearTimeout(timer);
    }
    const idle = requestIdleCallback(fetchAll, { timeout: 2000 });
    return () => cancelIdleCallback(idle);
  }, []);
}

/** Stands where a part is not there yet: no word at first, then what it waits for. */
function Loading({ room }: { room?: string }) {
  const [waits, setWaits] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setWaits(true), PATIENCE_MS);
    return () => clearTimeout(timer);
  }, []);
  return (
    <div role="status" className={room}>
      {waits && <p className="soft p-2 text-sm">Loading… If the server is not reached, this part appears as soon as it is.</p>}
    </div>
  );
}
