"use client";
/** The tape in the browser: what the server has stored, then what is still on its way. Nothing acknowledged here is lost. */

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { EventDraft, JobEvent } from "@/core/job/events/event";
import { Refused, type JobPort, type Outgoing } from "./job-port";

export interface Refusal {
  event: Outgoing;
  message: string;
}

export interface Tape {
  /** Stored lines and, after them, the pending ones with the places they will probably get. */
  events: JobEvent[];
  pendingFrom: number;
  /** Why nothing can be stored at the moment; undefined when all is well. */
  lost?: string;
  refusals: Refusal[];
  say(...drafts: EventDraft[]): void;
  forget(refusal: Refusal): void;
  /** Takes over lines that the server gave by another way. */
  merge(events: JobEvent[]): void;
}

const RETRY_MS = 2000;
const POLL_MS = 3000;

/** A failed fetch is a TypeError without news; a server that answered has said what is wrong. */
function troubleWords(error: unknown): string {
  return error instanceof Error && !(error instanceof TypeError) ? error.message : "The server is not reached.";
}

function readQueue(key: string): Outgoing[] {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "[]") as Outgoing[];
  } catch {
    return [];
  }
}

/** @param clock milliseconds to add to this device's clock to get the server's. */
export function useTape(jobId: number, initial: JobEvent[], port: JobPort, who: string, clock: number): Tape {
  const key = `scutum-pending-${jobId}`;
  const [stored, setStored] = useState(initial);
  const [queue, setQueue] = useState<Outgoing[]>([]);
  const [lost, setLost] = useState<string>();
  const [refusals, setRefusals] = useState<Refusal[]>([]);
  const sending = useRef(false);
  const queued = useRef<Outgoing[]>([]);

  const change = useCallback(
    (next: Outgoing[]) => {
      queued.current = next;
      setQueue(next);
      if (next.length > 0) localStorage.setItem(key, JSON.stringify(next));
      else localStorage.removeItem(key);
    },
    [key],
  );

  const merge = useCallback((events: JobEvent[]) => {
    setStored((before) => {
      const known = new Set(before.map((e) => e.seq));
      const fresh = events.filter((e) => !known.has(e.seq));
      return fresh.length === 0 ? before : [...before, ...fresh].sort((a, b) => a.seq - b.seq);
    });
  }, []);

  const flush = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      while (queued.current.length > 0) {
        const next = queued.current[0]!;
        try {
          merge(await port.append([next]));
          setLost(undefined);
          change(queued.current.filter((e) => e.id !== next.id));
        } catch (error) {
          if (!(error instanceof Refused)) {
            setLost(troubleWords(error));
            return;
          }
          setRefusals((r) => [...r, { event: next, message: error.message }]);
          change(queued.current.filter((e) => e.id !== next.id));
        }
      }
    } finally {
      sending.current = false;
    }
  }, [change, merge, port]);

  // What an earlier visit could not deliver is delivered now; the ids keep it from being logged twice.
  useEffect(() => {
    const left = readQueue(key);
    if (left.length > 0) change([...left, ...queued.current]);
    void flush();
  }, [key, change, flush]);

  useEffect(() => {
    if (!lost) return;
    const timer = setInterval(() => void flush(), RETRY_MS);
    return () => clearInterval(timer);
  }, [lost, flush]);

  const last = stored.at(-1)?.seq ?? 0;
  useEffect(() => {
    const poll = () => {
      if (document.hidden) return;
      port.since(last).then(
        (events) => {
          merge(events);
          setLost((l) => (queued.current.length > 0 ? l : undefined));
        },
        (error: unknown) => setLost(troubleWords(error)),
      );
    };
    const timer = setInterval(poll, POLL_MS);
    document.addEventListener("visibilitychange", poll);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", poll);
    };
  }, [last, port, merge]);

  const say = useCallback(
    (...drafts: EventDraft[]) => {
      const at = new Date(Date.now() + clock).toISOString();
      change([...queued.current, ...drafts.map((d) => ({ ...d, id: crypto.randomUUID(), at, who }) as Outgoing)]);
      void flush();
    },
    [change, flush, who, clock],
  );

  const forget = useCallback((refusal: Refusal) => setRefusals((r) => r.filter((x) => x !== refusal)), []);
  const events = useMemo(() => {
    const ids = new Set(stored.map((e) => e.id));
    return [...stored, ...queue.filter((q) => !ids.has(q.id)).map((q, i) => ({ ...q, seq: last + 1 + i }) as JobEvent)];
  }, [stored, queue, last]);

  return { events, pendingFrom: last + 1, lost, refusals, say, forget, merge };
}
