"use client";
/** A part's name in a list of a station: pressed, it is in hand on the drawing as well. Plain text where the circuit has no such part. */

import type { ReactNode } from "react";
import { useJob } from "../job/job-context";
import { partsNamed } from "./parts-named";

export function PartButton({ name, children }: { name: string; children?: ReactNode }) {
  const { view, inHand, setInHand } = useJob();
  const parts = view.circuit ? partsNamed(view.circuit, name.trim().toUpperCase()) : [];
  const [part] = parts;
  if (part === undefined) return <>{children ?? name}</>;
  const here = inHand !== undefined && "part" in inHand && parts.includes(inHand.part);
  return (
    <button
      className={`min-h-9 text-left underline decoration-dotted underline-offset-4 ${here ? "text-primary" : ""}`}
      aria-pressed={here}
      title="Show it on the drawing"
      onClick={() => setInHand({ part })}
    >
      {children ?? name}
    </button>
  );
}
