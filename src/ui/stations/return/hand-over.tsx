"use client";
/** The amp goes home, or the job goes to another technician. */

import { shopDay } from "@/core/shop/day";
import { useState } from "react";
import { handOver } from "@/core/job/hand-over";
import { owed } from "@/core/money/bill";
import { Field, Section } from "../../forms/section";
import { useJob, useNow } from "../../job/job-context";
import { NotToBeUsed } from "./not-to-be-used";
import { useTasks } from "../../job/use-tasks";

export function HandOver() {
  return (
    <>
      <Home />
      <ToTechnician />
    </>
  );
}

function Home() {
  const { view, say, energyKind, tape } = useJob();
  const { money } = useTasks();
  const [old, setOld] = useState(true);
  const done = view.state.returned;
  const left = owed(view.state);
  if (done)
    return (
      <Section title="Handed over">
        <p className="text-lg">
          ● Returned to {done.to}
          {done.oldPartsHanded ? ", old parts with it" : ""}.
        </p>
        <button
          className="btn btn-line mt-2"
          disabled={done.seq >= tape.pendingFrom}
          onClick={() => say({ type: "undo", supersedes: done.seq, reason: "the job is open again", payload: {} })}
        >
          Open the job again
        </button>
        <p className="soft mt-1 text-sm">
          What is done from then on stands on a bill of its own; the bill that was made out stays as it is.
        </p>
      </Section>
    );
  return (
    <Section title="Hand over">
      <NotToBeUsed />
      {left > 0 && <p className="mb-2 text-warning">▲ {money(left)} of the bill is not paid.</p>}
      <div className="flex flex-wrap items-center gap-4">
        <label className="flex min-h-11 items-center gap-2">
          <input type="checkbox" className="checkbox" checked={old} onChange={() => setOld(!old)} /> Old parts go with it
        </label>
        <button
          className="btn btn-primary"
          disabled={energyKind === "live"}
          onClick={() => say({ type: "returned", payload: { to: view.state.opened?.owner ?? "the owner", oldPartsHanded: old } })}
        >
          Handed over to {view.state.opened?.owner}
        </button>
        {energyKind === "live" && <span className="text-warning">▲ The amp is logged as live.</span>}
      </div>
    </Section>
  );
}

/** With the state of the job in one paragraph, from its tape; it can be worded anew before it is stored. */
function ToTechnician() {
  const { view, say, energyKind, settings } = useJob();
  const now = useNow();
  const written = handOver(view, energyKind, settings, now);
  const [to, setTo] = useState("");
  const [own, setOwn] = useState<string>();
  const last = view.state.handedOn;
  const says = own ?? written;
  return (
    <Section
      title="To another technician"
      hint={last ? `${last.to} has it since ${shopDay(last.at, settings.timeZone)}` : "with the state of the job in a paragraph"}
    >
      <form
        className="grid gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (!to.trim() || !says.trim()) return;
          say({ type: "handed-on", payload: { to: to.trim(), says: says.trim().slice(0, 4000) } });
          setTo("");
          setOwn(undefined);
        }}
      >
        <Field label="The state of the job">
          <textarea className="textarea min-h-32 w-full" value={says} onChange={(e) => setOwn(e.target.value)} />
        </Field>
        <div className="flex flex-wrap items-end gap-3">
          <Field label="Goes to">
            <input className="input w-32" list="technicians" value={to} onChange={(e) => setTo(e.target.value)} />
          </Field>
          <datalist id="technicians">
            {settings.technicians.map((t) => (
              <option key={t} value={t} />
            ))}
          </datalist>
          <button className="btn" disabled={!/^[\p{L}.\- ]{1,12}$/u.test(to.trim())}>
            Hand the job on
          </button>
          {own !== undefined && (
            <button type="button" className="btn btn-ghost" onClick={() => setOwn(undefined)}>
              As it was written
            </button>
          )}
        </div>
      </form>
    </Section>
  );
}
