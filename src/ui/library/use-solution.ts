"use client";
/** A text that is being typed, solved as it goes. */

import { useEffect, useState } from "react";
import type { SolveConditions } from "@/core/expectation/modelled";
import type { Solution } from "@/core/expectation/solution";
import type { SolverPort } from "@/core/ports/solver-port";

/** The text once typing has paused: what takes a second to work out waits for it. */
export function usePaused(text: string | undefined): string | undefined {
  const [paused, setPaused] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setPaused(text), 700);
    return () => clearTimeout(timer);
  }, [text]);
  return paused;
}

/** A nominal solve of the text as it stands; the old answer stays, marked stale, until the new one is there. */
export function useSolution(text: string | undefined, conditions: SolveConditions, solver: SolverPort) {
  const [answer, setAnswer] = useState<{ solution?: Solution; failed?: string; of?: string }>({});
  useEffect(() => {
    if (text === undefined) return;
    let gone = false;
    const timer = setTimeout(() => {
      solver.solve(text, conditions).then(
        (solution) => !gone && setAnswer({ solution, of: text }),
        (error: Error) => !gone && setAnswer({ failed: error.message, of: text }),
      );
    }, 150);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [text, conditions, solver]);
  return { solution: answer.solution, failed: answer.failed, stale: answer.of !== text };
}
