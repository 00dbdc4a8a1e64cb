/** The entry line is loaded after the page: who calls it before it is there finds in it what was typed meanwhile. */

import { useCallback, useEffect, useRef } from "react";
import { isTyped } from "../forms/focus";

/** @returns ends the waiting: what was typed since the line was called; undefined where nobody has called it. */
export function useEarlyKeys(): () => string | undefined {
  const typed = useRef<string>(undefined);
  const there = useRef(false);
  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (there.current || e.ctrlKey || e.metaKey || e.altKey || document.querySelector("dialog[open], [role=dialog]")) return;
      const calls = e.key === "F2" || (e.key === "e" && !isTyped(document.activeElement));
      if (typed.current === undefined) {
        if (!calls) return;
        typed.current = "";
      } else if (e.key === "Backspace") typed.current = typed.current.slice(0, -1);
      else if (e.key === "Escape") typed.current = undefined;
      else if (e.key.length === 1) typed.current += e.key;
      else return;
      e.preventDefault();
      e.stopPropagation();
    };
    window.addEventListener("keydown", keys, true);
    return () => window.removeEventListener("keydown", keys, true);
  }, []);
  return useCallback(() => {
    there.current = true;
    return typed.current;
  }, []);
}
