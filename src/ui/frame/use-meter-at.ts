"use client";
/** The meter at one point: asked for there, held, and what it shows in words. */

import { useEffect, useRef, useState } from "react";
import { digitsOf } from "@/core/instrument/held-reading";
import { feedHold, startHold, type HoldState } from "@/core/instrument/hold";
import type { ReadingKind } from "@/core/job/events/words";
import { tellReading } from "@/core/job/tell";
import type { EvidenceKind } from "@/core/suspects/evidence";
import { useInstruments } from "./use-instruments";

/**
 * What the meter shows at a point that was asked for, and whether it stands still.
 * @param off true where nothing is asked of the meter: another part of the screen has it.
 */
export function useMeterAt(point: string, kind: EvidenceKind, expected: number | undefined, range?: number, off = false) {
  const [hold, setHold] = useState<HoldState>(() => startHold({ expected }));
  const holding = useRef(hold);
  const { meter, heard, send } = useInstruments((line, anew) => {
    if (line.kind !== kind) return;
    holding.current = feedHold(anew ? startHold({ expected }) : holding.current, line);
    setHold(holding.current);
  });
  useEffect(() => {
    if (heard === "waiting" || kind === "observe" || kind === "temp" || off) return;
    const shown = holding.current.samples.at(-1);
    // What lay under the probe before is not this point's.
    holding.current = startHold({ expected }, shown?.value === undefined ? undefined : { value: shown.value, digit: shown.digit });
    send({ tell: "want", point, kind: kind as ReadingKind, ...(range ? { range } : {}) });
  }, [point, kind, expected, range, heard, send, off]);
  const there = heard === "heard" && meter?.kind === kind && hold.value !== undefined && meter.value !== undefined;
  return {
    hold,
    over: heard === "heard" && meter?.kind === kind && meter.over === true,
    steady: there && hold.phase === "held",
    shows: there
      ? tellReading({ point: "", kind: kind as ReadingKind, value: meter.value!, digits: digitsOf(meter.value!, meter.digit) }).trim()
      : undefined,
  };
}
