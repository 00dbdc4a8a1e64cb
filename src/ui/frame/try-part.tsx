"use client";
/** Tries a part in the amp: the line on the tape, or why it may not be logged now. */

import { useState } from "react";
import { partTried, type Trial } from "@/core/repair/part-acts";
import { useJob } from "../job/job-context";

interface TryPartProps {
  trial(): Trial;
  label: string;
  /** What it says to the ear, where the label alone is not enough. */
  says?: string;
  className?: string;
  disabled?: boolean;
  done?(): void;
}

export function TryPart({ trial, label, says, className = "btn btn-sm min-h-11 whitespace-nowrap", disabled, done }: TryPartProps) {
  const { say, refusal } = useJob();
  const [refused, setRefused] = useState("");
  return (
    <>
      <button
        type="button"
        className={className}
        disabled={disabled}
        aria-label={says}
        onClick={() => {
          const line = partTried(trial());
          const why = refusal(line);
          setRefused(why ?? "");
          if (why !== undefined) return;
          say(line);
          done?.();
        }}
      >
        {label}
      </button>
      {refused && (
        <span role="alert" className="text-sm text-warning">
          {refused}.
        </span>
      )}
    </>
  );
}
