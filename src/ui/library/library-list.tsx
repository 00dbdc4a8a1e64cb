"use client";
/** The models of the library, and which of them comes nearest to an amp that has no drawing. */

import { words } from "@/core/language/language";
import Link from "next/link";
import { Trash2 } from "lucide-react";
import { useState } from "react";
import { complementWords, likeness, readComplement } from "@/core/circuit/nearest";
import { createColumnHelper } from "@tanstack/react-table";
import { SortTable } from "../forms/sort-table";
import type { ModelHead } from "./library-port";

export interface LibraryRow extends ModelHead {
  revision: string;
  years: string;
  watts: string;
  tubes: string[];
  points: number;
  parts: number;
  assumed: number;
  /** Came with the program. */
  example: boolean;
}

const column = createColumnHelper<LibraryRow>();
const RIGHT = { className: "text-right tabular-nums" };

/** @param types the tubes that were typed; without any there is no likeness to show. */
function columnsOf(types: string[], remove: (row: LibraryRow) => void) {
  return [
    column.accessor((r) => `${r.maker} ${r.name}`, {
      id: "model",
      header: "Model",
      cell: ({ row: { original: r } }) => (
        <>
          <Link href={`/library/${r.id}`} className="text-lg font-bold underline decoration-dotted underline-offset-4">
            {r.maker} {r.name}
          </Link>
          <span className="soft block text-sm">
            {[r.example && "example", r.revision && `revision ${r.revision}`, r.years, `version ${r.version}`].filter(Boolean).join(" · ")}
          </span>
        </>
      ),
    }),
    column.accessor((r) => complementWords(r.tubes), { id: "tubes", header: () => words("Tubes"), enableSorting: false }),
    column.accessor((r) => Number(r.watts) || 0, {
      id: "watts",
      header: "Output",
      cell: ({ row: { original: r } }) => (r.watts ? `${r.watts} W` : "–"),
      meta: RIGHT,
    }),
    column.accessor("points", { header: "Test points", meta: RIGHT }),
    column.accessor("parts", {
      header: "Parts",
      cell: ({ row: { original: r } }) => (
        <>
          {r.parts}
          {r.assumed > 0 && <span className="text-warning block text-xs">▲ {r.assumed} assumed</span>}
        </>
      ),
      meta: RIGHT,
    }),
    ...(types.length > 0
      ? [
          column.accessor((r) => likeness(r.tubes, types), {
            id: "likeness",
            header: "Similarity",
            cell: (c) => `${Math.round(c.getValue() * 100)} %`,
            meta: RIGHT,
          }),
        ]
      : []),
    column.display({
      id: "start",
      header: () => <span className="sr-only">Start from it</span>,
      cell: ({ row: { original: r } }) => (
        <span className="flex justify-end gap-1">
          <Link href={`/library/new?from=${r.id}`} className="btn btn-sm min-h-9">
            Start a new model from it
          </Link>
          {r.example && (
            <button
              className="btn btn-ghost btn-sm min-h-9"
              aria-label={`Take the example ${r.name} out`}
              title="Take the example out"
              onClick={() => remove(r)}
            >
              <Trash2 aria-hidden className="size-5" />
            </button>
          )}
        </span>
      ),
      meta: { className: "text-right" },
    }),
  ];
}

/** @param remove takes an example out; rejects with an Error whose message can be shown. */
export function LibraryList({ rows, remove }: { rows: LibraryRow[]; remove(id: number): Promise<void> }) {
  const [typed, setTyped] = useState("");
  const [problem, setProblem] = useState("");
  const takeOut = (row: LibraryRow) => {
    setProblem("");
    remove(row.id).catch((error: Error) => setProblem(error.message));
  };
  const { types, unknown } = readComplement(typed);
  const ranked =
    types.length === 0
      ? rows
      : [...rows].sort((a, b) => likeness(b.tubes, types) - likeness(a.tubes, types) || a.name.localeCompare(b.name));
  return (
    <div className="mx-auto max-w-6xl space-y-4 px-4 py-4">
      <div className="flex flex-wrap items-end gap-4">
        <h1 className="flex-1 text-2xl font-bold">Amp library</h1>
        <Link href="/library/new" className="btn btn-primary h-11">
          New model
        </Link>
      </div>
      <section aria-label="No drawing" className="rounded border border-base-300 bg-base-200 p-4">
        <label className="block">
          <span className="text-lg">
            No drawing available? <strong>{words("Type the tubes that are in it")}</strong>; the nearest model comes first.
          </span>
          <input
            className="input mt-2 h-12 w-full text-lg"
            placeholder="2 x 6V6, ECC83, ECC83, 5Y3"
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            spellCheck={false}
          />
        </label>
        <p className="soft mt-1 min-h-5 text-sm" aria-live="polite">
          {types.length > 0 && `Understood: ${complementWords(types)}. `}
          {unknown.length > 0 && `Not a type that is known here: ${unknown.join(", ")}.`}
        </p>
      </section>
      {problem && (
        <p role="alert" className="text-error">
          {problem}
        </p>
      )}
      {rows.length === 0 ? (
        <p>No model yet. “New model” asks which tubes are in the amp, or takes a circuit file.</p>
      ) : (
        <SortTable label="Models" rows={ranked} columns={columnsOf(types, takeOut)} idOf={(r) => String(r.id)} />
      )}
    </div>
  );
}
