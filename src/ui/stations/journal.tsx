"use client";
/** A station whose reasoning Scutum does not compute yet: its findings are kept where they belong, and said to be all. */

import type { StationId } from "@/core/job/stations";
import { Findings } from "./findings";

export function Journal({ station, says }: { station: StationId; says: string }) {
  return (
    <div className="max-w-4xl">
      <p className="mb-4 rounded border border-dashed border-base-content/50 p-4">{says}</p>
      <Findings station={station} />
    </div>
  );
}
