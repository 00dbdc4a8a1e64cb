"use client";
/** Says on the page itself that it answers to hands by now, for scripts that drive it: what is pressed before is lost. */

import { useEffect } from "react";

/** Stands last on every page: the effects of what stands before it have run by then. The layout sends `data-awake="false"`. */
export function Awake() {
  useEffect(() => {
    document.documentElement.dataset.awake = "true";
  }, []);
  return null;
}
