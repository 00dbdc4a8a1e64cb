/** Causes that are left, each with its part of the whole, and the tests that may be done instead of the one proposed. */

import { tellsHowMuch, effortOf } from "@/core/texts/diagnosis";
import { PartButton } from "../drawing/part-button";
import { capital } from "../job/words";

export interface CauseBar {
  id: string;
  probability: number;
  says: string;
  /** The part that it is about, where there is one: its name leads to the drawing. */
  part?: string;
  /** What it does not explain, or the like. */
  aside?: string;
}

export function CauseBars({ hint, causes }: { hint: string; causes: readonly CauseBar[] }) {
  return (
    <section aria-label="Possible causes">
      <h2 className="font-bold">
        Possible causes <span className="soft font-normal">{hint}</span>
      </h2>
      <ul className="mt-1">
        {causes.map((c) => (
          <li key={c.id} className="grid grid-cols-[4rem_8rem_minmax(0,1fr)] items-baseline gap-3 py-0.5">
            <span className="text-right tabular-nums">{Math.round(c.probability * 100)} %</span>
            <span aria-hidden className="h-3 rounded-sm bg-base-300">
              <span className="block h-3 rounded-sm bg-primary" style={{ width: `${100 * c.probability}%` }} />
            </span>
            <span>
              {c.part === undefined ? capital(c.says) : <PartButton name={c.part}>{capital(c.says)}</PartButton>}
              {c.aside && <span className="soft text-sm"> {c.aside}</span>}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** @param tests those that may be chosen, the best first. */
export function Instead({
  tests,
  choose,
}: {
  tests: readonly { id: string; what: string; bits: number; cost: number }[];
  choose(id: string): void;
}) {
  if (tests.length === 0) return null;
  return (
    <details className="mt-2 text-sm">
      <summary className="cursor-pointer py-2">Choose another test</summary>
      <ul>
        {tests.slice(0, 10).map((t) => (
          <li key={t.id}>
            <button className="min-h-11 text-left underline decoration-dotted underline-offset-4" onClick={() => choose(t.id)}>
              {t.what}
            </button>{" "}
            <span className="soft">
              {tellsHowMuch(t.bits)}, {effortOf(t.cost)}
            </span>
          </li>
        ))}
      </ul>
    </details>
  );
}
