"use client";
/** Who else has this job open: at a live amp two must know of each other, at the desk and in probe mode. */

import { useJob } from "./job-context";

export function Others() {
  const { tape, energyKind } = useJob();
  const names = [...new Set(tape.present.map((p) => p.who))].sort();
  if (names.length === 0) return null;
  const pages = tape.present.length === 1 ? "on another screen" : `on ${tape.present.length} other screens`;
  return energyKind === "live" ? (
    <p role="alert" className="basis-full rounded bg-warning px-3 py-1 text-sm font-bold text-warning-content">
      ▲ {names.join(", ")} {names.length === 1 ? "has" : "have"} this LIVE amp open {pages}. Agree who works on it before a hand goes in.
    </p>
  ) : (
    <p role="status" className="soft basis-full text-sm">
      Also open {pages}: {names.join(", ")}
    </p>
  );
}
