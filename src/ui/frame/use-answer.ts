"use client";
/** An answer of the solver for what a screen shows now: asked again when its key changes, with its progress and what went wrong. */

import { useEffect, useState } from "react";

export interface Asked<T> {
  answer?: T;
  /** Part that is done; undefined when nothing is under way. */
  progress?: number;
  failed: string;
}

/**
 * @param key what the answer depends on; undefined while nothing is to be asked.
 * @param ask called once for each key. An answer that comes after the key has changed is dropped.
 */
export function useAnswer<T>(key: string | undefined, ask: (progress: (part: number) => void) => Promise<T>): Asked<T> {
  const [state, setState] = useState<Asked<T> & { key?: string }>({ failed: "" });
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
