"use client";
/** A form for one figure: large, taken by Enter; what cannot be read stays in the field with the reason. */

import { useState } from "react";
import { Field } from "./section";

export interface OneReadingProps {
  label: string;
  hint?: string;
  /** Logs what was typed. @returns why it was refused or is not good enough, and whether it stays in the field. */
  take(text: string): { refused: string; keep: boolean } | undefined;
}

export function OneReading({ label, hint, take }: OneReadingProps) {
  const [text, setText] = useState("");
  const [refused, setRefused] = useState("");
  function submit(e: React.FormEvent) {
    e.preventDefault();
    const answer = take(text);
    setRefused(answer?.refused ?? "");
    if (!answer?.keep) setText("");
  }
  return (
    <form className="mt-2 flex flex-wrap items-end gap-3" onSubmit={submit}>
      <Field label={label}>
        <input
          autoFocus
          className="input h-14 w-40 text-right text-2xl tabular-nums"
          autoComplete="off"
          value={text}
          aria-invalid={refused !== ""}
          onChange={(e) => {
            setText(e.target.value);
            setRefused("");
          }}
        />
      </Field>
      <button className="btn btn-primary h-14" disabled={text.trim() === ""}>
        Log it
      </button>
      {hint && <p className="soft pb-4">{hint}</p>}
      {refused && (
        <p role="alert" className="basis-full text-error">
          {refused}
        </p>
      )}
    </form>
  );
}
