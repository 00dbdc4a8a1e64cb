"use client";
/** The entry line at the foot of the tape: echoes how it understood the line before Enter, refuses with the reason. */

import { useEffect, useId, useMemo, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { completions, ENTRY_FORMS, parseEntry } from "@/core/entry/entry";
import type { StationId } from "@/core/tape/stations";
import type { EventDraft } from "@/core/tape/events/event";
import { worstOf } from "@/core/capacitor/check";
import { useJob } from "../job/job-context";
import { useWayBack } from "./way-back";
import { useTypedChecks, type TypedChecks } from "../job/use-typed-checks";

interface EntryLineProps {
  station: StationId;
  /** What was typed since the line was called, before it was there; undefined where nobody has called it. */
  early?(): string | undefined;
}

export function EntryLine({ station, early }: EntryLineProps) {
  const { entryContext, say, refusal } = useJob();
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState(0);
  const [help, setHelp] = useState(false);
  const [refused, setRefused] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const echoId = useId();
  const listId = useId();
  const ctx = entryContext(station);
  // Enter was pressed on this text before its part was checked: it is logged then, unless somebody types on.
  const [waiting, setWaiting] = useState<string>();
  const read = useMemo(() => (text.trim() ? parseEntry(text, ctx) : undefined), [text, ctx]);
  const fit = read?.ok ? fittedOf(read.drafts) : undefined;
  const checks = useTypedChecks(fit?.position ?? "", fit?.newPart ?? "");
  const entry = useMemo(() => {
    if (!read?.ok) return read;
    const drafts = withChecks(read.drafts, checks);
    const why = mayNotStandThere(drafts, checks) ?? refusal(...drafts);
    return why === undefined ? { ...read, drafts } : ({ ok: false, read: text, why, accepted: undefined } as const);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the checks by what they say
  }, [read, text, refusal, JSON.stringify(checks)]);
  const offers = useMemo(() => completions(text, ctx), [text, ctx]);
  const pick = Math.min(chosen, offers.length - 1);

  useHotkeys(
    "e",
    () => {
      if (!document.querySelector("dialog[open], [role=dialog]")) field.current?.focus();
    },
    { preventDefault: true },
  );
  const back = useWayBack(field);
  // Called before it was there.
  useEffect(() => {
    const typed = early?.();
    if (typed === undefined) return;
    setText(typed);
    field.current?.focus();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, as it appears
  }, []);

  function complete(word: string) {
    setText((t) => `${t.replace(/\S*$/, "")}${word} `);
    setChosen(0);
    field.current?.focus();
  }

  function onKeyDown(e: React.KeyboardEvent) {
    if (e.key === "Tab" && offers.length > 0 && !e.shiftKey) {
      e.preventDefault();
      complete(offers[pick]!);
    } else if (e.key === "ArrowDown" && offers.length > 0) {
      e.preventDefault();
      setChosen((pick + 1) % offers.length);
    } else if (e.key === "ArrowUp" && offers.length > 0) {
      e.preventDefault();
      setChosen((pick + offers.length - 1) % offers.length);
    } else if (e.key === "Escape") {
      if (text === "") back();
      setText("");
      setRefused(false);
    } else if (e.key === "Enter") {
      e.preventDefault();
      if (entry?.ok && checks.pending) setWaiting(text);
      else log();
    }
  }
  function log() {
    if (entry?.ok) {
      say(...entry.drafts);
      setText("");
      setRefused(false);
    } else if (entry) setRefused(true);
    setWaiting(undefined);
  }
  useEffect(() => {
    if (waiting !== undefined && waiting === text && !checks.pending) log();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the check is there
  }, [checks.pending]);

  return (
    <div className="border-t border-base-300 bg-base-100 p-2 max-md:fixed max-md:inset-x-0 max-md:bottom-0 max-md:z-30">
      {offers.length > 0 && (
        <ul id={listId} role="listbox" aria-label="Completions" className="mb-1 flex flex-wrap gap-1">
          {offers.map((o, i) => (
            <li key={o} role="option" aria-selected={i === pick} id={`${listId}-${i}`}>
              <button
                tabIndex={-1}
                className={`rounded px-2 py-1 font-mono text-xs ${i === pick ? "bg-primary text-primary-content" : "bg-base-300"}`}
                onClick={() => complete(o)}
              >
                {o}
              </button>
            </li>
          ))}
        </ul>
      )}
      <p id={echoId} aria-live="polite" className={`mb-1 min-h-10 text-sm ${entry && !entry.ok ? (refused ? "text-error" : "soft") : ""}`}>
        {!entry ? (
          <span className="soft">
            Type a reading such as <span className="font-mono">B1 318</span>, or a note. Key <kbd className="font-mono">e</kbd> jumps here.
          </span>
        ) : entry.ok ? (
          <>
            <span className="soft">Understood: </span>
            <strong>{entry.echo}</strong>
            {fit && <span className="soft">; {waiting === text ? "checking it in its place…" : checkedWords(checks)}</span>}
          </>
        ) : (
          `${entry.why}.${entry.accepted === undefined ? "" : ` Accepted: ${entry.accepted}`}`
        )}
      </p>
      <div className="flex gap-1">
        <input
          ref={field}
          className="input w-full font-mono"
          aria-label="Entry line"
          aria-describedby={echoId}
          role="combobox"
          aria-expanded={offers.length > 0}
          aria-controls={listId}
          aria-autocomplete="list"
          aria-activedescendant={offers.length > 0 ? `${listId}-${pick}` : undefined}
          autoComplete="off"
          spellCheck={false}
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setRefused(false);
            setWaiting(undefined);
          }}
          onKeyDown={onKeyDown}
        />
        <button
          className="btn btn-ghost w-11 px-0"
          aria-label="What the entry line accepts"
          aria-expanded={help}
          onClick={() => setHelp(!help)}
        >
          ?
        </button>
      </div>
      {help && (
        <ul className="mt-2 grid max-h-52 gap-0.5 overflow-y-auto font-mono text-xs">
          {ENTRY_FORMS.map((f) => (
            <li key={f}>{f}</li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** The part that a line fits, if it fits one. */
const fittedOf = (drafts: readonly EventDraft[]) => {
  const change = drafts.find((d) => d.type === "change");
  return change?.payload.kind === "replacement" ? change.payload : undefined;
};

/** The lines with what the check in its place says of the part, once it is there. */
const withChecks = (drafts: EventDraft[], { told, pending }: TypedChecks): EventDraft[] =>
  told.length === 0 || pending ? drafts : drafts.map((d) => (d.type === "change" ? { ...d, payload: { ...d.payload, checks: told } } : d));

/** Why a part is not fitted without a reason. */
function mayNotStandThere(drafts: readonly EventDraft[], { out, checks = [] }: TypedChecks): string | undefined {
  const change = fittedOf(drafts);
  if (!out || !change || (change.reason ?? "").trim().length >= 3) return undefined;
  const against = checks.filter((c) => c.verdict === "out").map((c) => `${c.what} ${c.has || "not known"}, wanted ${c.needs}`);
  return `It may not stand there: ${against.join("; ")}. With a reason after a comma it is logged all the same`;
}

const checkedWords = ({ checks, why }: TypedChecks) =>
  why
    ? `not checked in its place: ${why}`
    : checks
      ? `checked in its place${
          worstOf(checks) === "in"
            ? ""
            : `, ${checks
                .filter((c) => c.verdict !== "in")
                .map((c) => c.what)
                .join(", ")} to be looked at`
        }`
      : "";
