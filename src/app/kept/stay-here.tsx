"use client";
/** While the server is not reached, the way from station to station stays in this page, which has everything that they are drawn from. */

import type { MouseEvent, ReactNode } from "react";
import { useJob } from "@/ui/job/job-context";
import { jobPage } from "@/workers/kept-addresses";

export function StayHere({ children }: { children: ReactNode }) {
  const { jobId, tape } = useJob();
  const stay = (e: MouseEvent) => {
    const link = (e.target as Element).closest("a");
    if (!tape.outOfTouch || !link || link.origin !== window.location.origin) return;
    if (e.ctrlKey || e.metaKey || e.shiftKey || jobPage(link.pathname)?.jobId !== jobId) return;
    e.preventDefault();
    window.history.pushState(null, "", link.href);
  };
  return (
    <div className="contents" onClickCapture={stay}>
      {children}
    </div>
  );
}
