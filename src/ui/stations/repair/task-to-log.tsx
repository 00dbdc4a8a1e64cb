"use client";
/** The task whose change is to be logged next: chosen in the plan, filled in at Changes. */

import { createContext, useContext, useMemo, useState, type ReactNode } from "react";

const Chosen = createContext<{ task?: { root: number }; logChangeOf(root: number): void }>({ logChangeOf: () => undefined });

export function TaskToLogProvider({ children }: { children: ReactNode }) {
  const [task, setTask] = useState<{ root: number }>();
  const value = useMemo(
    () => ({
      task,
      logChangeOf(root: number) {
        setTask({ root });
        // Tabs follow the address.
        window.location.hash = "changes";
      },
    }),
    [task],
  );
  return <Chosen value={value}>{children}</Chosen>;
}

export const useTaskToLog = () => useContext(Chosen);
