"use client";
/** The desk frame of a job: guard on top, rail at the left, the sheet, the tape at the right. */

import { useEffect, useRef, useState, type ReactNode } from "react";
import { findStation, type StationId } from "@/core/tape/stations";
import { ProbeLink } from "./probe-link";
import { LARGE_ROOM } from "../drawing/large";
import { useArrival } from "./arrival";
import { BeyondAgreed } from "./beyond-agreed";
import { Guard } from "./guard";
import { Help } from "./help";
import { LeftOut } from "./left-out";
import { NotLogged } from "./not-logged";
import { useJob } from "../job/job-context";
import { useLateParts } from "../forms/late";
import { Rail } from "./rail";
import { StationKeys } from "./station-keys";
import { TapeColumn } from "./tape";
import { TimerStrip } from "./timer-strip";

export function JobFrame({ station, children }: { station: StationId; children: ReactNode }) {
  const found = findStation(station)!;
  const { name, purpose } = found;
  const { view } = useJob();
  // Says that the page answers to keys by now: for scripts that drive it.
  const [ready, setReady] = useState(false);
  useEffect(() => setReady(true), []);
  useLateParts();
  const main = useRef<HTMLElement>(null);
  const heading = useRef<HTMLHeadingElement>(null);
  useArrival(main, heading, station);
  return (
    <div data-ready={ready || undefined} className="flex min-h-dvh flex-col max-md:pb-32 md:h-dvh">
      <Guard />
      <div className="relative flex min-h-0 flex-1 flex-col md:flex-row">
        <Rail current={station} />
        <StationKeys current={station} />
        <main ref={main} className="min-w-0 flex-1 overflow-y-auto px-4 py-3" aria-label={name}>
          <div className="mb-3 flex min-h-11 items-center gap-3">
            <h1 ref={heading} tabIndex={-1} className="text-xl font-bold focus:outline-none">
              {name}
            </h1>
            <p className="soft text-sm">{purpose}</p>
            <Help station={found} />
            {(station === "walk" || station === "suspects") && view.rows.length > 0 && (
              <ProbeLink order={station === "suspects" ? "suspects" : "movement"} />
            )}
            {station === "make-safe" && <ProbeLink order="safe" label="Hands-free" />}
            {station === "cold-checks" && view.circuit && <ProbeLink order="cold" />}
          </div>
          <NotLogged />
          <LeftOut />
          <TimerStrip />
          {children}
        </main>
        <BeyondAgreed />
        <TapeColumn station={station} />
        {/* A drawing that is made large lies here: under the guard, which stays in sight. */}
        <div id={LARGE_ROOM} />
      </div>
    </div>
  );
}
