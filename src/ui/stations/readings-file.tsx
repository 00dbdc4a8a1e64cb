"use client";
/** Readings as a file, out and in. */

import { FileField } from "../forms/file-field";
import { useJob } from "../job/job-context";

export function ReadingsFile({ jobId }: { jobId: number }) {
  const { port, tape } = useJob();
  return (
    <div className="flex flex-wrap items-center gap-3 text-sm">
      <a className="btn btn-line btn-sm" href={`/api/v1/jobs/${jobId}/readings`}>
        Readings as CSV
      </a>
      <FileField
        label="Take readings from a CSV"
        accept={{ "text/csv": [".csv"] }}
        className="btn btn-line btn-sm"
        take={async (file) => {
          const events = await port.readingsCsv(file);
          tape.merge(events);
          return `${events.length} readings taken from ${file.name}.`;
        }}
      />
    </div>
  );
}
