"use client";
/**
 * What all modes of the probe have in common: the display of the meter at one place after another, held once it stands still, and a value
 * that is typed instead.
 */

import { useEffect, useRef, useState } from "react";
import { feedHold, startHold, type HoldOptions, type HoldState } from "@/core/instrument/hold";
import type { WantLine } from "@/core/instrument/protocol";
import type { ReadingKind } from "@/core/tape/events/words";
import { useInstruments, type Instruments } from "../job/use-instruments";
import { useAsked } from "./use-asked";
import type { Sound } from "./sound";

/** More than these are no reading. */
const MOST_TYPED = 9;

export interface HoldOfProbe {
  hold: HoldState;
  /** What it is at this moment: between two renderings the meter may have sent another line. */
  current(): HoldState;
  instruments: Instruments;
  typed: string;
  refused: string;
  refuse(why: string): void;
  /**
   * A new step: nothing typed, nothing refused, the hold from its beginning.
   * @param place where the probe is wanted. @param leave what the display shows now belongs to the step before and has to be seen to go.
   */
  begin(place: string | undefined, leave: boolean, options?: Partial<HoldOptions>): void;
  /** The hold from its beginning, at the same place; what is being typed stays. */
  again(options?: Partial<HoldOptions>): void;
  /** Keys that every mode has. True when the key was used up. */
  key(key: string): boolean;
}

export interface HoldAsked {
  /** Told to the bench; undefined while nothing is to be read, then what the meter sends is not listened to. */
  want?: Omit<WantLine, "n" | "tell"> & { kind: ReadingKind };
  /** The bench is told already, but what the meter sends does not count yet. */
  waits?: boolean;
  /** The display stands still. */
  held(): void;
  /** The first line after a silence: nobody knows where the probe has been. The hold begins anew unless this does it. */
  anew?(): void;
  /** Characters that can be typed, besides digits and the decimal sign. */
  letters?: string;
  sound: Sound;
}

export function useHold({ want, waits = false, held, anew, letters = "", sound }: HoldAsked): HoldOfProbe {
  const [hold, setHold] = useState<HoldState>(() => startHold());
  const holding = useRef(hold);
  const place = useRef<string>(undefined);
  const [typed, setTyped] = useState("");
  const [refused, setRefused] = useState("");
  const asked = useAsked();
  const put = (next: HoldState) => {
    holding.current = next;
    setHold(next);
  };

  const instruments = useInstruments((line, first) => {
    if (!want || waits || line.kind !== want.kind || !asked.known()) return;
    if (first) (anew ?? (() => put(startHold())))();
    put(feedHold(holding.current, line));
    if (holding.current.phase === "held") held();
  });
  const { heard, send } = instruments;
  const wanted = want && JSON.stringify(want);
  useEffect(() => {
    if (wanted !== undefined && heard !== "waiting")
      asked.until(send({ tell: "want", ...(JSON.parse(wanted) as NonNullable<typeof want>) }));
  }, [wanted, heard, send, asked]);

  return {
    hold,
    current: () => holding.current,
    instruments,
    typed,
    refused,
    refuse: setRefused,
    begin(next, leave, options = {}) {
      if (next !== place.current) asked.begin();
      place.current = next;
      const { samples, value } = holding.current;
      const shown = samples.at(-1);
      put(startHold(options, leave && shown?.value !== undefined ? { value: value ?? shown.value, digit: shown.digit } : undefined));
      setTyped("");
      setRefused("");
    },
    again: (options = {}) => put(startHold(options)),
    key(key) {
      if (key === "escape" && typed) setTyped("");
      else if (key.length === 1 && `0123456789.,${letters}`.toLowerCase().includes(key)) {
        // As it is written: M for megohms, though a key is told in lower case.
        const as = [...letters].find((l) => l.toLowerCase() === key) ?? key;
        setTyped((t) => (t.length < MOST_TYPED ? t + as : t));
      } else if (key === "backspace" && typed) setTyped((t) => t.slice(0, -1));
      else if (key === "v") sound.toggleSpeech();
      else if (key === "t") sound.toggleTone();
      else return false;
      return true;
    },
  };
}
