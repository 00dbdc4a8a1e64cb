/** Faults that none of the readings could show, by the test that would show them: they are not ruled out. */

import type { SuspectsAnswer } from "@/core/ports/solver-port";

export function Untested({ list }: { list: SuspectsAnswer["notYetTestable"] }) {
  const byTest = new Map<string, string[]>();
  for (const { fault, test } of list) byTest.set(test, [...(byTest.get(test) ?? []), fault]);
  return (
    <details className="text-sm">
      <summary className="min-h-9 cursor-pointer font-bold">
        Not tested yet: {list.length} faults that none of these readings could show{" "}
        <span className="soft font-normal">(they are not ruled out)</span>
      </summary>
      <ul className="mt-1 max-h-72 overflow-y-auto">
        {[...byTest].map(([test, faults]) => (
          <li key={test} className="border-t border-base-300 py-1">
            <strong>{test}</strong> would show <span className="soft">{faults.join(", ")}</span>
          </li>
        ))}
      </ul>
    </details>
  );
}
