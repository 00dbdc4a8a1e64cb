"use client";
/** How a finding was resolved; without a word it stays open. */

import { useTypedForm } from "../forms/typed-form";
import { useJob } from "../job/job-context";

export function CloseForm({ seq, onDone }: { seq: number; onDone(): void }) {
  const { say } = useJob();
  const { field, onSubmit } = useTypedForm({ how: "" }, ({ how }) => {
    if (how.trim()) say({ type: "finding-closed", payload: { finding: seq, how: how.trim() } });
    onDone();
  });
  return (
    <form className="flex gap-1" onSubmit={onSubmit}>
      <input
        autoFocus
        className="input input-sm min-h-9 w-44"
        placeholder="how it was resolved"
        aria-label="How the finding was resolved"
        {...field("how")}
      />
      <button className="btn btn-sm min-h-9">Close</button>
    </form>
  );
}
