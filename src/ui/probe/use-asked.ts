"use client";
/** Whether the bench knows by now which point is wanted: what the meter shows before that is another point's. */

import { useMemo, useRef } from "react";

/** Without an answer for so long the meter is believed all the same: the probe is moved by hand, not by the line. */
const LONGEST_MS = 3000;

export interface Asked {
  /** Another point is wanted from now on. */
  begin(): void;
  /** Told once the bench has it; a later point wins. */
  until(sent: Promise<void>): void;
  /** True when what the meter shows counts. */
  known(): boolean;
}

export function useAsked(): Asked {
  const since = useRef<number>(undefined);
  const turn = useRef(0);
  return useMemo(
    () => ({
      begin() {
        since.current = Date.now();
      },
      until(sent) {
        const mine = ++turn.current;
        since.current = Date.now();
        void sent.then(() => {
          if (turn.current === mine) since.current = undefined;
        });
      },
      known: () => since.current === undefined || Date.now() - since.current > LONGEST_MS,
    }),
    [],
  );
}
