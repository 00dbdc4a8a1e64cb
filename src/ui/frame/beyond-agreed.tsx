"use client";
/** A change that goes beyond what the owner agreed to: ask, or say why. */

import { useState } from "react";
import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { Field } from "../forms/section";
import { useJob } from "../job/job-context";

export function BeyondAgreed() {
  const { held } = useJob();
  const [reason, setReason] = useState("");
  if (!held) return null;
  return (
    <Dialog open onClose={held.drop} className="relative z-50">
      <div className="fixed inset-0 bg-black/50" aria-hidden />
      <div className="fixed inset-0 flex items-center justify-center p-4">
        <DialogPanel className="max-w-xl rounded border border-base-300 bg-base-100 p-5">
          <DialogTitle className="text-lg font-bold">▲ Beyond what was agreed</DialogTitle>
          <ul className="my-3 space-y-1">
            {held.says.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
          <button className="btn btn-primary w-full" onClick={held.ask}>
            Ask the owner first: note it as a question
          </button>
          <form
            className="mt-4 border-t border-base-300 pt-3"
            onSubmit={(e) => {
              e.preventDefault();
              if (reason.trim().length < 3) return;
              held.release(reason.trim());
              setReason("");
            }}
          >
            <Field label="It is done already, or cannot wait, because">
              <input className="input w-full" value={reason} onChange={(e) => setReason(e.target.value)} />
            </Field>
            <p className="soft mt-1 text-sm">
              The reason stands on the tape and in the bench history. It is not billed unless the owner agrees.
            </p>
            <div className="mt-2 flex gap-3">
              <button className="btn" disabled={reason.trim().length < 3}>
                Log it with this reason
              </button>
              <button type="button" className="btn btn-ghost" onClick={held.drop}>
                Discard
              </button>
            </div>
          </form>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
