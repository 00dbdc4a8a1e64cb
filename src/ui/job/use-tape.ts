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
  /** What others log does not come here at the moment. A server that answers, but cannot store, still tells of it. */
  outOfTouch: boolean;
  /** How many lines are in this page alone, since the browser's storage would not take them. */
  onlyInPage: number;
  refusals: Refusal[];
  /** Who else has this job open. */
  present: Present[];
  /** The circuit that the job has now, as the server tells; undefined while it has not. */
  circuit?: number | null;
  /** Who has to sign in before lines that they left here can be sent. */
  held: string[];
  /** Ids of the lines that were entered on this page. */
  mine: ReadonlySet<string>;
  say(...drafts: EventDraft[]): void;
  forget(refusal: Refusal): void;
  /** Takes over lines that the server gave by another way. */
  merge(events: JobEvent[]): void;
}

const RETRY_MS = 2000;
const POLL_MS = 3000;
const POLL_JOINED_MS = 15_000;

const NOT_REACHED = "The server is not reached.";

/** A fetch that failed or took too long brings no news; a server that answered has said what is wrong. */
function troubleWords(error: unknown): string {
  return error instanceof Error && !(error instanceof TypeError) && error.name !== "TimeoutError" ? error.message : NOT_REACHED;
}

/** The last line before which none is missing: lines that another bench stored before one of ours may still be on their way. */
export function throughLine(stored: readonly JobEvent[]): number {
  let through = 0;
  for (const { seq } of stored) if (seq === through + 1) through = seq;
  return through;
}

export interface TapeOptions {
  jobId: number;
  /** What the page was drawn with. */
  initial: JobEvent[];
  port: JobPort;
  who: string;
  /** Milliseconds to add to this device's clock to get the server's. */
  offset: number;
  /** Somebody is signed in: what another has left unsent here is not sent in their name. */
  signedIn: boolean;
  /** The page was drawn from what the browser keeps, without the server. */
  kept: boolean;
}

export function useTape({ jobId, initial, port, who, offset, signedIn, kept: fromKept }: TapeOptions): Tape {
  const [stored, setStored] = useState(initial);
  const [queue, setQueue] = useState<Outgoing[]>([]);
  const [onlyInPage, setOnlyInPage] = useState(0);
  const [lost, setLost] = useState(fromKept ? NOT_REACHED : undefined);
  const [outOfTouch, setOutOfTouch] = useState(fromKept);
  const [joined, setJoined] = useState(false);
  const [present, setPresent] = useState<Present[]>([]);
  const [circuit, setCircuit] = useState<number | null>();
  const [mine, setMine] = useState<ReadonlySet<string>>(new Set());
  const [refusals, setRefusals] = useState<Refusal[]>([]);
  const sending = useRef(false);
  // Made at the first use: on the server there is no storage.
  const kept = useRef<UnsentLines>(undefined);
  const unsent = useCallback(() => (kept.current ??= new UnsentLines(jobId, browserStorage())), [jobId]);

  const nextToSend = useCallback(
    () =>
      unsent()
        .all()
        .find((line) => !signedIn || line.who === who),
    [unsent, signedIn, who],
  );

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
      for (let next = nextToSend(); next; next = nextToSend()) {
        try {
          merge(await port.append([next]));
          setLost(undefined);
          setOutOfTouch(false);
        } catch (error) {
          if (!(error instanceof Refused)) {
            const trouble = troubleWords(error);
            setLost(trouble);
            if (trouble === NOT_REACHED) setOutOfTouch(true);
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
  }, [merge, port, show, unsent, nextToSend]);

  /** The server answers: all is well, unless it will not take a line. */
  const answered = useCallback(() => {
    setOutOfTouch(false);
    setLost((l) => (nextToSend() ? l : undefined));
    void flush();
  }, [nextToSend, flush]);

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
  const through = throughLine(stored);
  const throughHere = useRef(through);
  useEffect(() => void (throughHere.current = through), [through]);
  useEffect(
    () =>
      port.live(() => throughHere.current, {
        lines: merge,
        present: setPresent,
        circuit: setCircuit,
        joined(stands) {
          setJoined(stands);
          if (stands) answered();
          else setPresent([]);
        },
      }),
    [port, merge, answered],
  );

  useEffect(() => {
    if (!outOfTouch) port.keep(stored);
  }, [port, stored, outOfTouch]);

  // While the stream does not stand, and now and then where something between holds its lines back.
  useEffect(() => {
    const poll = () => {
      if (document.hidden) return;
      port.since(through).then(
        (events) => {
          merge(events);
          if (events.length === 0) port.keep(stored);
          answered();
        },
        (error: unknown) => {
          setLost(troubleWords(error));
          setOutOfTouch(true);
        },
      );
    };
    const timer = setInterval(poll, joined ? POLL_JOINED_MS : POLL_MS);
    document.addEventListener("visibilitychange", poll);
    // The device knows at once that its network is gone, and that it is back.
    const turns = ["offline", "online"];
    for (const turn of turns) window.addEventListener(turn, poll);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", poll);
      for (const turn of turns) window.removeEventListener(turn, poll);
    };
  }, [through, stored, port, merge, answered, joined]);

  const say = useCallback(
    (...drafts: EventDraft[]) => {
      const at = new Date(Date.now() + offset).toISOString();
      const lines = drafts.map((d) => ({ ...d, id: newId(), at, who }) as Outgoing);
      for (const line of lines) unsent().add(line);
      setMine((m) => new Set([...m, ...lines.map((l) => l.id)]));
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

  const held = useMemo(() => (signedIn ? [...new Set(queue.map((q) => q.who).filter((w) => w !== who))] : []), [signedIn, queue, who]);

  return useMemo(
    () => ({ events, pendingFrom: last + 1, lost, outOfTouch, onlyInPage, refusals, present, circuit, held, mine, say, forget, merge }),
    [events, last, lost, outOfTouch, onlyInPage, refusals, present, circuit, held, mine, say, forget, merge],
  );
}
