"use client";
/** Under which conditions the model is solved: the mains, the tubes that are out; and how the solving goes. */

import { figure, fixed, typedNumber, words } from "@/core/language/language";
import type { Circuit } from "@/core/circuit/circuit";
import { removableTubes } from "@/core/circuit/nearest";
import type { Solution } from "@/core/expectation/solution";
import type { SolvedState } from "../job/use-solved";

export interface ConditionsTyped {
  mains: string;
  out: string[];
}

export function ConditionsBar({
  circuit,
  typed,
  change,
  solution,
  bands,
  cancel,
}: {
  circuit: Circuit;
  typed: ConditionsTyped;
  change(to: ConditionsTyped): void;
  solution?: Solution;
  bands: SolvedState;
  cancel(): void;
}) {
  const names = removableTubes(circuit);
  const bad = typed.mains !== "" && !(typedNumber(typed.mains) > 0 && typedNumber(typed.mains) <= 500);
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2 text-sm">
      {circuit.mains && (
        <label className="flex items-center gap-2">
          {words("Mains, V")}
          <input
            className="input h-11 w-24 text-right tabular-nums"
            inputMode="decimal"
            placeholder={figure(circuit.mains.volts)}
            value={typed.mains}
            aria-invalid={bad}
            onChange={(e) => change({ ...typed, mains: e.target.value })}
          />
        </label>
      )}
      <fieldset className="flex flex-wrap items-center gap-1">
        <legend className="float-left mr-2">{words("Tubes fitted")}</legend>
        {names.map((name) => {
          const out = typed.out.includes(name);
          return (
            <button
              key={name}
              type="button"
              aria-pressed={!out}
              className={`btn btn-sm min-h-9 ${out ? "btn-ghost line-through" : "btn-secondary"}`}
              onClick={() => change({ ...typed, out: out ? typed.out.filter((t) => t !== name) : [...typed.out, name] })}
            >
              {name}
            </button>
          );
        })}
      </fieldset>
      <span className="soft">
        {solution && `${solution.iterations} iterations, ${fixed(solution.ms, 1)} ms`}
        {bad && (
          <span className="text-error">
            {" "}
            {words("Mains")}: accepted 1 to 500 V; read {typed.mains}
          </span>
        )}
      </span>
      {bands.progress !== undefined && (
        <span className="flex items-center gap-2" role="status">
          <span className="soft">Bands: 400 amps drawn within tolerance</span>
          <progress className="progress w-28" value={bands.progress} max={1} aria-label="Drawing bands" />
          <button className="btn btn-ghost btn-sm min-h-9" onClick={cancel}>
            Stop
          </button>
        </span>
      )}
      {bands.failed && <span className="soft">Bands: {bands.failed}</span>}
    </div>
  );
}
