"use client";
/** The tape in the browser: what the server has stored, then what is still on its way. Nothing acknowledged here is lost. */

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { EventDraft, JobEvent } from "@/core/tape/events/event";
import { Refused, type JobPort, type Outgoing, type Present } from "./job-port";
import { newId } from "./new-id";
import { browserStorage, UnsentLines } from "./unsent";

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
  /** How many lines are in this page alone, since the browser's storage would not take them. */
  onlyInPage: number;
  refusals: Refusal[];
  /** Who else has this job open. */
  present: Present[];
  say(...drafts: EventDraft[]): void;
  forget(refusal: Refusal): void;
  /** Takes over lines that the server gave by another way. */
  merge(events: JobEvent[]): void;
}

const RETRY_MS = 2000;
const POLL_MS = 3000;
const POLL_JOINED_MS = 15_000;

/** A failed fetch is a TypeError without news; a server that answered has said what is wrong. */
function troubleWords(error: unknown): string {
  return error instanceof Error && !(error instanceof TypeError) ? error.message : "The server is not reached.";
}

/** @param offset milliseconds to add to this device's clock to get the server's. */
export function useTape(jobId: number, initial: JobEvent[], port: JobPort, who: string, offset: number): Tape {
  const [stored, setStored] = useState(initial);
  const [queue, setQueue] = useState<Outgoing[]>([]);
  const [onlyInPage, setOnlyInPage] = useState(0);
  const [lost, setLost] = useState<string>();
  const [joined, setJoined] = useState(false);
  const [present, setPresent] = useState<Present[]>([]);
  const [refusals, setRefusals] = useState<Refusal[]>([]);
  const sending = useRef(false);
  // Made at the first use: on the server there is no storage.
  const kept = useRef<UnsentLines>(undefined);
  const unsent = useCallback(() => (kept.current ??= new UnsentLines(jobId, browserStorage())), [jobId]);

  const show = useCallback(() => {
    setQueue(unsent().all());
    setOnlyInPage(unsent().onlyInPage);
  }, [unsent]);

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
      // Those of a tab that was closed are sent too; an id that the server has is not logged twice.
      for (let next = unsent().all()[0]; next; next = unsent().all()[0]) {
        try {
          merge(await port.append([next]));
          setLost(undefined);
        } catch (error) {
          if (!(error instanceof Refused)) {
            setLost(troubleWords(error));
            return;
          }
          const refusal = { event: next, message: error.message };
          setRefusals((r) => [...r, refusal]);
        }
        unsent().remove(next.id);
        show();
      }
    } finally {
      sending.current = false;
    }
  }, [merge, port, show, unsent]);

  // What an earlier visit could not deliver is delivered now.
  useEffect(() => {
    show();
    void flush();
  }, [show, flush]);

  // Another tab has logged or delivered a line of this job.
  useEffect(() => {
    const changed = (e: StorageEvent) => {
      if (e.key === null || e.key.startsWith("scutum-unsent:")) show();
    };
    window.addEventListener("storage", changed);
    return () => window.removeEventListener("storage", changed);
  }, [show]);

  // Only what storage has taken survives the page: say so before it goes.
  useEffect(() => {
    if (onlyInPage === 0) return;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [onlyInPage]);

  useEffect(() => {
    if (!lost) return;
    const timer = setInterval(() => void flush(), RETRY_MS);
    return () => clearInterval(timer);
  }, [lost, flush]);

  const last = stored.at(-1)?.seq ?? 0;
  const lastHere = useRef(last);
  useEffect(() => void (lastHere.current = last), [last]);
  useEffect(
    () =>
      port.live(() => lastHere.current, {
        lines: merge,
        present: setPresent,
        joined(stands) {
          setJoined(stands);
          if (!stands) setPresent([]);
        },
      }),
    [port, merge],
  );

  // While the stream does not stand, and now and then where something between holds its lines back.
  useEffect(() => {
    const poll = () => {
      if (document.hidden) return;
      port.since(last).then(
        (events) => {
          merge(events);
          setLost((l) => (unsent().all().length > 0 ? l : undefined));
        },
        (error: unknown) => setLost(troubleWords(error)),
      );
    };
    const timer = setInterval(poll, joined ? POLL_JOINED_MS : POLL_MS);
    document.addEventListener("visibilitychange", poll);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", poll);
    };
  }, [last, port, merge, unsent, joined]);

  const say = useCallback(
    (...drafts: EventDraft[]) => {
      const at = new Date(Date.now() + offset).toISOString();
      for (const d of drafts) unsent().add({ ...d, id: newId(), at, who } as Outgoing);
      show();
      void flush();
    },
    [flush, who, offset, show, unsent],
  );

  const forget = useCallback((refusal: Refusal) => setRefusals((r) => r.filter((x) => x !== refusal)), []);
  const events = useMemo(() => {
    const ids = new Set(stored.map((e) => e.id));
    return [...stored, ...queue.filter((q) => !ids.has(q.id)).map((q, i) => ({ ...q, seq: last + 1 + i }) as JobEvent)];
  }, [stored, queue, last]);

  return useMemo(
    () => ({ events, pendingFrom: last + 1, lost, onlyInPage, refusals, present, say, forget, merge }),
    [events, last, lost, onlyInPage, refusals, present, say, forget, merge],
  );
}
