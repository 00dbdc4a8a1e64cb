"use client";
/** What the solver has found so far, by circuit and conditions; asks for what a screen looked up and did not find. */

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { solveKey, type SolveConditions, type Solved } from "@/core/expectation/modelled";
import type { SolvedFor } from "@/core/job/job-view";
import type { SolverPort } from "@/core/ports/solver-port";

export interface SolvedState {
  lookupFor: SolvedFor;
  /** Part of the running solve that is done, 0 to 1; undefined when none runs. */
  progress?: number;
  /** Why the last solve gave nothing. */
  failed?: string;
}

interface Question {
  netlist: string;
  conditions: SolveConditions;
}

/** The lookup changes its identity whenever an answer has come, so that what depends on it is worked out anew. */
export function useSolved(solver: SolverPort | undefined): SolvedState {
  const [answers, setAnswers] = useState<ReadonlyMap<string, Solved>>(new Map());
  const [progress, setProgress] = useState<number>();
  const [failed, setFailed] = useState<string>();
  const wanted = useRef(new Map<string, Question>());
  const asked = useRef(new Set<string>());

  const lookupFor = useCallback<SolvedFor>(
    (netlist) => (conditions) => {
      const key = `${netlist}\n${solveKey(conditions)}`;
      const found = answers.get(key);
      if (!found) wanted.current.set(key, { netlist, conditions });
      return found;
    },
    [answers],
  );

  // After every render: whatever was looked up in it and not found is asked for, once.
  // eslint-disable-next-line react-hooks/exhaustive-deps -- what is asked once is not asked again, so it ends
  useEffect(() => {
    if (!solver) return;
    for (const [key, { netlist, conditions }] of wanted.current) {
      if (asked.current.has(key)) continue;
      asked.current.add(key);
      setProgress((p) => p ?? 0);
      setFailed(undefined);
      solver
        .expected(netlist, conditions, setProgress)
        .then(
          (answer) => setAnswers((old) => new Map([...old, [key, answer]])),
          (error: Error) => setFailed(error.message),
        )
        .finally(() => setProgress(undefined));
    }
    wanted.current.clear();
  });

  return useMemo(() => ({ lookupFor, progress, failed }), [lookupFor, progress, failed]);
}
