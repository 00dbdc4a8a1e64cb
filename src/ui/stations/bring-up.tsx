"use client";
/** Bring-up: before power, what the unloaded rails could do to the capacitors; then power through a limiter, noted as it goes. */

import { useMemo } from "react";
import { unloadedRails } from "@/core/walk/unloaded";
import { formatVolts } from "@/core/quantity/format";
import { Section } from "../forms/section";
import { useJob } from "../frame/job-context";
import { VerdictMark } from "../frame/verdict-mark";
import { dayTime } from "../frame/words";
import { Findings } from "./findings";
import { MainsInstrument } from "./mains-instrument";

export function BringUp() {
  const { view, settings, energy } = useJob();
  const mains = view.state.mainsVolts ?? settings.mainsVolts;
  const rails = useMemo(() => (view.circuit ? unloadedRails(view.circuit, mains) : []), [view.circuit, mains]);
  const powers = view.state.effective.filter((e) => e.type === "power");
  return (
    <div className="max-w-4xl">
      <section className="mb-3 rounded border border-base-300 bg-base-200 p-4">
        <p className="text-2xl font-bold">
          {energy.kind === "live"
            ? "Power is on. Eyes on the limiter; off at the first smell."
            : "Never straight to full mains after work or storage."}
        </p>
        <p className="mt-1">
          No tubes first, then the rectifier alone, bias proven at each output socket, the load connected, small tubes, output tubes last.
          Each power-on asks what is out and what limits it. A variable transformer shows little of a tube rectifier until its heater is
          near full voltage.
        </p>
      </section>
      <MainsInstrument />
      <Section title="Unloaded rails" hint={`with no tube drawing current, at ${formatVolts(mains)} mains`}>
        {rails.length === 0 ? (
          <p className="soft">No rectifier and winding voltage in this job&apos;s circuit, so nothing to compute.</p>
        ) : (
          <table className="table table-sm">
            <thead>
              <tr>
                <th>Capacitor</th>
                <th className="text-right">Can reach</th>
                <th className="text-right">Rated</th>
                <th>Verdict</th>
              </tr>
            </thead>
            <tbody>
              {rails.map((r) => (
                <tr key={r.capacitor}>
                  <td>
                    <strong>{r.capacitor}</strong> <span className="soft">{r.label}</span>
                  </td>
                  <td className="text-right tabular-nums">{formatVolts(r.volts)}</td>
                  <td className="text-right tabular-nums">{r.rated === undefined ? "not known" : formatVolts(r.rated)}</td>
                  <td>
                    <VerdictMark verdict={r.verdict} word /> <span className="text-xs">{r.why}</span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Section>
      <Section title="Power so far">
        {powers.length === 0 ? (
          <p className="soft">Not powered here yet.</p>
        ) : (
          <ul className="text-sm">
            {powers.map((e) => (
              <li key={e.seq}>
                <span className="soft tabular-nums" suppressHydrationWarning>
                  {dayTime(e.at)}
                </span>{" "}
                {(e.payload as { state: string }).state === "on" ? `on ${(e.payload as { through?: string }).through ?? ""}` : "off"}
                {(e.payload as { without?: string[] }).without?.length
                  ? `, without ${(e.payload as { without: string[] }).without.join(", ")}`
                  : ""}
              </li>
            ))}
          </ul>
        )}
      </Section>
      <Findings station="bring-up" />
    </div>
  );
}
