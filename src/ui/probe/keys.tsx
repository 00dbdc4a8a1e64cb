"use client";
/**
 * What the keys do now, along the foot of the screen, and the keys themselves for a tablet that has none: each can be touched. "press" and
 * "hold" are the one key: space, Enter, or a foot switch.
 */

import { useEffect, useRef, useState } from "react";
import { LONG_MS, type PedalKeys } from "./pedal";

interface KeysProps {
  keys: [key: string, does: string][];
  /** What they do, as `usePedal` gives it. */
  pedal: PedalKeys;
}

/** Touched elsewhere on the screen; or, like the answer that the amp is off, never by a single touch. */
const KEYBOARD_ONLY = new Set(["1 2 3", "O"]);

const chip = "rounded border border-base-content px-2 font-mono font-bold";
const row = "flex items-baseline gap-2";

export function Keys({ keys, pedal }: KeysProps) {
  const [typing, setTyping] = useState(false);
  return (
    <div className="sticky bottom-0 mt-auto border-t border-base-300 bg-base-200">
      {typing && <Pad extra={keys.some(([key]) => key.includes("k")) ? ["k", "M"] : ["−"]} pedal={pedal} />}
      <ul aria-label="Keys" className="flex flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2 text-lg md:gap-x-8 md:px-6 md:py-3">
        {keys.map(([key, does]) => (
          <li key={key}>
            {key === "hold" ? (
              <Hold does={does} held={() => pedal.long?.()} />
            ) : KEYBOARD_ONLY.has(key) ? (
              <span className={`${row} pointer-coarse:hidden`}>
                <kbd className={chip}>{key}</kbd> {does}
              </span>
            ) : (
              <button
                tabIndex={-1}
                className={row}
                aria-expanded={key.startsWith("0–9") ? typing : undefined}
                // The focus stays where the keys are heard.
                onPointerDown={(e) => e.preventDefault()}
                onClick={() => (key.startsWith("0–9") ? setTyping(!typing) : key === "press" ? pedal.short() : pedal.other?.(nameOf(key)))}
              >
                <kbd className={chip}>{key}</kbd> {does}
              </button>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** As `KeyboardEvent.key` has it, in lower case. */
const nameOf = (key: string) => (key === "Esc" ? "escape" : key.toLowerCase());

/** Held as long as the key itself; a touch that is shorter does nothing, also not what a press would do. */
function Hold({ does, held }: { does: string; held(): void }) {
  const [holding, setHolding] = useState(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const current = useRef(held);
  useEffect(() => void (current.current = held));
  useEffect(() => () => clearTimeout(timer.current), []);
  const stop = () => {
    clearTimeout(timer.current);
    setHolding(false);
  };
  return (
    <button
      tabIndex={-1}
      className={`${row} touch-none select-none`}
      onPointerDown={(e) => {
        e.preventDefault();
        setHolding(true);
        timer.current = setTimeout(() => {
          stop();
          current.current();
        }, LONG_MS);
      }}
      onPointerUp={stop}
      onPointerLeave={stop}
      onPointerCancel={stop}
      onContextMenu={(e) => e.preventDefault()}
    >
      <kbd className={`${chip} ${holding ? "bg-primary text-primary-content" : ""}`}>hold</kbd> {does}
    </button>
  );
}

/** Digits to be touched. */
function Pad({ extra, pedal }: { extra: string[]; pedal: PedalKeys }) {
  return (
    <div role="group" aria-label="Digits" className="grid grid-cols-5 gap-2 px-4 pt-3 md:grid-cols-7 md:px-6">
      {[..."1234567890.", ...extra].map((key) => (
        <button
          key={key}
          tabIndex={-1}
          className="btn btn-lg border-base-300 bg-base-100"
          onPointerDown={(e) => e.preventDefault()}
          onClick={() => pedal.other?.(key.toLowerCase())}
        >
          {key}
        </button>
      ))}
      <button
        tabIndex={-1}
        aria-label="Take back a digit"
        className="btn btn-lg border-base-300 bg-base-100"
        onPointerDown={(e) => e.preventDefault()}
        onClick={() => pedal.other?.("backspace")}
      >
        ⌫
      </button>
    </div>
  );
}
