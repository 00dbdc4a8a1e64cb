"use client";
import Link from "next/link";
import { useState } from "react";
import { FileField } from "@/ui/forms/file-field";
import { Section } from "@/ui/forms/section";

/** Reads a job archive from another bench into this shop. */
export function ImportJob() {
  const [opened, setOpened] = useState<number>();
  async function take(file: File): Promise<string> {
    setOpened(undefined);
    const response = await fetch("/api/v1/import", { method: "POST", body: file }).catch((error: unknown) => {
      throw new Error("the server is not reached; try again", { cause: error });
    });
    const answer = (await response.json()) as { id?: number; renumbered?: boolean; error?: string };
    if (!answer.id) throw new Error(answer.error ?? "it was not taken");
    setOpened(answer.id);
    return `${file.name} is here as job ${answer.id}${answer.renumbered ? "; its own number was taken" : ""}.`;
  }
  return (
    <Section title="Import a job archive" hint="a ZIP file that Scutum exported at Return">
      <div className="flex flex-wrap items-center gap-3">
        <FileField label="Choose the file" accept={{ "application/zip": [".zip"] }} take={take} />
        {opened && (
          <Link className="underline" href={`/jobs/${opened}/intake`}>
            Open job {opened}
          </Link>
        )}
      </div>
    </Section>
  );
}
