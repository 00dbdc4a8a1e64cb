"use client";
/** Switches and controls that must not be moved with the power on: what happens between their positions was solved. */

import { useAnswer } from "../frame/use-answer";
import { useJob } from "../frame/job-context";

export function NotLive({ wall }: { wall?: number }) {
  const { netlist, solver, settings, view } = useJob();
  const volts = wall ?? view.circuit?.mains?.volts ?? settings.mainsVolts;
  const { answer } = useAnswer(netlist === undefined || !solver ? undefined : `${volts} ${netlist}`, () =>
    solver!.notLive(netlist!, volts),
  );
  if (!answer || answer.length === 0) return null;
  return (
    <section aria-label="Not to be moved live" className="text-sm">
      <h2 className="text-base font-bold">▲ Do not move with the power on</h2>
      <ul>
        {answer.map((m) => (
          <li key={m.control}>
            <strong>{m.control}</strong> {m.label}: {m.why}.
          </li>
        ))}
      </ul>
    </section>
  );
}
