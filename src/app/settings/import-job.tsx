"use client";
import Link from "next/link";
import { useState } from "react";
import { Section } from "@/ui/forms/section";

/** Reads a job archive from another bench into this shop. */
export function ImportJob() {
  const [says, setSays] = useState<{ text: string; id?: number; bad?: boolean }>();
  async function take(file: File | undefined) {
    if (!file) return;
    setSays({ text: `Reading ${file.name}…` });
    try {
      const response = await fetch("/api/v1/import", { method: "POST", body: file });
      const answer = (await response.json()) as { id?: number; renumbered?: boolean; error?: string };
      if (answer.id)
        setSays({
          text: `${file.name} is here as job ${answer.id}${answer.renumbered ? "; its own number was taken" : ""}.`,
          id: answer.id,
        });
      else setSays({ text: `${file.name}: ${answer.error ?? "not taken"}`, bad: true });
    } catch {
      setSays({ text: "The server is not reached. Try again.", bad: true });
    }
  }
  return (
    <Section title="Read in a job archive" hint="a ZIP that Scutum exported at Return">
      <div className="flex flex-wrap items-center gap-3">
        <label className="btn">
          Choose the file
          <input
            type="file"
            accept=".zip,application/zip"
            className="sr-only"
            onChange={(e) => {
              void take(e.target.files?.[0]);
              e.target.value = "";
            }}
          />
        </label>
        {says && (
          <p role={says.bad ? "alert" : "status"} className={says.bad ? "text-error" : ""}>
            {says.text}{" "}
            {says.id && (
              <Link className="underline" href={`/jobs/${says.id}/intake`}>
                Open it
              </Link>
            )}
          </p>
        )}
      </div>
    </Section>
  );
}
