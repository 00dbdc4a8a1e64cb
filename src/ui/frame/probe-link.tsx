"use client";
/** The way into probe mode, also by the key p. */

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useHotkeys } from "react-hotkeys-hook";
import { useJob } from "../job/job-context";
import type { ProbingOrder } from "@/core/walk/probe-order";

/** @param label what it is called where that is not the walk. */
export function ProbeLink({ order, label }: { order: ProbingOrder | "cold" | "safe" | `bias:${string}`; label?: string }) {
  const { jobId } = useJob();
  const router = useRouter();
  const href = `/jobs/${jobId}/probe?order=${order}`;
  useHotkeys(
    "p",
    () => {
      if (!document.querySelector("dialog[open], [role=dialog]")) router.push(href);
    },
    { preventDefault: true },
    [router, href],
  );
  return (
    <Link href={href} prefetch={false} className={`btn btn-outline ${label ? "" : "ml-auto"}`}>
      {label ?? (order === "suspects" ? "Guided by the probe" : "Probe mode")} <kbd className="soft font-mono text-sm">p</kbd>
    </Link>
  );
}
