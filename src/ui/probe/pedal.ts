"use client";
/** One key for everything, as a foot switch sends it: a short press and a long one. Other keys beside it for who has a hand free. */

import { useEffect, useMemo, useRef } from "react";

/** Keys that foot switches send as they come: space, return, page down. */
const PEDAL = new Set([" ", "Enter", "PageDown"]);
export const LONG_MS = 900;

export interface PedalKeys {
  short(): void;
  long?(): void;
  /** By `event.key` in lower case; true when the key was used up. */
  other?(key: string): boolean | void;
}

/** @returns the same by touch: always what `keys` are now. */
export function usePedal(keys: PedalKeys): PedalKeys {
  const current = useRef(keys);
  useEffect(() => {
    current.current = keys;
  });
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const down = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      if (!PEDAL.has(e.key)) {
        if (current.current.other?.(e.key.toLowerCase())) e.preventDefault();
        return;
      }
      // A button that has the focus must not be pressed as well.
      e.preventDefault();
      if (e.repeat || timer !== undefined) return;
      timer = setTimeout(() => {
        timer = undefined;
        pressed = false;
        current.current.long?.();
      }, LONG_MS);
      pressed = true;
    };
    let pressed = false;
    const up = (e: KeyboardEvent) => {
      if (!PEDAL.has(e.key)) return;
      e.preventDefault();
      clearTimeout(timer);
      timer = undefined;
      if (pressed) current.current.short();
      pressed = false;
    };
    window.addEventListener("keydown", down);
    window.addEventListener("keyup", up);
    return () => {
      clearTimeout(timer);
      window.removeEventListener("keydown", down);
      window.removeEventListener("keyup", up);
    };
  }, []);
  return useMemo(
    () => ({
      short: () => current.current.short(),
      long: () => current.current.long?.(),
      other: (key) => current.current.other?.(key),
    }),
    [],
  );
}
