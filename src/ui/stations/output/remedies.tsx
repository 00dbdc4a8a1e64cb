"use client";
/** Remedies against blocking beside each other, ready for the owner. */

import { questionAsked } from "@/core/repair/owner-acts";
import { useState } from "react";
import type { Remedy } from "@/core/output/remedies";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { Section } from "../../forms/section";
import { WideTable } from "../../forms/wide-table";
import { TryPart } from "../../frame/try-part";
import { useJob } from "../../job/job-context";
import { answerTo, useAnswer } from "../../job/use-answer";
import { keyOf, useStage } from "./use-stage";

const KIND: Record<Remedy["kind"], string> = {
  none: "As it is",
  "coupling capacitor": "Smaller coupling capacitors",
  "grid leak": "Smaller grid leaks",
  "grid stopper": "Grid stoppers",
  "before the inverter": "Less bass before the inverter",
  "colder bias": "Colder bias",
  "driver tube": "Other driver",
};

export function Remedies({ peak }: { peak: number }) {
  const { output, say, view } = useJob();
  const { netlist, ask } = useStage();
  const [wanted, setWanted] = useState(false);
  const key = output && wanted ? keyOf("remedies", netlist, ask, peak) : undefined;
  const asked = useAnswer(key, (told) => output!.remedies(netlist, { ...ask, peak }, told));
  const answer = answerTo(asked, key);
  const { failed, progress } = asked;
  const ms = (s: number | undefined) => (s === undefined ? "longer than watched" : formatQuantity(s, "s", 2));
  const round = (x: number) => Number(x.toPrecision(4));
  const found = (r: Remedy, when: "before" | "trial") =>
    ({
      type: "blocking",
      payload: {
        when,
        what: when === "before" ? "as it is" : r.what,
        set: r.set,
        shift: round(r.shift),
        deaf: round(r.deaf),
        watts: round(r.watts),
        ...(r.recovery === undefined ? {} : { recovery: round(r.recovery) }),
        ...(r.bass === undefined ? {} : { bass: round(r.bass) }),
      },
    }) as const;
  const propose = (r: Remedy) => {
    const none = answer!.find((x) => x.kind === "none")!;
    say(
      ...(view.state.blockings.some((b) => b.when === "before") ? [] : [found(none, "before")]),
      found(r, "trial"),
      questionAsked({
        what: `Against the choking after loud notes: ${r.what}. It recovers in ${ms(r.recovery)} and not ${ms(none.recovery)}; bass from ${r.bass === undefined ? "under 5 Hz" : formatQuantity(r.bass, "Hz", 2)}, clean power ${formatQuantity(r.watts, "W", 3)}; ${r.original}`,
      }),
    );
  };
  const trial = (r: Remedy) => () => ({
    position: r.set[0]?.split("=")[0] ?? "bias",
    newPart: r.what,
    reason: "blocking",
    set: r.set,
    hypothesis: `recovers in ${ms(r.recovery)}`,
  });
  return (
    <Section title="Remedies" hint="each by the same drive">
      {!wanted && (
        <button className="btn btn-primary" onClick={() => setWanted(true)}>
          Compare the remedies
        </button>
      )}
      {wanted && !answer && !failed && (
        <p className="flex items-center gap-3">
          <progress className="progress w-72" value={progress ?? 0} max={1} aria-label="Trying each remedy" />
          <button
            className="btn btn-sm min-h-11"
            onClick={() => {
              output?.cancel();
              setWanted(false);
            }}
          >
            Stop
          </button>
        </p>
      )}
      {failed && wanted && <p role="alert">{failed}</p>}
      {answer && (
        <WideTable label="Remedies against blocking" className="table table-sm">
          <thead>
            <tr>
              <th>Remedy</th>
              <th className="text-right">Shift</th>
              <th className="text-right">Back in</th>
              <th className="text-right">Cut off for</th>
              <th className="text-right">Bass, −3 dB</th>
              <th className="text-right">Power at clip</th>
              <th>Originality</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {answer.map((r) => (
              <tr key={r.kind} className={r.kind === "none" ? "bg-base-200" : ""}>
                <td>
                  <strong>{KIND[r.kind]}</strong>
                  {r.kind !== "none" && <span className="soft block text-xs">{r.what}</span>}
                </td>
                <td className="text-right whitespace-nowrap tabular-nums">{formatVolts(r.shift)}</td>
                <td className="text-right font-bold whitespace-nowrap tabular-nums">{ms(r.recovery)}</td>
                <td className="text-right whitespace-nowrap tabular-nums">{formatQuantity(r.deaf, "s", 2)}</td>
                <td className="text-right whitespace-nowrap tabular-nums">
                  {r.bass === undefined ? "under 5 Hz" : formatQuantity(r.bass, "Hz", 2)}
                </td>
                <td className="text-right whitespace-nowrap tabular-nums">{formatQuantity(r.watts, "W", 3)}</td>
                <td className="text-xs">{r.original}</td>
                <td>
                  {r.kind !== "none" && (
                    <div className="flex flex-col gap-1">
                      <button className="btn btn-sm min-h-11" onClick={() => propose(r)} aria-label={`Ask the owner: ${KIND[r.kind]}`}>
                        Ask the owner
                      </button>
                      {r.set.length > 0 && (
                        <TryPart
                          label="Try it in the amp"
                          says={`Try in the amp: ${KIND[r.kind]}`}
                          className="btn btn-sm btn-ghost min-h-11"
                          trial={trial(r)}
                        />
                      )}
                    </div>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </WideTable>
      )}
    </Section>
  );
}
