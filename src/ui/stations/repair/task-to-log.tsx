"use client";
/** The task whose change is to be logged next: chosen in the plan, filled in at Changes. */

import { createContext, useContext, useMemo, useState, type ReactNode } from "react";

const Chosen = createContext<{ root?: number; logChangeOf(root: number): void }>({ logChangeOf: () => undefined });

export function TaskToLogProvider({ children }: { children: ReactNode }) {
  const [root, setRoot] = useState<number>();
  const value = useMemo(
    () => ({
      root,
      logChangeOf(task: number) {
        setRoot(task);
        // Tabs follow the address.
        window.location.hash = "changes";
      },
    }),
    [root],
  );
  return <Chosen value={value}>{children}</Chosen>;
}

export const useTaskToLog = () => useContext(Chosen);
