/** The suspects with their probability, what each explains and what it does not; one is chosen to be compared. */

import { historyWords, type PartHistory } from "@/core/suspects/history";
import type { Suspect } from "@/core/suspects/rank";
import { partsOf, waysOf } from "./suspect-words";

/** What lies under this is folded into one line, so many of it by name. */
const LEAST_SHOWN = 0.02;
const MOST_FOLDED = 6;

export function SuspectList({
  suspects,
  picked,
  choose,
  history,
}: {
  suspects: Suspect[];
  picked?: Suspect;
  choose(fault: string): void;
  history: PartHistory;
}) {
  // A sound amp is always there to compare with, and so is the one that is looked at.
  const isShown = (s: Suspect, i: number) => i === 0 || s === picked || s.refs.length === 0 || s.groupProbability >= LEAST_SHOWN;
  const shown = suspects.filter(isShown);
  const folded = suspects.filter((s, i) => !isShown(s, i));
  return (
    <section aria-label="Suspects">
      <h2 className="font-bold">Suspects</h2>
      <ul className="mt-1 space-y-1">
        {shown.map((s) => (
          <li key={s.fault}>
            <button
              className={`w-full rounded border px-3 py-2 text-left ${s === picked ? "border-primary bg-base-200" : "border-base-300"}`}
              aria-pressed={s === picked}
              onClick={() => choose(s.fault)}
            >
              <span className="flex items-baseline gap-3">
                <span className="flex-1 text-lg font-bold">
                  {s.fault}
                  {waysOf(s).length > 0 && (
                    <span className="soft block text-sm font-normal">or, the same part: {waysOf(s).join(", ")}</span>
                  )}
                  {partsOf(s).length > 1 && (
                    <span className="soft block text-sm font-normal">cannot be told apart from: {partsOf(s).slice(1).join(", ")}</span>
                  )}
                </span>
                <span className="text-lg tabular-nums">
                  {s.groupProbability < 0.01 ? "under 1" : Math.round(s.groupProbability * 100)} %
                </span>
              </span>
              <span className="mt-1 block h-2 bg-base-300" aria-hidden>
                <span className="block h-2 bg-primary" style={{ width: `${Math.max(0.5, s.groupProbability * 100)}%` }} />
              </span>
              <span className="soft mt-1 block text-sm">
                {s.explains.length > 0 && `explains ${s.explains.join(", ")}`}
                {s.explains.length > 0 && s.against.length > 0 && "; "}
                {s.against.length > 0 && `does not explain ${s.against.join(", ")}`}
                {s.explains.length + s.against.length === 0 && "no reading confirms or contradicts it"}
                {historyWords(s.refs, history) && <span className="block">{historyWords(s.refs, history)}</span>}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {folded.length > 0 && (
        <p className="soft mt-2 text-sm">
          {folded.length} more under 2 % each:{" "}
          {folded
            .slice(0, MOST_FOLDED)
            .map((s) => s.fault)
            .join(", ")}
          {folded.length > MOST_FOLDED && " …"}
        </p>
      )}
    </section>
  );
}
