"use client";
/** Copies a text; where the browser forbids that, it is shown to be copied by hand. */

import { useState } from "react";

export function CopyText({ text, label }: { text: string; label: string }) {
  const [state, setState] = useState<"" | "copied" | "by hand">("");
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      setState("copied");
    } catch {
      setState("by hand");
    }
  };
  return (
    <>
      <button className="btn" onClick={() => void copy()}>
        {label}
      </button>
      {state === "copied" && <span role="status">Copied.</span>}
      {state === "by hand" && (
        <textarea
          aria-label="Text of the message"
          className="textarea h-40 w-full"
          readOnly
          value={text}
          onFocus={(e) => e.target.select()}
        />
      )}
    </>
  );
}
