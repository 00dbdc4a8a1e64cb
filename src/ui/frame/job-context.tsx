"use client";
/** One job for all the components of its screens: the tape, what follows from it, and the clock. */

import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from "react";
import { wallVolts } from "@/core/circuit/line";
import { experimentsIn, netlistInUse } from "@/core/circuit/in-use";
import { readCircuit } from "@/core/circuit/read";
import { unwatched, type EnergyState } from "@/core/job/energy";
import type { EntryContext } from "@/core/job/entry/entry";
import type { Conditions } from "@/core/job/events/bench";
import type { JobEvent } from "@/core/job/events/event";
import { conditionsNow, foldJob } from "@/core/job/fold";
import { energyOf, stationMarks, viewJob, type JobView, type StationMark } from "@/core/job/job-view";
import type { Settings } from "@/core/job/settings";
import type { StationId } from "@/core/job/stations";
import type { ShopHistory } from "@/core/suspects/history";
import type { SoundsPort } from "@/core/noise/sounds-port";
import type { SolverPort } from "@/core/solver/port";
import type { InstrumentPort } from "./instrument-port";
import type { JobPort } from "./job-port";
import { useWatched } from "./use-watched";
import { useSolved, type SolvedState } from "./use-solved";
import { clockTime } from "./words";
import { useTape, type Tape } from "./use-tape";

export interface JobValue {
  jobId: number;
  settings: Settings;
  view: JobView;
  energy: EnergyState;
  /** Seconds for which nobody watched an amp that the tape has live: the guard asks. */
  away?: number;
  marks: Record<StationId, StationMark>;
  /** Milliseconds since 1970 by the server's clock; ticks once a second. */
  now: number;
  tape: Tape;
  say: Tape["say"];
  port: JobPort;
  /** Switches and controls as they stand, for the readings to come. */
  stands: { switches: string; controls: string };
  setStands(s: { switches: string; controls: string }): void;
  conditions: Conditions;
  entryContext(station: StationId): EntryContext;
  modelName?: string;
  modelId?: number;
  netlist?: string;
  solver?: SolverPort;
  instruments?: InstrumentPort;
  sounds?: SoundsPort;
  /** What the shop replaced in other amps of this model. */
  shopHistory?: ShopHistory;
  /** How the solver of this amp's circuit is doing. */
  solved: SolvedState;
}

const JobContext = createContext<JobValue | undefined>(undefined);

export function useJob(): JobValue {
  const job = useContext(JobContext);
  if (!job) throw new Error("useJob outside a job");
  return job;
}

export interface JobProviderProps {
  jobId: number;
  events: JobEvent[];
  netlist?: string;
  modelName?: string;
  modelId?: number;
  settings: Settings;
  serverNow: string;
  who: string;
  port: JobPort;
  solver?: SolverPort;
  instruments?: InstrumentPort;
  sounds?: SoundsPort;
  shopHistory?: ShopHistory;
  children: ReactNode;
}

export function JobProvider({
  jobId,
  events,
  netlist: model,
  modelName,
  modelId,
  settings,
  serverNow,
  who,
  port,
  solver,
  instruments,
  sounds,
  shopHistory,
  children,
}: JobProviderProps) {
  // The server's clock decides; the first render uses its time so that both sides draw the same.
  const [clock, setClock] = useState(0);
  const [now, setNow] = useState(() => Date.parse(serverNow));
  useEffect(() => {
    const offset = Date.parse(serverNow) - Date.now();
    // Transit and rendering make small offsets; only a clock that is really wrong is corrected.
    const used = Math.abs(offset) > 10_000 ? offset : 0;
    setClock(used);
    const timer = setInterval(() => setNow(Date.now() + used), 1000);
    return () => clearInterval(timer);
  }, [serverNow]);

  const tape = useTape(jobId, events, port, who, clock);
  // What is tried in the amp is in its circuit too, until it is put back.
  const tried = useMemo(() => experimentsIn(foldJob(tape.events)).join("\n"), [tape.events]);
  const netlist = useMemo(
    () => (model === undefined ? undefined : netlistInUse(model, tried.split("\n").filter(Boolean)).netlist),
    [model, tried],
  );
  const circuit = useMemo(() => (netlist === undefined ? undefined : readCircuit(netlist).circuit), [netlist]);
  const minute = Math.floor(now / 60_000);
  const solved = useSolved(netlist, solver);
  const view = useMemo(
    () => viewJob(tape.events, circuit, settings, minute * 60_000, solved.lookup),
    [tape.events, circuit, settings, minute, solved.lookup],
  );
  const byTape = useMemo(() => energyOf(view, now), [view, now]);
  const answered = view.state.effective.findLast((e) => e.type === "still-live" || e.type === "power")?.seq ?? 0;
  const away = useWatched(jobId, byTape.kind === "live", view.state.lastAt, answered);
  const energy = useMemo(
    () =>
      away !== undefined && byTape.kind === "live" ? unwatched(clockTime(byTape.since), view.state.effective, view.energyContext) : byTape,
    [away, byTape, view],
  );
  const marks = useMemo(() => stationMarks(view, energy, settings), [view, energy, settings]);
  const [stands, setStands] = useState({ switches: "", controls: "" });

  const value = useMemo((): JobValue => {
    const conditions: Conditions = { ...conditionsNow(view.state, now) };
    if (stands.switches) conditions.switches = stands.switches;
    if (stands.controls) conditions.controls = stands.controls;
    return {
      jobId,
      settings,
      view,
      energy,
      away,
      marks,
      now,
      tape,
      say: tape.say,
      port,
      stands,
      setStands,
      conditions,
      modelName,
      modelId,
      netlist,
      solver,
      instruments,
      sounds,
      shopHistory,
      solved,
      entryContext: (station) => ({
        circuit,
        reservoirs: view.reservoirs,
        energy: energy.kind,
        state: view.state,
        conditions,
        station,
        decimal: settings.decimal,
        wall: wallVolts(circuit, settings.mainsVolts),
      }),
    };
  }, [
    jobId,
    settings,
    view,
    energy,
    away,
    marks,
    now,
    tape,
    port,
    stands,
    circuit,
    modelName,
    modelId,
    solved,
    netlist,
    solver,
    instruments,
    sounds,
    shopHistory,
  ]);

  return <JobContext.Provider value={value}>{children}</JobContext.Provider>;
}
