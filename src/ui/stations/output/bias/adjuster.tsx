"use client";
/** Which adjuster to turn, how far, in which order; what its track reaches, what an open wiper does; the rails before and after. */

import { words } from "@/core/language/language";
import { useState } from "react";
import type { Adjuster as Found, BalanceBy } from "@/core/output/adjusters";
import type { AimAnswer } from "@/core/output/answers";
import type { Idle } from "@/core/output/idle";
import type { Target } from "@/core/output/targets";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { PartButton } from "../../../drawing/part-button";
import { Section } from "../../../forms/section";
import { WideTable } from "../../../forms/wide-table";
import { late } from "../../../forms/late";
import { useJob } from "../../../job/job-context";
import { useAnswer } from "../../../job/use-answer";
import { keyOf, percent, useStage } from "../use-stage";
import { TurnHere } from "./turn-here";

const RangeChart = late(() => import("./range-chart").then((m) => m.RangeChart));

export interface AdjusterProps {
  adjusters: Found[];
  target: Target;
  /** As the circuit gives it with the tubes as they were read. */
  now: Idle;
  /** False while a newer answer is under way. */
  current: boolean;
}

export function Adjuster({ adjusters, target, now, current }: AdjusterProps) {
  const { output } = useJob();
  const { netlist, ask, stage } = useStage();
  const own = adjusters.filter((a) => a.stages.includes(stage.name));
  const level = own.find((a) => a.role === "level") ?? own[0];
  const key = output && level && keyOf("aim", netlist, ask, level.name, target.amps);
  const { answer, failed } = useAnswer(key, () => output!.aim(netlist, { ...ask, adjuster: level!.name, amps: target.amps }));
  if (!level)
    return (
      <Section title="Adjuster">
        <p>
          {words(
            "No control of this circuit moves the output tubes: the bias is set by the resistors of its supply, or by choosing tubes.",
          )}
        </p>
      </Section>
    );
  return (
    <Section title="Adjuster" hint={current ? undefined : "working out…"}>
      <Order adjusters={own} />
      {failed && (
        <p role="alert" className="text-error">
          {failed}
        </p>
      )}
      {answer && (
        <>
          <p className="my-2 text-xl font-bold" data-testid="turn-it">
            {answer.position !== undefined
              ? turnWords(level, answer.position)
              : `▲ ${level.name} does not reach ${formatQuantity(target.amps, "A", 3)}: its ends give ${answer.reaches!.map((a) => formatQuantity(a, "A", 3)).join(" and ")}.`}
          </p>
          <TurnHere control={level.name} from={level.position} target={target.amps} />
          <div className="grid gap-4 lg:grid-cols-2">
            <Rails now={now} then={answer.idle ?? target.idle} />
            <RangeChart range={answer.range} target={target.amps} position={level.position} />
          </div>
          <OpenWiper answer={answer} name={level.name} />
          <Parts answer={answer} target={target.amps} />
        </>
      )}
      {own.some((a) => a.role === "balance") && <BalanceChoice adjuster={own.find((a) => a.role === "balance")!} />}
    </Section>
  );
}

function turnWords(level: Found, position: number): string {
  const step = position - level.position;
  if (Math.abs(step) < 0.01) return `${level.name} stands where it should, at ${percent(position)} of its turn.`;
  return `Turn ${level.name} from ${percent(level.position)} to ${percent(position)} of its turn, slowly, eyes on the current.`;
}

const ROLE = {
  level: "level: all together",
  balance: "balance: one half up, the other down",
  "one tube": "one tube alone",
} as const;

function Order({ adjusters }: { adjusters: Found[] }) {
  return (
    <ol className="list-decimal pl-6">
      {adjusters.map((a) => (
        <li key={a.name}>
          <PartButton name={a.name}>
            <strong>{a.label}</strong>
          </PartButton>{" "}
          {words(ROLE[a.role])}, moves {a.effect.map((e) => e.tube).join(", ")} by {formatQuantity(Math.abs(a.effect[0]!.amps), "A", 2)} for
          a tenth of its turn
          {a.stages.length > 1 && "; shared between channels, so it is set first and both are read again"}.
        </li>
      ))}
      {adjusters.length > 1 && <li>Then the first again: one moves the other.</li>}
    </ol>
  );
}

