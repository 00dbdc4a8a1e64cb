"use client";
/** The circuit file beside its drawing: the line of the part in hand is in sight, and the cursor takes a part in hand. */

import { useEffect, useRef } from "react";
import type { ReadResult } from "@/core/circuit/read";
import { CircuitEditor, type EditorHandle } from "../file/circuit-editor";

interface TextBesideProps {
  text: string;
  setText(text: string): void;
  read: ReadResult;
  /** Line of the part in hand. */
  at?: number;
  /** Told the line that somebody puts the cursor on. */
  onLine(line: number): void;
}

export function TextBeside({ text, setText, read, at, onLine }: TextBesideProps) {
  const editor = useRef<EditorHandle>(null);
  // A line that was chosen in the text itself is where the cursor is.
  const own = useRef<number>(undefined);
  useEffect(() => {
    if (at !== undefined && at !== own.current) editor.current?.goTo(at, false);
  }, [at]);
  const [wrong] = read.errors;
  return (
    <div className="min-w-0">
      <CircuitEditor
        ref={editor}
        tall
        text={text}
        setText={setText}
        read={read}
        onLine={(line) => {
          own.current = line;
          onLine(line);
        }}
      />
      <p role="status" className={wrong ? "verdict-out text-sm" : "soft text-sm"}>
        {wrong ? `■ line ${wrong.line}: found ${wrong.found}; expected ${wrong.expected}` : `${read.circuit.elements.length} parts read`}
      </p>
    </div>
  );
}
