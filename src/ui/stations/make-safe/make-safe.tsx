"use client";
/** Make safe: the next step of the proof is the biggest thing; every reservoir is read twice, meter and tool proved around it. */

import { formatVolts } from "@/core/quantity/format";
import type { ProofStep } from "@/core/safety/proof";
import { useEnergy, useJob } from "../../job/job-context";
import { clockTime, energyWords, stepWords } from "../../job/words";
import { Planner } from "./planner";
import { NameReservoir, Reservoirs } from "./reservoirs";
import { Stays } from "../../forms/stays";
import { StepForm } from "./step-form";

export function MakeSafe() {
  const { settings, say } = useJob();
  const { energy } = useEnergy();
  if (energy.kind === "live" && energy.reforming) {
    return (
      <div className="space-y-3">
        <p className="text-3xl font-bold">
          A supply is on {energy.reforming.parts.join(", ")}: {formatVolts(energy.reforming.volts)}.
        </p>
        <p className="text-lg">
          Bring it down and switch it off (the button at the top). What the capacitors still hold is then followed and read here.
        </p>
      </div>
    );
  }
  if (energy.kind === "live") {
    return (
      <div className="space-y-3">
        <p className="text-3xl font-bold">The amp is live.</p>
        <p className="text-lg">Switch it off and pull the plug. Then Scutum follows the charge down and asks for the readings.</p>
        <button className="btn btn-primary btn-lg" onClick={() => say({ type: "power", payload: { state: "off", plug: "out" } })}>
          Off, plug out
        </button>
      </div>
    );
  }
  if (energy.kind === "not-here")
    return <p className="text-3xl font-bold">The amp is not here: it went back to its owner. Take it in again at the top.</p>;
  const { proof } = energy;
  const { title, detail } = energyWords(energy);
  const wanted = proof.missing[0];
  const conflicts = proof.reservoirs.filter((r) => r.conflict);
  const back = proof.reservoirs.filter((r) => r.rebounded && !r.conflict);
  return (
    <div className="space-y-5">
      <section aria-label="Next step" data-arrival className="rounded border border-base-300 bg-base-200 p-4">
        {energy.kind === "proven-dead" ? (
          <>
            <p className="text-3xl font-bold">{title}</p>
            <p className="mt-1 text-lg">
              {detail}. Holds until power or plug goes in again, at the latest until {clockTime(energy.until)}.
            </p>
            <p className="soft mt-1">
              This says what was read, not that anything is safe to touch. Keep one hand away and check again after any break.
            </p>
          </>
        ) : wanted ? (
          <Stays of={wanted} name={keyOf(wanted)}>
            {(next) => (
              <>
                <p className="soft text-sm">
                  {title}: {detail}
                </p>
                <p className="text-3xl font-bold">{stepWords(next)}</p>
                {conflicts.map((r) => (
                  <p key={r.name} role="alert" className="mt-1 text-warning">
                    ▲ {r.name}: {r.conflict}
                  </p>
                ))}
                {back.map((r) => (
                  <p key={r.name} role="alert" className="mt-1 text-warning">
                    ▲ {r.name} came back from {formatVolts(r.rebounded!.from)} to {formatVolts(r.rebounded!.to)}, above the safe voltage:
                    dielectric absorption. Bleed it again and leave the tool on for a minute before the next reading.
                  </p>
                ))}
                <StepForm key={keyOf(next)} step={next} />
                <ol className="soft mt-3 list-decimal pl-5 text-sm">
                  {proof.missing.slice(1, 5).map((s, i) => (
                    <li key={i}>{stepWords(s)}</li>
                  ))}
                  {proof.missing.length > 5 && <li className="list-none">and {proof.missing.length - 5} more</li>}
                </ol>
              </>
            )}
          </Stays>
        ) : null}
      </section>
      {proof.clips.length > 0 && (
        <section aria-label="Clip" className="flex flex-wrap items-center gap-3 rounded border-2 border-warning p-3">
          <p className="text-lg font-bold">The clip is on {proof.clips.join(", ")}: what it discharges cannot charge.</p>
          {proof.clips.map((c) => (
            <button key={c} className="btn" onClick={() => say({ type: "clip", payload: { reservoir: c, state: "off" } })}>
              Clip off {c}
            </button>
          ))}
        </section>
      )}
      {/* While there is charge, how it leaves comes before the list of where it is. */}
      {energy.kind === "stored" && <Planner reservoirs={proof.reservoirs} lifted={energy.lifted} />}
      <Reservoirs reservoirs={proof.reservoirs} safeVolts={settings.safeVolts} />
      {energy.kind !== "stored" && <Planner reservoirs={proof.reservoirs} />}
      <NameReservoir />
    </div>
  );
}

/** The same step keeps its form while its seconds run down. */
const keyOf = (step: ProofStep) => JSON.stringify(step, (k, v: unknown) => (k === "wait" || k === "volts" ? undefined : v));