/** Raising the idle pulls the supply down: predicted beside what was last read. */
function Rails({ now, then }: { now: Idle; then: Idle }) {
  const { view } = useJob();
  return (
    <WideTable label="Rails before and after" className="table table-sm">
      <thead>
        <tr>
          <th>Rails</th>
          <th className="text-right">Last read</th>
          <th className="text-right">Now, computed</th>
          <th className="text-right">On target</th>
        </tr>
      </thead>
      <tbody>
        {now.rails.map((r) => {
          const read = view.rows.find((row) => row.point.name === r.point)?.reading?.value;
          const after = then.rails.find((x) => x.point === r.point)?.volts;
          return (
            <tr key={r.point}>
              <td>
                <strong>{r.point}</strong> <span className="soft">{r.label}</span>
              </td>
              <td className="text-right whitespace-nowrap tabular-nums">{read === undefined ? "–" : formatVolts(read)}</td>
              <td className="text-right whitespace-nowrap tabular-nums">{formatVolts(r.volts)}</td>
              <td className="text-right font-bold tabular-nums">{after === undefined ? "–" : formatVolts(after)}</td>
            </tr>
          );
        })}
      </tbody>
    </WideTable>
  );
}

function OpenWiper({ answer: { range, guard }, name }: { answer: AimAnswer; name: string }) {
  const worst = range.open?.ofRating;
  if (worst !== undefined && worst <= 1)
    return (
      <p className="mt-2">
        ● If the wiper of {name} lifts off its track, the idle goes to {formatQuantity(range.open!.amps, "A", 2)}: within the rating.
      </p>
    );
  return (
    <p className="mt-2 font-bold text-warning" data-testid="open-wiper">
      ▲ If the wiper of {name} lifts off its track, {words("the tubes lose their bias")}
      {worst === undefined ? " and nothing limits the current" : `: ${percent(worst)} of a rating`}.
      {guard && (
        <span className="block font-normal text-base-content">
          {formatQuantity(guard.ohms, "Ω", 2)} from the wiper to the negative end of the track would hold them at {percent(guard.with)}.
        </span>
      )}
    </p>
  );
}

function Parts({ answer: { parts, position }, target }: { answer: AimAnswer; target: number }) {
  if (parts.length === 0)
    return position === undefined ? (
      <p className="mt-2">
        No single resistor of the E12 series around this adjuster brings the target to the middle of the track within the ratings.
      </p>
    ) : null;
  return (
    <div className="mt-3">
      <p>Values that exist which bring {formatQuantity(target, "A", 3)} to the middle of the track:</p>
      <WideTable label="Parts to change for the range" className="table table-sm">
        <thead>
          <tr>
            <th>Part</th>
            <th className="text-right">Now</th>
            <th className="text-right">Fit</th>
            <th className="text-right">Target at</th>
            <th className="text-right">Ends of the track</th>
            <th className="text-right">Hottest end</th>
          </tr>
        </thead>
        <tbody>
          {parts.map((p) => (
            <tr key={`${p.part} ${p.to}`}>
              <td>
                <PartButton name={p.part}>
                  <strong>{p.part}</strong>
                </PartButton>
              </td>
              <td className="text-right">{formatQuantity(p.from, "Ω", 3)}</td>
              <td className="text-right font-bold">
                {formatQuantity(p.to, "Ω", 3)}, {formatQuantity(p.fit, "W", 2)}
              </td>
              <td className="text-right">{percent(p.at)}</td>
              <td className="text-right">{p.ends.map((e) => formatQuantity(e, "A", 2)).join(" to ")}</td>
              <td className="text-right">
                {p.hottest > 1 ? "▲ " : ""}
                {percent(p.hottest)}
              </td>
            </tr>
          ))}
        </tbody>
      </WideTable>
    </div>
  );
}

const BY: Record<BalanceBy, string> = {
  "equal current": "equal current in both halves",
  "injected hum": "the null of one hum injected into both grids",
  "speaker hum": "the least hum at the speaker",
};

function BalanceChoice({ adjuster }: { adjuster: Found }) {
  const { output } = useJob();
  const { netlist, ask } = useStage();
  const [by, setBy] = useState<BalanceBy>("equal current");
  const key = output && keyOf("balance", netlist, ask, adjuster.name, by);
  const { answer, failed } = useAnswer(key, () => output!.balance(netlist, { ...ask, adjuster: adjuster.name, by }));
  return (
    <div className="mt-3">
      <label className="flex items-center gap-2">
        Balance by
        <select className="select w-80" value={by} onChange={(e) => setBy(e.target.value as BalanceBy)}>
          {Object.entries(BY).map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {answer && (
        <p>
          {adjuster.name} at {percent(answer.position)}: {formatQuantity(answer.there, by === "equal current" ? "A" : "V", 2)} are left, now{" "}
          {formatQuantity(answer.now, by === "equal current" ? "A" : "V", 2)}.
        </p>
      )}
      {failed && <p role="alert">{failed}</p>}
    </div>
  );
}
