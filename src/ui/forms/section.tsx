/** A part of a station's sheet with its heading and what stands there already. */

import type { ReactNode } from "react";

export function Section({ title, hint, children }: { title: string; hint?: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="border-t border-base-300 py-3 first:border-t-0 first:pt-0">
      <h2 className="text-base font-bold">
        {title} {hint && <span className="soft text-sm font-normal">{hint}</span>}
      </h2>
      <div className="mt-2">{children}</div>
    </section>
  );
}

/** A label over its control, with the reason when it was refused. */
export function Field({
  label,
  error,
  children,
  className = "",
}: {
  label: string;
  error?: string;
  children: ReactNode;
  className?: string;
}) {
  return (
    <label className={`block text-sm ${className}`}>
      <span className="mb-1 block">{label}</span>
      {children}
      {error && (
        <span role="alert" className="mt-1 block text-error">
          {error}
        </span>
      )}
    </label>
  );
}
