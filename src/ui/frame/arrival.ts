"use client";
/** Where the focus is as a station appears: in the one thing to do, never on the body. */

import { useEffect, type RefObject } from "react";

/** What a station asks for first, or the block in which it stands. */
const FIRST = "[data-arrival], [data-reading-field]";
const TAKES_FOCUS = "a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea:not(:disabled), [tabindex]";

/** The first of them that can be reached: not behind a gate, not in a tab that is not shown. */
function firstOf(room: HTMLElement): HTMLElement | undefined {
  for (const at of room.querySelectorAll<HTMLElement>(FIRST)) {
    if (at.closest("[inert], [hidden]")) continue;
    const takes = at.matches(TAKES_FOCUS) ? at : at.querySelector<HTMLElement>(TAKES_FOCUS);
    if (takes) return takes;
  }
  return undefined;
}

/**
 * What had the focus is gone (a step that is done, a button that was pressed): on to what is asked for now. Who has left a field by Escape
 * or by the pointer is left alone.
 */
function useOnward(main: RefObject<HTMLElement | null>, heading: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const room = main.current;
    if (!room) return;
    let held: HTMLElement | undefined;
    const hold = (e: Event) => (held = e.target instanceof HTMLElement ? e.target : undefined);
    const leave = (e: Event) => {
      if (!(e instanceof KeyboardEvent) || e.key === "Escape") held = undefined;
    };
    const watch = new MutationObserver(() => {
      const at = document.activeElement;
      const lost = held && (!held.isConnected || held.matches(":disabled")) && (at === null || at === document.body || at === held);
      if (!lost) return;
      held = undefined;
      (firstOf(room) ?? heading.current)?.focus({ preventScroll: true });
    });
    room.addEventListener("focusin", hold);
    for (const act of ["keydown", "pointerdown"]) window.addEventListener(act, leave, true);
    watch.observe(room, { childList: true, subtree: true, attributes: true, attributeFilter: ["disabled"] });
    return () => {
      watch.disconnect();
      room.removeEventListener("focusin", hold);
      for (const act of ["keydown", "pointerdown"]) window.removeEventListener(act, leave, true);
    };
  }, [main, heading]);
}

/** @param station again for each. @param heading has the focus where a station asks for nothing. */
export function useArrival(main: RefObject<HTMLElement | null>, heading: RefObject<HTMLElement | null>, station: string): void {
  useOnward(main, heading);
  useEffect(() => {
    const room = main.current;
    const onBody = () => document.activeElement === null || document.activeElement === document.body;
    if (!room) return;
    const arrive = () => {
      const first = firstOf(room);
      const waiting = onBody() || document.activeElement === heading.current;
      if (waiting) (first ?? heading.current)?.focus({ preventScroll: true });
      return first !== undefined || !waiting;
    };
    if (arrive()) return;
    // What comes late (a solve, a part that is loaded) is waited for until somebody does something.
    const watch = new MutationObserver(() => arrive() && stop());
    const stop = () => {
      watch.disconnect();
      for (const act of ["keydown", "pointerdown"]) window.removeEventListener(act, stop, true);
    };
    watch.observe(room, { childList: true, subtree: true });
    for (const act of ["keydown", "pointerdown"]) window.addEventListener(act, stop, true);
    return stop;
  }, [main, heading, station]);
}
