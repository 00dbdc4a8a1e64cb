"use client";
/** The ledger: everything that was changed or tried, how it was fixed, where the old part went; an experiment is kept or put back in one click. */

import { useState } from "react";
import { changeEnded, fittedAgain } from "@/core/repair/part-acts";
import type { Change } from "@/core/tape/events/work-events";
import { isIn, type Line } from "@/core/tape/fold";
import { coverageOf } from "@/core/repair/covered";
import { PartButton } from "../../drawing/part-button";
import { Section } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { formatDuration } from "@/core/quantity/format";

export function Ledger() {
  const { view } = useJob();
  const { changes } = view.state;
  return (
    <Section title="Changes" hint="replacements, repairs and experiments">
      {changes.length === 0 ? (
        <p className="soft mb-3">Nothing changed yet. What is fitted here goes into the owner&apos;s report.</p>
      ) : (
        <table className="table table-sm mb-3" aria-label="Changes">
          <thead>
            <tr>
              <th>Where</th>
              <th>Was</th>
              <th>Now</th>
              <th>Why</th>
              <th>Stands</th>
            </tr>
          </thead>
          <tbody>
            {changes.map((c, i) => (
              <Row key={c.seq} change={c} again={changes.slice(0, i).findLast((b) => isIn(b) && isIn(c) && same(b, c))} />
            ))}
          </tbody>
        </table>
      )}
    </Section>
  );
}

const same = (a: Change, b: Change) =>
  a.position.trim().toUpperCase() === b.position.trim().toUpperCase() && a.kind !== "experiment" && b.kind !== "experiment";

/** @param again an earlier change of the same position that is in the amp: a part fitted twice, or logged twice. */
function Row({ change: c, again }: { change: Line<Change>; again?: Line<Change> }) {
  const { view } = useJob();
  const cover = coverageOf(view.state, c, c.seq);
  const out = !isIn(c);
  return (
    <tr className={out ? "opacity-70" : ""}>
      <td className="align-top">
        <PartButton name={c.position}>
          <strong>{c.position}</strong>
        </PartButton>{" "}
        <span className="soft">{c.kind === "replacement" ? "" : c.kind}</span>
      </td>
      <td className="align-top">
        {c.oldPart} {c.oldMeasured && <span className="soft">measured {c.oldMeasured}</span>}
        {c.oldWent && <span className="soft block text-xs">old part: {c.oldWent}</span>}
        <Picture hash={c.photoBefore} says={`${c.position} before`} />
      </td>
      <td className="align-top">
        {c.hypothesis && <span className="soft block text-xs">hypothesis: {c.hypothesis}</span>}
        {c.newPart} {c.kind === "experiment" && c.set && c.set.length > 0 && <code className="font-mono text-xs">{c.set.join(" ")}</code>}
        <span className="soft block text-xs">
          {[
            c.source,
            c.stock && `number ${c.stock}`,
            c.batch && `batch ${c.batch}`,
            ...(c.fixings ?? []),
            c.fixing,
            c.minutes && formatDuration(c.minutes * 60),
          ]
            .filter(Boolean)
            .join(", ")}
        </span>
        {c.checks?.map((check) => (
          <span key={check} className="soft block text-xs">
            {check}
          </span>
        ))}
        <Picture hash={c.photoAfter} says={`${c.position} after`} />
      </td>
      <td className="align-top">
        {c.reason}
        {(c.before || c.after || c.result) && (
          <span className="soft block text-xs">
            {[c.before && `before: ${c.before}`, c.after && `after: ${c.after}`, c.result].filter(Boolean).join("; ")}
          </span>
        )}
      </td>
      <td className="align-top">
        <Stands change={c} />
        {!c.reversible && <span className="block text-xs">cannot be reversed</span>}
        {c.unagreed && <span className="block text-xs text-warning">▲ not agreed: {c.unagreed}</span>}
        {!cover.covered && !c.unagreed && <span className="block text-xs text-warning">▲ {cover.why}</span>}
        {again && (
          <span className="block text-xs text-warning">
            ▲ {c.position} is in line {again.seq} too ({again.who}). If it is the same part, undo one of them.
          </span>
        )}
      </td>
    </tr>
  );
}

function Picture({ hash, says }: { hash?: string; says: string }) {
  if (!hash) return null;
  return (
    <a href={`/api/v1/photos/${hash}`} target="_blank" rel="noreferrer">
      <img src={`/api/v1/photos/${hash}`} alt={says} className="mt-1 max-h-16 border border-base-300" />
    </a>
  );
}

/** Kept, put back or fitted again: each is a line, so that the tape keeps them all. */
function Stands({ change: c }: { change: Line<Change> }) {
  const { say, tape } = useJob();
  const [result, setResult] = useState("");
  const waiting = c.seq >= tape.pendingFrom;
  const end = (outcome: "kept" | "reverted") => say(changeEnded(c, outcome, { after: result.trim() }));
  if (!isIn(c))
    return (
      <span>
        put back{" "}
        <button
          className="btn btn-line btn-sm"
          disabled={waiting}
          aria-label={`Fit ${c.position} again`}
          onClick={() => say(fittedAgain(c))}
        >
          Fit again
        </button>
      </span>
    );
  const trial = c.kind === "experiment" && (c.outcome ?? "open") === "open";
  return (
    <span className="flex flex-wrap items-center gap-1">
      {trial ? (
        <input
          className="input input-sm min-h-9 w-32"
          placeholder="result"
          aria-label="After the experiment"
          value={result}
          onChange={(e) => setResult(e.target.value)}
        />
      ) : (
        <span>{c.kind === "experiment" ? "kept" : "in the amp"}</span>
      )}
      {trial && (
        <button className="btn btn-line btn-sm" disabled={waiting} onClick={() => end("kept")}>
          Kept
        </button>
      )}
      <button
        className="btn btn-line btn-sm"
        disabled={waiting}
        aria-label={trial ? "Put back" : `Put back ${c.position}`}
        onClick={() => end("reverted")}
      >
        Put back
      </button>
    </span>
  );
}
