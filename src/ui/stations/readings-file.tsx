"use client";
/** Readings as a file, out and in. */

import { useState } from "react";
import { useJob } from "../frame/job-context";

export function ReadingsFile({ jobId }: { jobId: number }) {
  const { port, tape } = useJob();
  const [says, setSays] = useState("");
  async function take(file: File | undefined) {
    if (!file) return;
    setSays(`Reading ${file.name}…`);
    try {
      const events = await port.readingsCsv(file);
      tape.merge(events);
      setSays(`${events.length} readings taken from ${file.name}.`);
    } catch (error) {
      setSays((error as Error).message);
    }
  }
  return (
    <div className="flex flex-wrap items-center gap-3 text-sm">
      <a className="btn btn-line btn-sm" href={`/api/v1/jobs/${jobId}/readings`}>
        Readings as CSV
      </a>
      <label className="btn btn-line btn-sm">
        Take readings from a CSV
        <input
          type="file"
          accept=".csv,text/csv"
          className="sr-only"
          onChange={(e) => {
            void take(e.target.files?.[0]);
            e.target.value = "";
          }}
        />
      </label>
      <span role="status">{says}</span>
    </div>
  );
}
