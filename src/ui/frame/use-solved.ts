"use client";
/** What the solver has found for a circuit so far; asks for what a screen looked up and did not find. */

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { SolverPort } from "@/core/solver/port";
import { solveKey, type SolveConditions, type Solved, type SolvedLookup } from "@/core/walk/modelled";

export interface SolvedState {
  lookup: SolvedLookup;
  /** Part of the running solve that is done, 0 to 1; undefined when none runs. */
  progress?: number;
  /** Why the last solve gave nothing. */
  failed?: string;
}

/** The lookup changes its identity whenever an answer has come, so that what depends on it is worked out anew. */
export function useSolved(netlist: string | undefined, solver: SolverPort | undefined): SolvedState {
  const [solved, setSolved] = useState<{ netlist?: string; answers: ReadonlyMap<string, Solved> }>({ answers: new Map() });
  const [progress, setProgress] = useState<number>();
  const [failed, setFailed] = useState<string>();
  const wanted = useRef(new Map<string, SolveConditions>());
  const asked = useRef(new Set<string>());
  const answers = solved.netlist === netlist ? solved.answers : undefined;

  const lookup = useCallback<SolvedLookup>(
    (conditions) => {
      const key = solveKey(conditions);
      const found = answers?.get(key);
      if (!found) wanted.current.set(key, conditions);
      return found;
    },
    [answers],
  );

  // Another circuit: what was asked of the old one is of no use.
  useEffect(() => {
    asked.current = new Set();
    setFailed(undefined);
  }, [netlist]);

  // After every render: whatever was looked up in it and not found is asked for, once.
  // eslint-disable-next-line react-hooks/exhaustive-deps -- what is asked once is not asked again, so it ends
  useEffect(() => {
    if (!solver || netlist === undefined) return;
    for (const [key, conditions] of wanted.current) {
      if (asked.current.has(key)) continue;
      asked.current.add(key);
      setProgress((p) => p ?? 0);
      solver
        .expected(netlist, conditions, setProgress)
        .then(
          (answer) =>
            setSolved((old) => ({
              netlist,
              answers: new Map([...(old.netlist === netlist ? old.answers : []), [key, answer]]),
            })),
          (error: Error) => setFailed(error.message),
        )
        .finally(() => setProgress(undefined));
    }
    wanted.current.clear();
  });

  return useMemo(() => ({ lookup, progress, failed }), [lookup, progress, failed]);
}
