"use client";
/** The meter at one point: asked for there, held, and what it shows in words. */

import { useEffect, useRef, useState } from "react";
import { digitsOf } from "@/core/instrument/held-reading";
import { feedHold, startHold, type HoldState } from "@/core/instrument/hold";
import type { ReadingKind } from "@/core/tape/events/words";
import { tellReading } from "@/core/tape/tell";
import type { EvidenceKind } from "@/core/diagnosis/evidence";
import { useInstruments } from "./use-instruments";

/** A hold and the point that it is of. */
interface Held {
  asked: string;
  hold: HoldState;
}

/** A person who saw "steady" and pressed the key gets it, though the display moved on meanwhile. */
const REACTION_MS = 1000;

/**
 * What the meter shows at a point that was asked for, and whether it stands still.
 * @param off true where nothing is asked of the meter: another part of the screen has it.
 */
export function useMeterAt(point: string, kind: EvidenceKind, expected: number | undefined, range?: number, off = false) {
  const asked = `${kind} ${point}`;
  const begun = (): Held => ({ asked, hold: startHold({ expected }) });
  const [seen, setSeen] = useState(begun);
  const holding = useRef(seen);
  const still = useRef<Held & { at: number }>(undefined);
  /** Begins anew for this point. What lay under the probe before is not this point's: the display has to leave it first. */
  const change = () => {
    const { samples, leave } = holding.current.hold;
    const shown = samples.at(-1);
    const left = shown?.value === undefined ? leave : startHold({}, { value: shown.value, digit: shown.digit }).leave;
    holding.current = { asked, hold: { ...startHold({ expected }), ...(left ? { leave: left } : {}) } };
  };
  const { meter, heard, send } = useInstruments((line, anew) => {
    if (line.kind !== kind) return;
    if (anew) holding.current = begun();
    else if (holding.current.asked !== asked) change();
    holding.current = { asked, hold: feedHold(holding.current.hold, line) };
    if (holding.current.hold.phase === "held") still.current = { ...holding.current, at: Date.now() };
    setSeen(holding.current);
  });
  useEffect(() => {
    if (heard === "waiting" || kind === "observe" || kind === "temp" || off) return;
    change();
    void send({ tell: "want", point, kind: kind as ReadingKind, ...(range ? { range } : {}) });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- by what is asked of the meter; what is done then is of the same render
  }, [point, kind, expected, range, heard, send, off]);
  // Until a line of this point has come, what was held at the one before must not be offered here.
  const hold = seen.asked === asked ? seen.hold : startHold({ expected });
  const there = heard === "heard" && meter?.kind === kind && hold.value !== undefined && meter.value !== undefined;
  /** What a key takes now: undefined where nothing stands still at this point, or did until a moment ago. */
  const toTake = () => {
    const last = still.current;
    return heard === "heard" && last?.asked === asked && Date.now() - last.at <= REACTION_MS ? last.hold : undefined;
  };
  return {
    toTake,
    over: heard === "heard" && meter?.kind === kind && meter.over === true,
    steady: there && hold.phase === "held",
    shows: there
      ? tellReading({ point: "", kind: kind as ReadingKind, value: meter.value!, digits: digitsOf(meter.value!, meter.digit) }).trim()
      : undefined,
  };
}
