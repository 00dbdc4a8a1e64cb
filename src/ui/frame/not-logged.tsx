"use client";
/** What may not be logged now, where no form keeps it: which rule stands against it, until something else is logged. */

import { useRefusals } from "../job/refusals";

export function NotLogged({ large = false }: { large?: boolean }) {
  const { says, clear } = useRefusals();
  if (!says) return null;
  return (
    <div
      role="alert"
      className={
        large
          ? "probe-watch flex items-center gap-6 border-b border-base-300 px-6 py-3 text-3xl font-bold"
          : "mb-3 flex items-center gap-3 rounded border-2 border-warning p-3"
      }
    >
      <p className="min-w-0 flex-1">
        <strong>▲ Not logged.</strong> {says}
      </p>
      <button className="btn btn-sm min-h-11" onClick={clear}>
        Understood
      </button>
    </div>
  );
}
