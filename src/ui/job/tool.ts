"use client";
/** The discharge tool of this bench: kept in the browser, because it hangs on the wall and not on a job. */

import { useSyncExternalStore } from "react";
import type { Tool } from "@/core/safety/discharge-tool";

const KEY = "scutum-discharge-tool";
/** Until the technician says otherwise. */
const USUAL: Tool = { ohms: 2200, watts: 10, volts: 1000 };

const listeners = new Set<() => void>();
let kept: { text: string | null; tool: Tool } | undefined;

function read(): Tool {
  const text = localStorage.getItem(KEY);
  if (kept?.text === text) return kept.tool;
  let tool = USUAL;
  try {
    const parsed = text ? (JSON.parse(text) as Tool) : USUAL;
    if (parsed.ohms > 0) tool = parsed;
  } catch {
    // What another version kept and this one cannot read is as good as nothing.
  }
  kept = { text, tool };
  return tool;
}

export function useTool(): Tool {
  return useSyncExternalStore(
    (changed) => {
      listeners.add(changed);
      return () => listeners.delete(changed);
    },
    read,
    () => USUAL,
  );
}

export function keepTool(tool: Tool): void {
  localStorage.setItem(KEY, JSON.stringify(tool));
  for (const changed of listeners) changed();
}
