"use client";
/** Why the amp is not to be used, as it stands on the owner's report. */

import { notToBeUsed } from "@/core/papers/report-front";
import { useJob } from "../../job/job-context";

export function NotToBeUsed() {
  const { view, settings } = useJob();
  const warnings = notToBeUsed(view, settings);
  if (warnings.length === 0) return null;
  return (
    <ul aria-label="Whether it may be used" className="mt-2 mb-2 text-lg font-bold text-error">
      {warnings.map((w) => (
        <li key={w}>■ {w}</li>
      ))}
    </ul>
  );
}
