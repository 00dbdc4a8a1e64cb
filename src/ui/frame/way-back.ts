"use client";
/** From any field to the entry line and back to the same field, by F2; Escape leaves a field, with what stands in it. */

import { useCallback, useEffect, useRef, type RefObject } from "react";
import { isTyped } from "../forms/focus";

/** @returns goes back to the field that was left. */
export function useWayBack(line: RefObject<HTMLInputElement | null>): () => void {
  const left = useRef<HTMLElement>(null);
  const back = useCallback(() => {
    // The field of the point that was logged meanwhile is gone: then the one that stands in its place.
    const to = left.current?.isConnected ? left.current : document.querySelector<HTMLElement>("main [data-reading-field]");
    to?.focus();
  }, []);
  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      const at = document.activeElement;
      if (document.querySelector("dialog[open], [role=dialog]")) return;
      if (e.key === "F2") {
        e.preventDefault();
        if (at === line.current) return back();
        left.current = isTyped(at) ? at : null;
        line.current?.focus();
      } else if (e.key === "Escape" && !e.defaultPrevented && isTyped(at) && at !== line.current && at.closest("main")) {
        left.current = at;
        at.blur();
      }
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  }, [line, back]);
  return back;
}
