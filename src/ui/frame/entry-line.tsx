"use client";
/** The entry line at the foot of the tape: echoes how it understood the line before Enter, refuses with the reason. */

import { useId, useMemo, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { completions, ENTRY_FORMS, parseEntry } from "@/core/entry/entry";
import type { StationId } from "@/core/tape/stations";
import { useJob } from "../job/job-context";

export function EntryLine({ station }: { station: StationId }) {
  const { entryContext, say, refusal } = useJob();
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState(0);
  const [help, setHelp] = useState(false);
  const [refused, setRefused] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const echoId = useId();
  const listId = useId();
  const ctx = entryContext(station);
  const entry = useMemo(() => {
    const read = text.trim() ? parseEntry(text, ctx) : undefined;
    const why = read?.ok ? refusal(...read.drafts) : undefined;
    return why === undefined ? read : ({ ok: false, read: text, why, accepted: undefined } as const);
  }, [text, ctx, refusal]);
  const offers = useMemo(() => completions(text, ctx), [text, ctx]);
  const pick = Math.min(chosen, offers.length - 1);

  useHotkeys(
    "e",
    () => {
      if (!document.querySelector("dialog[open], [role=dialog]")) field.current?.focus();
    },
    { preventDefault: true },
  );

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
      setText("");
      setRefused(false);
    } else if (e.key === "Enter") {
      e.preventDefault();
      if (entry?.ok) {
        say(...entry.drafts);
        setText("");
        setRefused(false);
      } else if (entry) setRefused(true);
    }
  }

  return (
    <div className="border-t border-base-300 bg-base-100 p-2">
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
