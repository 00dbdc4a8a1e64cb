"use client";
/** Hands the job's screens their data and their way to the server. */

import { useEffect, useMemo, type ReactNode } from "react";
import { JobProvider } from "@/ui/job/job-context";
import type { InstrumentPort } from "@/ui/job/instrument-port";
import { Refused, type JobPort } from "@/ui/job/job-port";
import type { StockTube } from "@/core/shop/stock-tubes";
import type { BadName } from "@/core/shop/bad-names";
import type { PartWanted, StockPart } from "@/core/shop/stock-parts";
import type { PartsPort } from "@/ui/job/parts-port";
import type { StockPort } from "@/ui/job/stock-port";
import type { OldCase } from "@/core/memory/similar";
import type { PointPlace } from "@/core/shop/point-places";
import type { JobEvent } from "@/core/tape/events/event";
import { keepJob, keepTape, type JobData } from "../../kept/kept-jobs";
import { liveTape } from "./tape-stream";
import { sharedStream } from "./instrument-stream";
import { workerDrawings } from "@/workers/drawing";
import { workerCapacitors } from "@/workers/capacitor";
import { workerOutput } from "@/workers/output";
import { workerSolver } from "@/workers/solver";
import { workerSounds } from "@/workers/sounds";

/** One solver for the whole visit: what it has solved is kept from job to job. */
const solver = workerSolver();
const sounds = workerSounds();
const drawings = workerDrawings();
const output = workerOutput();
const capacitors = workerCapacitors();

/** Not signed in any more; asked too slowly; asked too often. */
const PASSING = new Set([401, 408, 429]);
/** A network that is gone without a word answers never: then the line stays here, and is sent again. */
const ANSWER_MS = 10_000;
const inTime = () => AbortSignal.timeout(ANSWER_MS);

async function answer<T>(response: Response): Promise<T> {
  const body = (await response.json().catch(() => undefined)) as (T & { error?: string; details?: { message: string }[] }) | undefined;
  if (response.ok && body !== undefined) return body;
  // 5xx may pass (a full disk, a restart), and so do these: the line is kept and sent again. Other 4xx do not.
  if (response.status >= 400 && response.status < 500 && !PASSING.has(response.status))
    throw new Refused(body?.error ?? `the server answered ${response.status}`, body?.details);
  throw new Error(body?.error ?? `the server answered ${response.status}`);
}

/** What cannot be kept (a browser without storage) is missed only without the server, where the page says that it has nothing. */
function keeping(keep: () => Promise<void>): void {
  // Without a service worker nothing would ever be drawn from it.
  if (!("serviceWorker" in navigator)) return;
  keep().catch((error: unknown) => console.warn("scutum: the job is not kept in this browser:", error));
}

function portOf(jobId: number, who: string, modelId: number | undefined): JobPort {
  const base = `/api/v1/jobs/${jobId}`;
  return {
    async append(events) {
      const response = await fetch(`${base}/events`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ events }),
        signal: inTime(),
      });
      return (await answer<{ events: JobEvent[] }>(response)).events;
    },
    async since(seq) {
      return (await answer<{ events: JobEvent[] }>(await fetch(`${base}/events?after=${seq}`, { signal: inTime() }))).events;
    },
    keep: (events) => keeping(() => keepTape(jobId, events)),
    live: (after, listener) => liveTape(`${base}/live`, who, after, listener),
    async photo(file) {
      return (await answer<{ hash: string }>(await fetch("/api/v1/photos", { method: "POST", body: file }))).hash;
    },
    async recording(file) {
      return (await answer<{ hash: string }>(await fetch("/api/v1/recordings", { method: "POST", body: file }))).hash;
    },
    async microphone(seconds, noted) {
      const response = await fetch(`${base}/microphone?${new URLSearchParams({ seconds: String(seconds), noted })}`);
      return response.ok ? response.blob() : answer<Blob>(response);
    },
    async circuit(netlist) {
      await answer(
        await fetch(`${base}/circuit`, {
          method: "PUT",
          headers: { "content-type": "application/json" },
          body: JSON.stringify({ who, netlist }),
        }),
      );
    },
    async mark(place) {
      const response = await fetch(`/api/v1/models/${modelId}/places`, {
        method: "hash" in place ? "PUT" : "DELETE",
        headers: { "content-type": "application/json" },
        body: JSON.stringify("hash" in place ? { who, ...place } : place),
        signal: inTime(),
      });
      return (await answer<{ places: PointPlace[] }>(response)).places;
    },
    async similar() {
      return (await answer<{ cases: OldCase[] }>(await fetch(`${base}/similar`, { signal: inTime() }))).cases;
    },
    async readingsCsv(file) {
      return (
        await answer<{ events: JobEvent[] }>(
          await fetch(`${base}/readings`, { method: "POST", headers: { "content-type": "text/csv" }, body: file }),
        )
      ).events;
    },
  };
}

