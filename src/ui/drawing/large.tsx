"use client";
/** The drawing in its place or, by the key d, over everything but the guard; the same key goes back. */

import { useEffect, useState, type ReactNode } from "react";
import { createPortal } from "react-dom";
import { useHotkeys } from "react-hotkeys-hook";

/** The element of a page that a large drawing fills; without one it fills the window. */
export const LARGE_ROOM = "large-drawing";

/** @param children the drawing, told whether it is large. */
export function Large({ children }: { children(large: boolean, setLarge: (large: boolean) => void): ReactNode }) {
  const [large, setLarge] = useState(false);
  useHotkeys(
    "d",
    (e) => {
      // A field for a figure that is still empty takes no letters: the key is meant for the drawing there too.
      const field = e.target instanceof HTMLInputElement ? e.target : undefined;
      if (field && (field.inputMode !== "decimal" || field.value !== "")) return;
      if (document.querySelector("dialog[open], [role=dialog]:not([data-large])")) return;
      e.preventDefault();
      setLarge((l) => !l);
    },
    { enableOnFormTags: ["input"] },
  );
  useEffect(() => {
    if (!large) return;
    const back = (e: KeyboardEvent) => e.key === "Escape" && !e.defaultPrevented && setLarge(false);
    addEventListener("keydown", back);
    return () => removeEventListener("keydown", back);
  }, [large]);
  if (!large) return children(false, setLarge);
  const room = document.getElementById(LARGE_ROOM);
  return (
    <>
      <p className="soft">The drawing is shown large.</p>
      {createPortal(
        <div
          role="dialog"
          data-large
          aria-label="The drawing, large"
          className={`${room ? "absolute" : "fixed"} inset-0 z-20 bg-base-100 p-3`}
        >
          {children(true, setLarge)}
        </div>,
        room ?? document.body,
      )}
    </>
  );
}
