"use client";
/** What was not logged since it may not be now: the last of it, for the form that it was typed in and for the top of the screen. */

import { createContext, useContext, useMemo, useRef, useState } from "react";

export interface Refusals {
  /** How often something was refused on this page: a form that has logged looks whether it was. */
  count(): number;
  /** Why the last one was. */
  last(): string;
  /** What the screen has to say; empty once it stands where it was typed, or something else was logged. */
  says: string;
  refuse(says: string): void;
  clear(): void;
}

const OUTSIDE: Refusals = { count: () => 0, last: () => "", says: "", refuse() {}, clear() {} };

export const RefusalContext = createContext<Refusals>(OUTSIDE);

/** Outside a job nothing is ever refused by its rules. */
export const useRefusals = (): Refusals => useContext(RefusalContext);

export function useRefusalRoom(): Refusals {
  const [says, setSays] = useState("");
  const so = useRef({ count: 0, last: "" });
  return useMemo(
    () => ({
      count: () => so.current.count,
      last: () => so.current.last,
      says,
      refuse(why) {
        so.current = { count: so.current.count + 1, last: why };
        setSays(why);
      },
      clear: () => setSays(""),
    }),
    [says],
  );
}