function stockOf(who: string): StockPort {
  const ask = async (path: string, body?: object) => {
    const options = body && { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify({ who, ...body }) };
    return answer<{ tubes: StockTube[]; number?: number }>(await fetch(`/api/v1/tubes${path}`, { ...options, signal: inTime() }));
  };
  return {
    list: async () => (await ask("")).tubes,
    add: async (tube) => {
      const { tubes, number } = await ask("", tube);
      return { tubes, number: number! };
    },
    test: async (number, test) => (await ask(`/${number}/tests`, test)).tubes,
    move: async (number, place) => (await ask(`/${number}/moves`, { place })).tubes,
  };
}

function partsOf(who: string): PartsPort {
  const ask = async (path: string, body?: object) => {
    const options = body && { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify({ who, ...body }) };
    return answer<{ parts: StockPart[]; waiting: PartWanted[]; names: BadName[] }>(
      await fetch(`/api/v1${path}`, { ...options, signal: inTime() }),
    );
  };
  return {
    list: async () => (await ask("/parts")).parts,
    waiting: async () => (await ask("/parts")).waiting,
    minimum: async (number, minimum) => (await ask(`/parts/${number}/minimum`, { minimum })).parts,
    add: async (part) => (await ask("/parts", part)).parts,
    pieces: async (number, pieces, why) => (await ask(`/parts/${number}/pieces`, { pieces, why })).parts,
    names: async () => (await ask("/names")).names,
    remember: async (name) => (await ask("/names", name)).names,
    evidence: async (name, evidence) => (await ask(`/names/${name}/evidence`, evidence)).names,
  };
}

/** A line to the bench that is not through by then is given up: the next point asks again. */
const SEND_MS = 5000;

function instrumentsOf(jobId: number): InstrumentPort {
  const address = `/api/v1/jobs/${jobId}/bench`;
  const join = sharedStream(address);
  // One after the other: what is wanted last must not reach the bench first.
  let before: Promise<unknown> = Promise.resolve();
  return {
    listen: (line, state) => join({ line, state }),
    send(line) {
      const sent = before.then(async () => {
        const options = { method: "POST", headers: { "content-type": "text/plain" }, body: line, signal: AbortSignal.timeout(SEND_MS) };
        await answer(await fetch(address, options));
      });
      before = sent.catch(() => undefined);
      return sent;
    },
  };
}

/** @param keptAt when it is drawn from what this browser keeps: when the server was last in touch. */
export function JobClient({ keptAt, children, ...job }: JobData & { keptAt?: string; children: ReactNode }) {
  const port = useMemo(() => portOf(job.jobId, job.who, job.modelId), [job.jobId, job.who, job.modelId]);
  const stock = useMemo(() => stockOf(job.who), [job.who]);
  const parts = useMemo(() => partsOf(job.who), [job.who]);
  const instruments = useMemo(() => instrumentsOf(job.jobId), [job.jobId]);
  useEffect(() => {
    if (keptAt === undefined) keeping(() => keepJob(job));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- as the server gave it, once; the tape is kept as it grows
  }, [job.jobId, job.serverNow, keptAt]);
  return (
    <JobProvider
      {...job}
      keptAt={keptAt}
      port={port}
      solver={solver}
      output={output}
      capacitors={capacitors}
      stock={stock}
      parts={parts}
      instruments={instruments}
      sounds={sounds}
      drawings={drawings}
    >
      {children}
    </JobProvider>
  );
}
