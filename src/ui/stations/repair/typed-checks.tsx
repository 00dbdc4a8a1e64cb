"use client";
/** What a typed part does not fulfil in its place, beside where it is typed. */

import { worstOf } from "@/core/capacitor/check";
import type { TypedChecks } from "../../job/use-typed-checks";
import { CheckMark } from "../capacitors/checks-table";

export function TypedChecksNote({ checks: { checks, why, out } }: { checks: TypedChecks }) {
  if (why) return <p className="soft col-span-full text-sm">○ {why}</p>;
  if (!checks) return null;
  const open = checks.filter((c) => c.verdict !== "in");
  return (
    <div className="col-span-full text-sm" role="status" aria-label="Check of the new part">
      <p>
        <CheckMark verdict={worstOf(checks)} />{" "}
        {out
          ? "It may not stand there"
          : `checked: ${checks
              .filter((c) => c.verdict === "in")
              .map((c) => c.what)
              .join(", ")}`}
      </p>
      <ul>
        {open.map((c) => (
          <li key={c.what} className={c.verdict === "out" ? "text-error" : ""}>
            {c.what}: {c.has || "not known"}, wanted {c.needs}
            {c.why && ` – ${c.why}`}
          </li>
        ))}
      </ul>
    </div>
  );
}
