"use client";
/** Why a line of the tape is undone; Escape leaves it as it was. */

import { useForm } from "react-hook-form";
import { useJob } from "../job/job-context";

export function Strike({ seq, strike, close }: { seq: number; strike(reason: string): void; close(): void }) {
  const { refusal } = useJob();
  const { register, handleSubmit } = useForm({ defaultValues: { reason: "" } });
  const refused = refusal({ type: "undo", payload: {}, supersedes: seq, reason: "undone" });
  if (refused)
    return (
      <p role="alert" className="mt-1 text-sm text-warning">
        {refused}.{" "}
        <button autoFocus className="btn btn-xs" onClick={close} onKeyDown={(e) => e.key === "Escape" && close()}>
          Leave it
        </button>
      </p>
    );
  return (
    <form
      className="mt-1 flex gap-1"
      onSubmit={handleSubmit(({ reason }) => strike(reason.trim() || "undone"))}
      onKeyDown={(e) => e.key === "Escape" && close()}
    >
      <input
        autoFocus
        className="input input-sm min-h-9 flex-1"
        placeholder="reason (stays on the tape)"
        aria-label={`Reason for undoing line ${seq}`}
        {...register("reason")}
      />
      <button className="btn btn-sm min-h-9">Undo this line</button>
    </form>
  );
}
