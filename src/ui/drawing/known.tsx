"use client";
/** Beside the drawing: everything that is known of what is in hand. */

import { useMemo, type ReactNode } from "react";
import { words } from "@/core/language/language";
import { fileName, type Circuit } from "@/core/circuit/circuit";
import type { Solution } from "@/core/expectation/solution";
import { faultsOf } from "@/core/suspects/faults";
import type { InHand } from "../job/job-context";
import { nodeFacts, partFacts, type Fact } from "@/core/job/known-of";

interface KnownProps {
  circuit: Circuit;
  at: InHand;
  solution?: Solution;
  pick(at: InHand): void;
  /** What this job has seen of it. */
  history?: ReactNode;
  /** What can be done with it here. */
  action?: ReactNode;
}

export function Known({ circuit, at, solution, pick, history, action }: KnownProps) {
  return (
    <div className="space-y-2 text-sm" aria-live="polite">
      {"part" in at ? (
        <PartKnown circuit={circuit} part={at.part} solution={solution} pick={pick} />
      ) : (
        <NodeKnown circuit={circuit} node={at.node} solution={solution} pick={pick} />
      )}
      {action}
      {history}
    </div>
  );
}

function Facts({ facts }: { facts: Fact[] }) {
  if (facts.length === 0) return null;
  return (
    <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-3">
      {facts.map((f) => (
        <div key={f.name} className="contents">
          <dt className="soft">{f.name}</dt>
          <dd className={f.over ? "verdict-out font-bold" : "font-bold"}>
            {f.over && "■ "}
            {f.value}
          </dd>
        </div>
      ))}
    </dl>
  );
}

function PartKnown({ circuit, part, solution, pick }: { circuit: Circuit; part: string; solution?: Solution; pick(at: InHand): void }) {
  const known = useMemo(() => partFacts(circuit, part, solution), [circuit, part, solution]);
  const e = circuit.elements.find((each) => fileName(each) === part);
  const faults = useMemo(
    () =>
      e
        ? faultsOf(circuit)
            .filter((f) => f.refs.includes(e.name))
            .map((f) => f.name)
        : [],
    [circuit, e],
  );
  if (!known || !e)
    return (
      <p>
        <strong className="text-lg">{part}</strong> <span className="soft">{words("of the heaters")}</span>
      </p>
    );
  return (
    <>
      <p>
        <strong className="text-lg">{known.title}</strong>
        <span className="soft block">{known.place}</span>
      </p>
      <Facts facts={known.facts} />
      {known.work.length > 0 && <p className="soft">Computed for now, no signal:</p>}
      <Facts facts={known.work} />
      <p className="flex flex-wrap items-center gap-1">
        <span className="soft mr-1">Ends at</span>
        {[...new Set(e.nodes)].map((n) => (
          <button key={n} className="btn btn-ghost btn-sm min-h-9 px-2" onClick={() => pick({ node: n })}>
            {nodeFacts(circuit, n, undefined).title.split(",")[0]}
          </button>
        ))}
      </p>
      {faults.length > 0 && (
        <details>
          <summary className="min-h-9 cursor-pointer">Faults it can have: {faults.length}</summary>
          <ul className="list-disc pl-5">
            {faults.map((f) => (
              <li key={f}>{f}</li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

function NodeKnown({ circuit, node, solution, pick }: { circuit: Circuit; node: string; solution?: Solution; pick(at: InHand): void }) {
  const known = useMemo(() => nodeFacts(circuit, node, solution), [circuit, node, solution]);
  return (
    <>
      <p>
        <strong className="text-lg">{known.title}</strong>
        {known.pins.length > 0 && <span className="soft block">{known.pins.join(", ")}</span>}
      </p>
      <Facts facts={known.facts} />
      {known.parts.length > 0 && (
        <ul className="flex flex-col" aria-label="Parts that meet here">
          {known.parts.map((p) => (
            <li key={p.part}>
              <button className="min-h-9 text-left underline decoration-dotted underline-offset-4" onClick={() => pick({ part: p.part })}>
                {p.name}
              </button>{" "}
              <span className="soft">{p.terminal}</span>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
