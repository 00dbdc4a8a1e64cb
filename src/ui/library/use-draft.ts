"use client";
/** A circuit file that is being worked on: undo and redo, and kept in the browser until it is stored, so that a reload loses nothing. */

import { useCallback, useEffect, useRef, useState } from "react";

export interface Draft {
  text: string;
  setText(text: string): void;
  undo(): void;
  redo(): void;
  canUndo: boolean;
  canRedo: boolean;
  /** When the text on the screen was typed, where it was taken from an earlier visit. */
  from?: Date;
  /** Why it cannot be kept in the browser. */
  notKept: string;
  /** Back to what is stored; what was typed can be had again by undo. */
  discard(): void;
  /** Once it is stored nothing has to be kept. */
  forget(): void;
}

const PLACE = "scutum-draft:";
/** Letters typed one after the other are one step. */
const STEP_MS = 900;
const MOST_STEPS = 300;

interface Kept {
  text: string;
  /** What it was begun from: a file that was stored since is not overwritten by an old draft. */
  stored: string;
  at: string;
}

function keptAt(place: string, stored: string): Kept | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(place) ?? "null") as Kept | null;
    return kept && typeof kept.text === "string" && kept.stored === stored && kept.text !== stored ? kept : undefined;
  } catch {
    // Storage that is switched off, or what another program left there: there is no draft then.
    return undefined;
  }
}

/** @param name which file it is: a model's id, or what a new one begins with. */
export function useDraft(name: string, stored: string): Draft {
  const place = PLACE + name;
  const [{ past, text, future }, setHistory] = useState<{ past: string[]; text: string; future: string[] }>({
    past: [],
    text: stored,
    future: [],
  });
  const [from, setFrom] = useState<Date>();
  const [notKept, setNotKept] = useState("");
  const last = useRef(0);
  const loaded = useRef(false);

  useEffect(() => {
    const kept = keptAt(place, stored);
    loaded.current = true;
    if (!kept) return;
    setHistory({ past: [stored], text: kept.text, future: [] });
    setFrom(new Date(kept.at));
  }, [place, stored]);

  useEffect(() => {
    if (!loaded.current) return;
    try {
      if (text === stored) localStorage.removeItem(place);
      else localStorage.setItem(place, JSON.stringify({ text, stored, at: new Date().toISOString() } satisfies Kept));
      setNotKept("");
    } catch (error) {
      setNotKept((error as Error).message);
    }
  }, [text, stored, place]);

  const setText = useCallback((next: string) => {
    const now = Date.now();
    const joins = now - last.current < STEP_MS;
    last.current = now;
    setHistory((h) => {
      if (h.text === next) return h;
      // A step of typing stays one only while it is a few letters.
      const small = joins && h.past.length > 0 && Math.abs(next.length - h.text.length) <= 2;
      return { past: small ? h.past : [...h.past, h.text].slice(-MOST_STEPS), text: next, future: [] };
    });
  }, []);
  const undo = useCallback(
    () => setHistory((h) => (h.past.length === 0 ? h : { past: h.past.slice(0, -1), text: h.past.at(-1)!, future: [h.text, ...h.future] })),
    [],
  );
  const redo = useCallback(
    () => setHistory((h) => (h.future.length === 0 ? h : { past: [...h.past, h.text], text: h.future[0]!, future: h.future.slice(1) })),
    [],
  );
  const discard = useCallback(() => {
    setText(stored);
    setFrom(undefined);
  }, [setText, stored]);
  const forget = useCallback(() => {
    try {
      localStorage.removeItem(place);
    } catch (error) {
      // The model is stored all the same: storage that cannot be emptied was never filled.
      setNotKept((error as Error).message);
    }
  }, [place]);
  return { text, setText, undo, redo, canUndo: past.length > 0, canRedo: future.length > 0, from, notKept, discard, forget };
}
