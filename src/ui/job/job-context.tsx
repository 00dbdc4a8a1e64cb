"use client";
/**
 * One job for all the components of its screens, in three parts that change at three paces: the job itself (a line was logged, a solve
 * came back), its energy state, and the clock that ticks every second. A component is drawn again only for what it uses.
 */

import { firstRefusal } from "@/core/allowed/job-now";
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { wallVolts } from "@/core/circuit/mains-connection";
import type { EntryContext } from "@/core/entry/entry";
import { energyOf, viewJob, type JobView } from "@/core/job/job-view";
import { stationMarks, type StationMark } from "@/core/job/station-marks";
import type { DrawingPort } from "@/core/ports/drawing-port";
import type { CapacitorPort } from "@/core/ports/capacitor-port";
import type { OutputPort } from "@/core/ports/output-port";
import type { SoundsPort } from "@/core/ports/sounds-port";
import type { SolverPort } from "@/core/ports/solver-port";
import { provenBy, unasked, unwatched, type EnergyState } from "@/core/safety/energy";
import type { Role } from "@/core/shop/people";
import type { PointPlace } from "@/core/shop/point-places";
import type { BadName } from "@/core/shop/bad-names";
import { shopDay } from "@/core/shop/day";
import type { Settings } from "@/core/shop/settings";
import type { ShopHistory } from "@/core/suspects/history";
import type { Conditions } from "@/core/tape/events/measuring-events";
import type { EventDraft, JobEvent } from "@/core/tape/events/event";
import { conditionsNow } from "@/core/tape/fold";
import type { StationId } from "@/core/tape/stations";
import type { InstrumentPort } from "./instrument-port";
import type { JobPort } from "./job-port";
import type { PartsPort } from "./parts-port";
import { RefusalContext, useRefusalRoom } from "./refusals";
import type { StockPort } from "./stock-port";
import { useAgreed, type Held } from "./use-agreed";
import { useServerClock } from "./use-server-clock";
import { useSolved, type SolvedState } from "./use-solved";
import { useTape, type Tape } from "./use-tape";
import { useWatched } from "./use-watched";
import { clockTime } from "./words";

/** What does not change during a visit. */
export interface JobServices {
  jobId: number;
  settings: Settings;
  modelName?: string;
  modelId?: number;
  port: JobPort;
  solver?: SolverPort;
  output?: OutputPort;
  capacitors?: CapacitorPort;
  stock?: StockPort;
  parts?: PartsPort;
  instruments?: InstrumentPort;
  sounds?: SoundsPort;
  drawings?: DrawingPort;
  /** What the shop replaced in other amps of this model. */
  shopHistory?: ShopHistory;
  /** Parts that have a bad name in the shop, as they stood when the page was made. */
  badNames?: BadName[];
  /** Of who is signed in; undefined where nobody has to. */
  role?: Role;
  /** Where the page was drawn from what this browser keeps, without the server: when the server was last in touch, ISO. */
  keptAt?: string;
}

export interface JobValue extends JobServices {
  view: JobView;
  /** Initials of who is at this bench. */
  who: string;
  /** The file of the circuit in use. */
  netlist?: string;
  /** The energy state without its figures: it changes when power does, not with each falling volt. */
  energyKind: EnergyState["kind"];
  marks: Record<StationId, StationMark>;
  tape: Tape;
  /**
   * Logs lines. What may not be logged now is not, and the screen says why; a change that goes beyond what was agreed with the owner is
   * held until somebody says why, or asks them.
   */
  say: Tape["say"];
  held?: Held;
  /** Why lines may not be logged now, by the rule that the server asks too; undefined where they may. */
  refusal(...drafts: EventDraft[]): string | undefined;
  /** Test points that are marked on photos of the model's chassis. */
  places: PointPlace[];
  /** Marks a point, or takes its mark away. Rejects as the port does. */
  mark(place: PointPlace | { point: string }): Promise<void>;
  /** Switches and controls as they stand, for the readings to come. */
  stands: { switches: string; controls: string };
  setStands(s: { switches: string; controls: string }): void;
  conditions: Conditions;
  entryContext(station: StationId): EntryContext;
  /** The part or the node that is looked at, on the drawing and in the lists of every station. */
  inHand?: InHand;
  setInHand(at: InHand | undefined): void;
  /** How the solver of this amp's circuit is doing. */
  solved: SolvedState;
}

/** A part by its name in the circuit file ("XV1A"), or a node. */
export type InHand = { part: string } | { node: string };

export interface EnergyValue {
  energy: EnergyState;
  /** Seconds for which nobody watched an amp that the tape has live: the guard asks. */
  away?: number;
}

const JobContext = createContext<JobValue | undefined>(undefined);
const EnergyContext = createContext<EnergyValue | undefined>(undefined);
const ClockContext = createContext<number | undefined>(undefined);

function inJob<T>(value: T | undefined): T {
  if (value === undefined) throw new Error("used outside a job");
  return value;
}

export const useJob = (): JobValue => inJob(useContext(JobContext));

/** For a component that stands in a job and elsewhere too. */
export const useJobIfAny = (): JobValue | undefined => useContext(JobContext);

