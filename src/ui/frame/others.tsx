"use client";
/** Who else has this job open: at a live amp two must know of each other, at the desk and in probe mode. */

import { useJob } from "../job/job-context";

/** @param large for probe mode: read from two metres, and only what matters there, that the amp is live. */
export function Others({ large = false }: { large?: boolean }) {
  const { tape, view, energyKind } = useJob();
  const names = [...new Set(tape.present.map((p) => p.who))].sort();
  // Also where it was on while nobody watched: then nobody knows that it is off.
  const live = energyKind === "live" || view.state.power?.state === "on";
  if (names.length === 0 || (large && !live)) return null;
  const pages = tape.present.length === 1 ? "on another screen" : `on ${tape.present.length} other screens`;
  const size = large ? "shrink-0 px-6 py-2 text-2xl" : "basis-full rounded px-3 py-1 text-sm";
  return live ? (
    <p role="alert" className={`bg-warning font-bold text-warning-content ${size}`}>
      ▲ {names.join(", ")} {names.length === 1 ? "has" : "have"} this LIVE amp open {pages}. Agree who works on it before a hand goes in.
    </p>
  ) : (
    <p role="status" className="soft basis-full text-sm">
      Also open {pages}: {names.join(", ")}
    </p>
  );
}
