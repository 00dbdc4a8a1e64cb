"use client";
/** The server's clock in the browser: it decides when a proof runs out, not the clock of a tablet that nobody has set. */

import { useEffect, useState } from "react";

/** Transit and rendering make small offsets; only a clock that is really wrong is corrected. Milliseconds. */
const BELIEVED_WITHIN = 10_000;

/** @returns `now` in milliseconds since 1970, ticking once a second, and what is to be added to this device's clock to get it. */
export function useServerClock(serverNow: string): { now: number; offset: number } {
  // The first render uses the server's time so that both sides draw the same.
  const [clock, setClock] = useState({ now: Date.parse(serverNow), offset: 0 });
  useEffect(() => {
    const off = Date.parse(serverNow) - Date.now();
    const offset = Math.abs(off) > BELIEVED_WITHIN ? off : 0;
    setClock({ now: Date.now() + offset, offset });
    const timer = setInterval(() => setClock({ now: Date.now() + offset, offset }), 1000);
    return () => clearInterval(timer);
  }, [serverNow]);
  return clock;
}
