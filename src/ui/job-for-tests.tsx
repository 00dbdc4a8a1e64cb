/** A job around a component, with a server, a solver and instruments that the test drives. */

import "@testing-library/jest-dom";
import { readFileSync } from "node:fs";
import { webcrypto } from "node:crypto";
import { act, render } from "@testing-library/react";
import type { ReactNode } from "react";
import type { DrawingPort } from "@/core/ports/drawing-port";
import type { CapacitorPort } from "@/core/ports/capacitor-port";
import type { BadName } from "@/core/shop/bad-names";
import type { OutputPort } from "@/core/ports/output-port";
import type { SolverPort } from "@/core/ports/solver-port";
import type { ShopHistory } from "@/core/suspects/history";
import type { OldCase } from "@/core/memory/similar";
import type { PointPlace } from "@/core/shop/point-places";
import { DEFAULT_SETTINGS, type Settings } from "@/core/shop/settings";
import type { EventDraft, JobEvent } from "@/core/tape/events/event";
import { foldJob } from "@/core/tape/fold";
import type { InstrumentPort } from "./job/instrument-port";
import { JobProvider } from "./job/job-context";
import type { Role } from "@/core/shop/people";
import type { PartsPort } from "./job/parts-port";
import type { StockPort } from "./job/stock-port";
import { Refused, type JobPort, type LiveListener, type Outgoing } from "./job/job-port";

export const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
export const HALBERD = readFileSync("demo/amps/halberd-120.cir", "utf8");

// What jsdom does not have.
if (!globalThis.crypto?.randomUUID) Object.defineProperty(globalThis, "crypto", { value: webcrypto });
HTMLDialogElement.prototype.showModal ??= function (this: HTMLDialogElement) {
  this.open = true;
};
HTMLDialogElement.prototype.close ??= function (this: HTMLDialogElement) {
  this.open = false;
};
Element.prototype.scrollTo ??= () => {};
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};

/** A tape on a server that can be out of reach, and can refuse. */
export class TestServer {
  readonly lines: JobEvent[] = [];
  reached = true;
  /** Says no to a line, with the reason. */
  refuse?: (event: Outgoing) => string | undefined;

  constructor(drafts: EventDraft[] = [], at = Date.now() - 60_000) {
    drafts.forEach((draft, i) =>
      this.store({ ...draft, id: `given-${i}`, at: new Date(at + i * 1000).toISOString(), who: "J.M." } as Outgoing),
    );
  }

  private store(event: Outgoing): JobEvent {
    const known = this.lines.find((l) => l.id === event.id);
    if (known) return known;
    const line = { ...event, seq: this.lines.length + 1 } as JobEvent;
    this.lines.push(line);
    return line;
  }

  get state() {
    return foldJob(this.lines);
  }

  /** Test points that are marked on photos. */
  places: PointPlace[] = [];

  /** Old cases like the job. */
  similar: OldCase[] = [];

  /** What was last kept in the browser. */
  readonly kept: JobEvent[] = [];

  /** The live stream of each page that is open. */
  readonly listeners = new Set<LiveListener>();

  readonly port: JobPort = {
    live: (_after, listener) => {
      this.listeners.add(listener);
      return () => void this.listeners.delete(listener);
    },
    append: async (events) => {
      if (!this.reached) throw new TypeError("Failed to fetch");
      for (const e of events) {
        const why = this.refuse?.(e);
        if (why) throw new Refused(why);
      }
      return events.map((e) => this.store(e));
    },
    since: async (seq) => {
      if (!this.reached) throw new TypeError("Failed to fetch");
      return this.lines.filter((l) => l.seq > seq);
    },
    keep: (events) => void this.kept.splice(0, this.kept.length, ...events),
    photo: async () => "a".repeat(64),
    recording: async () => "b".repeat(64),
    microphone: async () => new Blob(),
    circuit: async () => {},
    mark: async (place) => {
      this.places = this.places.filter((p) => p.point !== place.point);
      if ("hash" in place) this.places.push(place);
      return [...this.places];
    },
    readingsCsv: async () => [],
    similar: async () => this.similar,
  };
}

export interface TestJob {
  server: TestServer;
  netlist?: string;
  settings?: Partial<Settings>;
  solver?: Partial<SolverPort>;
  output?: Partial<OutputPort>;
  stock?: StockPort;
  capacitors?: Partial<CapacitorPort>;
  parts?: PartsPort;
  badNames?: BadName[];
  shopHistory?: ShopHistory;
  drawings?: DrawingPort;
  instruments?: InstrumentPort;
  role?: Role;
  /** The page is drawn from what the browser keeps. */
  keptAt?: string;
  modelId?: number;
}

/** Draws children inside a job. What is stored can be looked at on the server. */
export function inJob(
  children: ReactNode,
  {
    server,
    netlist,
    settings,
    solver,
    output,
    stock,
    capacitors,
    parts,
    badNames,
    shopHistory,
    drawings,
    instruments,
    role,
    keptAt,
    modelId,
  }: TestJob,
) {
  return (
    <JobProvider
      jobId={7}
      events={[...server.lines]}
      marked={[...server.places]}
      netlist={netlist}
      settings={{ ...DEFAULT_SETTINGS, ...settings }}
      serverNow={new Date().toISOString()}
      who="J.M."
      port={server.port}
      solver={solver as SolverPort | undefined}
      output={output as OutputPort | undefined}
      stock={stock}
      capacitors={capacitors as CapacitorPort | undefined}
      parts={parts}
      badNames={badNames}
      shopHistory={shopHistory}
      drawings={drawings}
      instruments={instruments}
      role={role}
      keptAt={keptAt}
      modelId={modelId}
    >
      {children}
    </JobProvider>
  );
}

export async function renderJob(children: ReactNode, job: TestJob) {
  const drawn = render(inJob(children, job));
  await settle();
  return drawn;
}

/** Lets promises that are under way come in. */
export const settle = () => act(async () => void (await new Promise((r) => setTimeout(r, 0))));

export const power = (state: "on" | "off", more: object = {}): EventDraft =>
  ({ type: "power", payload: { state, plug: state === "on" ? "in" : "out", ...more } }) as EventDraft;
export const reading = (point: string, value: number, kind = "dcv"): EventDraft =>
  ({ type: "reading", payload: { point, kind, value, conditions: { mains: 230 } } }) as EventDraft;