/** The energy state; while charge falls it changes every second. */
export const useEnergy = (): EnergyValue => inJob(useContext(EnergyContext));

/** Milliseconds since 1970 by the server's clock; ticks once a second. */
export const useNow = (): number => inJob(useContext(ClockContext));

/** The day at the shop, "2026-03-02", by the server's clock. */
export const useToday = (): string => shopDay(useNow(), useJob().settings.timeZone);

/** The same object for as long as its content is the same. */
function useStable<T>(value: T): T {
  const key = JSON.stringify(value);
  // eslint-disable-next-line react-hooks/exhaustive-deps -- by content
  return useMemo(() => value, [key]);
}

export interface JobProviderProps extends JobServices {
  events: JobEvent[];
  /** Test points that are marked on photos of the model's chassis. */
  marked?: PointPlace[];
  /** Circuit file of the job's model. */
  netlist?: string;
  serverNow: string;
  who: string;
  children: ReactNode;
}

export function JobProvider({ events, marked, netlist: model, serverNow, who, children, ...given }: JobProviderProps) {
  const { jobId, settings, port, solver } = given;
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the fields of `given`, one by one
  const services = useMemo(() => given, Object.values(given));
  const { now, offset } = useServerClock(serverNow);
  const { role, keptAt } = given;
  const tape = useTape({ jobId, initial: events, port, who, offset, signedIn: role !== undefined, kept: keptAt !== undefined });
  const solved = useSolved(solver);
  const minute = Math.floor(now / 60_000);
  const view = useMemo(
    () => viewJob(tape.events, model, settings, minute * 60_000, solved.lookupFor),
    [tape.events, model, settings, minute, solved.lookupFor],
  );

  const byTape = useStable(energyOf(view, now));
  const answered = view.state.effective.findLast((e) => e.type === "still-live" || e.type === "power")?.seq ?? 0;
  const away = useWatched(jobId, byTape.kind === "live" && !byTape.reforming, view.state.lastAt, answered);
  const energy = useMemo((): EnergyState => {
    const { state, energyContext } = view;
    if (away !== undefined && byTape.kind === "live") return unwatched(clockTime(byTape.since), state.effective, energyContext);
    // Without the server only who has measured here knows that it is dead.
    if (byTape.kind === "proven-dead" && tape.outOfTouch && !provenBy(state.effective, (e) => tape.mine.has(e.id)))
      return unasked(state.effective, energyContext);
    return byTape;
  }, [away, byTape, view, tape.outOfTouch, tape.mine]);
  const marks = useStable(stationMarks(view, energy, settings));
  const [places, setPlaces] = useState(marked ?? []);
  const [inHand, setInHand] = useState<InHand>();
  const { say: sayAgreed, held } = useAgreed(view.state, tape.say);
  const refusals = useRefusalRoom();
  const refusal = useCallback(
    (...drafts: EventDraft[]) => {
      const refused = firstRefusal(tape.events, drafts, model, settings, { role, at: Date.now() + offset });
      // What goes beyond the agreed is held, and asked about.
      return refused?.field === "unagreed" ? undefined : refused?.says;
    },
    [tape.events, model, settings, role, offset],
  );
  // The same function for the whole visit: what it asks is of the moment.
  const latest = useRef({ refusal, sayAgreed, refusals });
  useEffect(() => void (latest.current = { refusal, sayAgreed, refusals }));
  const say = useCallback((...drafts: EventDraft[]) => {
    const { refusal, sayAgreed, refusals } = latest.current;
    const why = refusal(...drafts);
    if (why !== undefined) return refusals.refuse(why);
    refusals.clear();
    sayAgreed(...drafts);
  }, []);
  const [stands, setStands] = useState({ switches: "", controls: "" });
  const standing = useStable(conditionsNow(view.state, now));

  const job = useMemo((): JobValue => {
    const conditions: Conditions = { ...standing };
    if (stands.switches) conditions.switches = stands.switches;
    if (stands.controls) conditions.controls = stands.controls;
    return {
      ...services,
      view,
      who,
      netlist: view.inUse?.netlist,
      energyKind: energy.kind,
      marks,
      tape,
      say,
      held,
      refusal,
      places,
      mark: async (place) => setPlaces(await port.mark(place)),
      inHand,
      setInHand,
      stands,
      setStands,
      conditions,
      solved,
      entryContext: (station) => ({
        circuit: view.circuit,
        reservoirs: view.reservoirs,
        energy: energy.kind,
        state: view.state,
        conditions,
        station,
        decimal: settings.decimal,
        wall: wallVolts(view.circuit, settings.mainsVolts),
      }),
    };
  }, [services, settings, view, who, energy.kind, marks, tape, places, port, stands, standing, solved, inHand, say, held, refusal]);
  const charge = useMemo(() => ({ energy, away }), [energy, away]);

  return (
    <JobContext.Provider value={job}>
      <EnergyContext.Provider value={charge}>
        <RefusalContext.Provider value={refusals}>
          <ClockContext.Provider value={now}>{children}</ClockContext.Provider>
        </RefusalContext.Provider>
      </EnergyContext.Provider>
    </JobContext.Provider>
  );
}
