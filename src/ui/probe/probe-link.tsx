"use client";
/** The way into probe mode, also by the key p. */

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect } from "react";
import { useJob } from "../frame/job-context";
import type { ProbingOrder } from "./use-probe-walk";

export function ProbeLink({ order }: { order: ProbingOrder | "cold" }) {
  const { jobId } = useJob();
  const router = useRouter();
  const href = `/jobs/${jobId}/probe?order=${order}`;
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = /^(INPUT|TEXTAREA|SELECT)$/.test((e.target as HTMLElement).tagName);
      if (e.key !== "p" || typing || e.ctrlKey || e.metaKey || e.altKey || document.querySelector("dialog[open]")) return;
      e.preventDefault();
      router.push(href);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [router, href]);
  return (
    <Link href={href} prefetch={false} className="btn btn-outline ml-auto">
      {order === "suspects" ? "Hunt with the probe" : "Probe mode"} <kbd className="soft font-mono text-sm">p</kbd>
    </Link>
  );
}
