"use client";
/** The field for one measurement: large, taken by Enter, with the meter's display under it; what cannot be read stays, with the reason. */

import { useId, useRef, useState, type ReactNode, type RefObject } from "react";
import { useFocusOnArrival } from "./focus";
import type { NotTaken } from "./not-taken";
import { useEntryLine } from "./use-entry-line";

export interface ReadingFieldProps {
  /** With its unit: "Reading, V". */
  label: string;
  /** Logs what was typed; an empty text is given too where `empty` is set. */
  take(text: string): NotTaken | undefined;
  /** Enter on the empty field is an answer as well: take what the meter shows, or go on. */
  empty?: boolean;
  /** What the meter shows here, as a line under the field. */
  meter?: { says: string; steady: boolean };
  hint?: ReactNode;
  field?: RefObject<HTMLInputElement | null>;
  /** Arrow keys, where the form moves between points. */
  onArrow?(step: 1 | -1): void;
  /** "free": only where nothing else has the focus, for a field that appears by itself. */
  autoFocus?: boolean | "free";
  /** With a button beside it; without one the field is as wide as its place. */
  button?: string;
}

export function ReadingField({ label, take, empty, meter, hint, field, onArrow, autoFocus = true, button }: ReadingFieldProps) {
  const id = useId();
  const [text, setText] = useState("");
  const [refused, setRefused] = useState("");
  const own = useRef<HTMLInputElement>(null);
  const place = field ?? own;
  useFocusOnArrival(place, autoFocus);
  const line = useEntryLine();
  function submit(e: React.FormEvent) {
    e.preventDefault();
    const typed = text.trim();
    if (typed === "" && !empty) return;
    // "V5.g -1.5", "note …": a line of the entry line is meant, whatever is asked for here.
    const answer = line.isLine(typed) ? line.take(typed) : take(typed);
    setRefused(answer?.refused ?? "");
    if (!answer || answer.keep === false) setText("");
    // The next typing replaces what was refused.
    else place.current?.select();
  }
  const input = (
    <input
      id={id}
      ref={place}
      data-reading-field
      className={button ? "input h-14 w-40 text-right text-2xl tabular-nums" : "input h-16 w-full text-right text-3xl tabular-nums"}
      inputMode="decimal"
      autoComplete="off"
      value={text}
      aria-invalid={refused !== ""}
      aria-describedby={`${id}-meter ${id}-refused`}
      onChange={(e) => {
        setText(e.target.value);
        setRefused("");
      }}
      onKeyDown={(e) => {
        if (!onArrow || (e.key !== "ArrowDown" && e.key !== "ArrowUp")) return;
        e.preventDefault();
        onArrow(e.key === "ArrowDown" ? 1 : -1);
      }}
    />
  );
  const below = (
    <>
      {meter && (
        <p id={`${id}-meter`} data-testid="meter-here" data-steady={meter.steady} className={`text-sm ${meter.steady ? "" : "soft"}`}>
          {meter.says}
        </p>
      )}
      <p id={`${id}-refused`} role="alert" className={`text-sm text-error ${button ? "basis-full" : "min-h-5"}`}>
        {refused}
      </p>
    </>
  );
  if (!button)
    return (
      <form onSubmit={submit}>
        <label className="text-sm" htmlFor={id}>
          {label}
        </label>
        {input}
        {below}
        {hint}
      </form>
    );
  return (
    <form className="mt-2 flex flex-wrap items-end gap-3" onSubmit={submit}>
      <div>
        <label className="mb-1 block text-sm" htmlFor={id}>
          {label}
        </label>
        {input}
      </div>
      <button className="btn btn-primary h-14" disabled={!empty && text.trim() === ""}>
        {button}
      </button>
      {hint && <p className="soft pb-4">{hint}</p>}
      {below}
    </form>
  );
}
