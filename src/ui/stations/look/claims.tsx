"use client";
/** Work that is said to have been done, against dates and findings. */

import { useMemo } from "react";
import { checkClaims, type ClaimCheck } from "@/core/inspection/claims";
import type { Verdict } from "@/core/expectation/expectation";
import { Section } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { VerdictMark } from "../../forms/verdict-mark";

const MARK: Record<ClaimCheck["says"], Verdict> = {
  confirmed: "in",
  contradicted: "out",
  "no evidence": "watch",
  "no date codes": "none",
};

export function Claims() {
  const { view } = useJob();
  const checks = useMemo(() => checkClaims(view.state), [view.state]);
  if (checks.length === 0) return null;
  return (
    <Section title="Earlier work as claimed" hint="checked against date codes and findings">
      <ul className="space-y-2">
        {checks.map((c) => (
          <li key={c.claim} className="flex gap-3">
            <span className="pt-1">
              <VerdictMark verdict={MARK[c.says]} />
            </span>
            <span>
              <strong>“{c.claim}”</strong> {c.year && <span className="soft">{c.year}</span>}: {c.says}
              {c.evidence.map((e) => (
                <span key={e} className="block text-sm">
                  {e}
                </span>
              ))}
              {c.says !== "confirmed" && <span className="soft block text-sm">Look at: {c.look}</span>}
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}
