"use client";
/** Hands-in stations want the amp proven dead. Going past is possible, with a reason that lands on the tape. */

import Link from "next/link";
import type { ReactNode } from "react";
import { ShieldAlert } from "lucide-react";
import { gateOpen } from "@/core/safety/gates-passed";
import type { StationId } from "@/core/tape/stations";
import { useEnergy, useJob } from "../job/job-context";
import { lateInBrowser } from "../forms/late";
import { energyWords } from "../job/words";

const GatePass = lateInBrowser(() => import("./gate-pass").then((m) => m.GatePass));

/** A pass holds until the energy of the amp may have changed. */
export function useGateOpen(station: StationId): boolean {
  const { view } = useJob();
  const { energy } = useEnergy();
  return gateOpen(view.state, energy.kind, station);
}

export function Gate({ station, children }: { station: StationId; children: ReactNode }) {
  const { view, jobId } = useJob();
  const { energy } = useEnergy();
  const open = useGateOpen(station);
  const { title, detail } = energyWords(energy);
  return (
    <>
      {!open && (
        <section className="mb-4 rounded border-2 border-warning p-4" aria-label="Gate">
          <h2 className="flex items-center gap-2 text-lg font-bold">
            <ShieldAlert aria-hidden className="text-warning" /> Do not reach inside: the amp is not proven dead
          </h2>
          <p className="mt-1">
            {title}: {detail}
          </p>
          <div className="mt-3 flex flex-wrap items-end gap-3">
            <Link href={`/jobs/${jobId}/make-safe`} className="btn btn-primary" data-arrival>
              Make safe first
            </Link>
            {energy.kind !== "live" && view.state.power?.state !== "on" && <GatePass station={station} />}
          </div>
        </section>
      )}
      <div className={open ? "" : "opacity-60"} inert={!open}>
        {children}
      </div>
    </>
  );
}
