"use client";
/** Storing what was changed: who made the amp and what it is called, as the model's next version or as a new one. */

import { useState } from "react";
import { setFact } from "@/core/circuit/edit-line";
import type { ReadResult } from "@/core/circuit/read";
import { Field } from "../forms/section";
import type { LibraryPort, ModelHead } from "./library-port";
import type { Draft } from "./use-draft";

interface StoreBarProps {
  draft: Draft;
  stored: string;
  read: ReadResult;
  head?: ModelHead;
  versions: ModelHead[];
  /** Models of the library: one of the same name gets another version. */
  others: ModelHead[];
  port: LibraryPort;
  saved(head: ModelHead): void | Promise<void>;
}

export function StoreBar({ draft, stored, read, head, versions, others, port, saved }: StoreBarProps) {
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState("");
  const { text, setText } = draft;
  const { facts } = read.circuit;
  const changed = text !== stored;
  const same = head ? undefined : others.find((o) => o.maker === facts.maker && o.name === facts.model);
  const ready = read.errors.length === 0 && text.trim() !== "" && (head !== undefined || (facts.maker && facts.model));
  async function save() {
    setBusy(true);
    setProblem("");
    try {
      const made = await port.save(text);
      draft.forget();
      await saved(made);
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setBusy(false);
    }
  }
  return (
    <div className="ml-auto flex flex-wrap items-center gap-2">
      {!head && (
        <>
          <Field label="Maker" className="flex items-center gap-2">
            <input
              className="input w-36"
              value={facts.maker ?? ""}
              onChange={(e) => setText(setFact(text || "Untitled", "maker", e.target.value))}
            />
          </Field>
          <Field label="Model" className="flex items-center gap-2">
            <input
              className="input w-36"
              value={facts.model ?? ""}
              onChange={(e) => setText(setFact(text || "Untitled", "model", e.target.value))}
            />
          </Field>
        </>
      )}
      <button className="btn btn-primary h-11" disabled={!(changed || !head) || !ready || busy} onClick={() => void save()}>
        {head
          ? `Store as version ${(versions[0]?.version ?? head.version) + 1}`
          : same
            ? `Store as version ${same.version + 1} of ${same.name}`
            : "Store in the library"}
      </button>
      <button className="btn h-11" disabled={!changed} onClick={draft.discard}>
        {head ? "Discard changes" : "Start anew"}
      </button>
      {draft.from && changed && (
        <span className="soft text-sm">
          Goes on where it was left on {draft.from.toLocaleDateString()} at{" "}
          {draft.from.toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" })}.
        </span>
      )}
      {draft.notKept && <span className="text-warning text-sm">▲ Not kept in this browser: {draft.notKept}</span>}
      {problem && (
        <p role="alert" className="basis-full text-error">
          {problem}
        </p>
      )}
    </div>
  );
}
