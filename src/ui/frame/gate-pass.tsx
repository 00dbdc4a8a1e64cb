"use client";
/** Past a gate without the proof: only with a reason, which lands on the tape. */

import { refusedTo } from "@/core/shop/people";
import type { StationId } from "@/core/tape/stations";
import { Field } from "../forms/section";
import { useTypedForm } from "../forms/typed-form";
import { useJob } from "../job/job-context";

export function GatePass({ station }: { station: StationId }) {
  const { say, role } = useJob();
  const { field, onSubmit, typed } = useTypedForm({ reason: "" }, ({ reason }) => {
    if (reason.trim().length >= 3) say({ type: "gate-passed", payload: { station, reason: reason.trim(), understood: true } });
  });
  const refused = refusedTo(role, { type: "gate-passed", payload: {} });
  if (refused) return <p className="flex-1 text-sm">{refused}.</p>;
  return (
    <form className="flex flex-1 items-end gap-2" onSubmit={onSubmit}>
      <Field label="Or go on without it: reason, kept on the tape" className="flex-1">
        <input className="input w-full" placeholder="looking only, chassis still closed" {...field("reason")} />
      </Field>
      <button className="btn" disabled={typed.reason.trim().length < 3}>
        Go on without it
      </button>
    </form>
  );
}
