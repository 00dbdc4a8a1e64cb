"use client";
/** Switches that must not be moved with the power on, and controls that want care: what happens between their positions was solved. */

import type { LiveMove } from "@/core/bring-up/predict-stages";
import { useAnswer } from "../job/use-answer";
import { useJob } from "../job/job-context";

export function NotLive({ wall }: { wall?: number }) {
  const { netlist, solver, settings, view } = useJob();
  const volts = wall ?? view.circuit?.mains?.volts ?? settings.mainsVolts;
  const { answer } = useAnswer(netlist === undefined || !solver ? undefined : `${volts} ${netlist}`, () =>
    solver!.notLive(netlist!, volts),
  );
  if (!answer || answer.length === 0) return null;
  const [switches, controls] = (["switch", "control"] as const).map((kind) => answer.filter((m) => m.kind === kind));
  return (
    <section aria-label="Not to be moved live" className="text-sm">
      {switches!.length > 0 && <Moves says="Not to be moved with the power on" moves={switches!} />}
      {controls!.length > 0 && (
        <Moves says="Turn only slowly, eyes on the cathode current, on a track that was swept cold" moves={controls!} />
      )}
    </section>
  );
}

function Moves({ says, moves }: { says: string; moves: LiveMove[] }) {
  return (
    <>
      <h2 className="text-base font-bold">▲ {says}</h2>
      <ul>
        {moves.map((m) => (
          <li key={m.control}>
            <strong>{[m.control, m.label].filter(Boolean).join(" ")}</strong>: {m.why}.
          </li>
        ))}
      </ul>
    </>
  );
}
