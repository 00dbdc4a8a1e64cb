"use client";
/** An answer of the solver for what a screen shows now: asked again when its key changes, with its progress and what went wrong. */

import { useEffect, useState } from "react";

export interface Asked<T> {
  /** The last one stands until the next is there. */
  answer?: T;
  /** What the answer is to. */
  key?: string;
  /** Part that is done; undefined when nothing is under way. */
  progress?: number;
  failed: string;
}

/**
 * @param key what the answer depends on; undefined while nothing is to be asked.
 * @param ask called once for each key. An answer that comes after the key has changed is dropped.
 */
export function useAnswer<T>(key: string | undefined, ask: (progress: (part: number) => void) => Promise<T>): Asked<T> {
  const [state, setState] = useState<Asked<T>>({ failed: "" });
  useEffect(() => {
    if (key === undefined) return;
    let gone = false;
    setState((s) => ({ ...s, failed: "", progress: 0 }));
    ask((part) => !gone && setState((s) => ({ ...s, progress: part }))).then(
      (answer) => !gone && setState({ answer, key, failed: "" }),
      (error: Error) => !gone && setState((s) => ({ ...s, progress: undefined, failed: error.message })),
    );
    return () => {
      gone = true;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key says all that the question depends on
  }, [key]);
  return state;
}

/** The answer to this very question: nothing of the one before while it is under way. */
export const answerTo = <T>(asked: Asked<T>, key: string | undefined): T | undefined => (asked.key === key ? asked.answer : undefined);
