"use client";
/** From station to station by keys: the one before, the one after, or by its number. */

import { useEffect, useRef, useState } from "react";
import { useRouter } from "next/navigation";
import { useHotkeys } from "react-hotkeys-hook";
import { STATIONS, type StationId } from "@/core/tape/stations";
import { isTyped } from "../forms/focus";
import { useJob } from "../job/job-context";

export function StationKeys({ current }: { current: StationId }) {
  const { jobId } = useJob();
  const router = useRouter();
  /** Digits after `g`; undefined while none are asked for. */
  const [typed, setTyped] = useState<string>();
  const at = STATIONS.findIndex((s) => s.id === current);
  // Pressed twice before the next station is there, it is the one after that.
  const wanted = useRef(at);
  useEffect(() => void (wanted.current = at), [at]);
  const go = (i: number) => {
    setTyped(undefined);
    const to = STATIONS[i];
    if (!to) return;
    wanted.current = i;
    router.push(`/jobs/${jobId}/${to.id}`);
  };
  const onward = (by: 1 | -1) => go((wanted.current + by + STATIONS.length) % STATIONS.length);
  // By what is typed and not by where the key is: brackets lie elsewhere on other keyboards.
  useHotkeys("*", (e) => {
    if (typed !== undefined || e.ctrlKey || e.metaKey || document.querySelector("dialog[open], [role=dialog]")) return;
    if (e.key === "]") onward(1);
    else if (e.key === "[") onward(-1);
    else if (e.key === "g") {
      e.preventDefault();
      setTyped("");
    }
  });
  // Brackets begin nothing that is typed: in a field with nothing in it they lead on too, so that stations can be walked through.
  useEffect(() => {
    const brackets = (e: KeyboardEvent) => {
      const field = e.target;
      if (!(field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement) || !isTyped(field) || field.value !== "") return;
      if (e.ctrlKey || e.metaKey || (e.key !== "]" && e.key !== "[") || field.closest("dialog, [role=dialog]")) return;
      e.preventDefault();
      onward(e.key === "]" ? 1 : -1);
    };
    window.addEventListener("keydown", brackets);
    return () => window.removeEventListener("keydown", brackets);
  });
  // Before everything else: digits answer questions at other stations.
  useEffect(() => {
    if (typed === undefined) return;
    const digits = (e: KeyboardEvent) => {
      e.preventDefault();
      e.stopPropagation();
      if (e.key === "Enter") go(Number(typed) - 1);
      else if (e.key === "Backspace") setTyped(typed.slice(0, -1));
      else if (/^\d$/.test(e.key)) {
        const number = typed + e.key;
        // No station's number goes on after these digits.
        if (Number(number) * 10 > STATIONS.length) go(Number(number) - 1);
        else setTyped(number);
      } else if (e.key !== "Shift") setTyped(undefined);
    };
    window.addEventListener("keydown", digits, true);
    return () => window.removeEventListener("keydown", digits, true);
  });
  if (typed === undefined) return null;
  return (
    <p role="status" className="absolute top-2 left-48 z-40 rounded border-2 border-primary bg-base-100 px-4 py-2 text-lg">
      Go to station <strong>{typed || "…"}</strong>: 1 to {STATIONS.length}, then <kbd className="font-mono">Enter</kbd>
    </p>
  );
}
