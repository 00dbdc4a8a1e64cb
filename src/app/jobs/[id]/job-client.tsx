"use client";
/** Hands the job's screens their data and their way to the server. */

import { useMemo, type ReactNode } from "react";
import { JobProvider, type JobProviderProps } from "@/ui/frame/job-context";
import type { InstrumentPort } from "@/ui/frame/instrument-port";
import { Refused, type JobPort } from "@/ui/frame/job-port";
import type { JobEvent } from "@/core/tape/events/event";
import { liveTape } from "./tape-stream";
import { sharedStream } from "./instrument-stream";
import { workerSolver } from "@/workers/solver";
import { workerSounds } from "@/workers/sounds";

/** One solver for the whole visit: what it has solved is kept from job to job. */
const solver = workerSolver();
const sounds = workerSounds();

async function answer<T>(response: Response): Promise<T> {
  const body = (await response.json().catch(() => undefined)) as (T & { error?: string; details?: { message: string }[] }) | undefined;
  if (response.ok && body !== undefined) return body;
  // 5xx may pass (a full disk, a restart): the line is kept and sent again. 4xx will not.
  if (response.status >= 400 && response.status < 500)
    throw new Refused(body?.error ?? `the server answered ${response.status}`, body?.details);
  throw new Error(body?.error ?? `the server answered ${response.status}`);
}

function portOf(jobId: number, who: string): JobPort {
  const base = `/api/v1/jobs/${jobId}`;
  return {
    async append(events) {
      const response = await fetch(`${base}/events`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ events }),
      });
      return (await answer<{ events: JobEvent[] }>(response)).events;
    },
    async since(seq) {
      return (await answer<{ events: JobEvent[] }>(await fetch(`${base}/events?after=${seq}`))).events;
    },
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
    async readingsCsv(file) {
      return (
        await answer<{ events: JobEvent[] }>(
          await fetch(`${base}/readings`, { method: "POST", headers: { "content-type": "text/csv" }, body: file }),
        )
      ).events;
    },
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

export function JobClient(
  props: Omit<JobProviderProps, "port" | "solver" | "instruments" | "sounds" | "children"> & { children: ReactNode },
) {
  const port = useMemo(() => portOf(props.jobId, props.who), [props.jobId, props.who]);
  const instruments = useMemo(() => instrumentsOf(props.jobId), [props.jobId]);
  return <JobProvider {...props} port={port} solver={solver} instruments={instruments} sounds={sounds} />;
}
