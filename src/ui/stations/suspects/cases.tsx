"use client";
/** The old jobs behind what the shop's history says of a suspect, and old cases like this job. */

import Link from "next/link";
import { useEffect, useState } from "react";
import type { OldCase } from "@/core/memory/similar";
import { historyCases, type PartHistory } from "@/core/suspects/history";
import { useJob } from "../../job/job-context";

/** One click from the suspect to the jobs that its prior was learnt from. */
export function CasesOf({ refs, history }: { refs: readonly string[]; history: PartHistory }) {
  const cases = historyCases(refs, history);
  if (cases.length === 0) return null;
  return (
    <details className="mb-3 text-sm">
      <summary className="min-h-9 cursor-pointer">
        {cases.length} old {cases.length === 1 ? "case" : "cases"} behind it
      </summary>
      <ul>
        {cases.map((c) => (
          <li key={`${c.job} ${c.line}`}>
            <Link className="underline" href={`/jobs/${c.job}/work`} prefetch={false}>
              job {c.job}
            </Link>
            , line {c.line}: {c.says}
          </li>
        ))}
      </ul>
    </details>
  );
}

export function SimilarCases() {
  const { port, tape } = useJob();
  const [found, setFound] = useState<OldCase[]>();
  const [failed, setFailed] = useState("");
  // Anew as the tape grows: a reading may make another case like this one.
  const lines = tape.pendingFrom;
  useEffect(() => {
    let gone = false;
    port.similar().then(
      (cases) => {
        if (gone) return;
        setFound(cases);
        setFailed("");
      },
      (e: Error) => !gone && setFailed(e.message),
    );
    return () => {
      gone = true;
    };
  }, [port, lines]);
  return (
    <section aria-label="Similar old cases">
      <h2 className="font-bold">Similar old cases</h2>
      {failed && (
        <p role="alert" className="text-sm text-error">
          They cannot be looked up: {failed}
        </p>
      )}
      {found?.length === 0 && <p className="soft text-sm">None in this shop yet: no job with a like complaint, or the same points out.</p>}
      <ul className="mt-1 space-y-2">
        {found?.map((c) => (
          <li key={c.job} className="border-l-4 border-base-300 pl-3">
            <Link className="font-bold underline" href={`/jobs/${c.job}/return`} prefetch={false}>
              job {c.job}
            </Link>
            , {c.amp}: “{c.complaint}”
            <span className="block text-sm">
              {c.cures.length > 0 ? (
                <>
                  {c.proved ? "● Cured, shown: " : "▲ Cured with: "}
                  {c.cures.join("; ")}
                </>
              ) : (
                <span className="soft">{c.cured ? "cured, nothing was changed" : "not cured yet"}</span>
              )}
            </span>
            <span className="soft block text-sm">{c.why.join("; ")}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
