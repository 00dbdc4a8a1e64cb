/** A table that scrolls sideways in its own place where the screen is narrower, so that the page around it does not. */

import type { ReactNode } from "react";

export function WideTable({ label, className, children }: { label: string; className: string; children: ReactNode }) {
  return (
    <div className="max-w-full overflow-x-auto" tabIndex={0} role="group" aria-label={`${label}, the whole width`}>
      <table className={className} aria-label={label}>
        {children}
      </table>
    </div>
  );
}
