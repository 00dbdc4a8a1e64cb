"use client";
/** What the shop knows of a model from its own jobs: what is normal, what fails, what cured which complaint, how long it took. */

import { normalHere, type ModelMemory } from "@/core/memory/shop-memory";
import { formatDuration, formatVolts } from "@/core/quantity/format";
import type { Case } from "@/core/suspects/history";
import { Section } from "../forms/section";
import { WideTable } from "../forms/wide-table";

/** @param mains volts that the normal ones are shown for. */
export function InThisShop({ memory: { history, jobs, minutes }, mains = 230 }: { memory: ModelMemory; mains?: number }) {
  if (jobs.length === 0)
    return (
      <p className="soft">
        No job with this model yet. What its jobs show is gathered here by itself: normal voltages, what fails, what cured which complaint.
      </p>
    );
  const points = Object.keys(history.normal ?? {});
  const replaced = Object.entries(history.replaced).sort(([, a], [, b]) => b - a);
  const series = Object.entries(history.series ?? {}).sort(([, a], [, b]) => b.failed / b.had - a.failed / a.had);
  return (
    <div className="max-w-5xl">
      <p className="mb-3 text-2xl font-bold">
        {jobs.length} {jobs.length === 1 ? "job" : "jobs"}
        {minutes !== undefined && <span className="text-lg font-normal">, half of them done within {formatDuration(minutes * 60)}</span>}
      </p>
      <Section title="What was complained of, and what cured it">
        <ul className="space-y-2">
          {jobs.map((j) => (
            <li key={j.job} className="border-l-4 border-base-300 pl-3">
              <Job job={j.job} /> “{j.complaint || "no complaint noted"}”
              <span className="block text-sm">
                {j.cures.length > 0
                  ? `${j.proved ? "● Cured, shown: " : "▲ Cured with: "}${j.cures.join("; ")}`
                  : j.cured
                    ? "cured, nothing was changed"
                    : "not cured yet"}
                {j.worked > 0 && <span className="soft"> · {formatDuration(j.worked * 60)}</span>}
              </span>
            </li>
          ))}
        </ul>
      </Section>
      {replaced.length > 0 && (
        <Section title="What was replaced" hint={`in ${history.jobs} ${history.jobs === 1 ? "job" : "jobs"}`}>
          <ul>
            {replaced.map(([position, n]) => (
              <li key={position}>
                <strong>{position}</strong> {n} of {history.jobs} <Cases cases={history.cases?.[position] ?? []} />
              </li>
            ))}
          </ul>
        </Section>
      )}
      {points.length > 0 && (
        <Section title="What is normal" hint={`amps that went home in order, at ${formatVolts(mains)}`}>
          <WideTable label="Normal voltages" className="table table-sm">
            <thead>
              <tr>
                <th>Point</th>
                <th className="text-right">Middle</th>
                <th className="text-right">From</th>
                <th className="text-right">To</th>
                <th className="text-right">Amps</th>
              </tr>
            </thead>
            <tbody>
              {points.map((point) => {
                const seen = normalHere(history, point, mains)!;
                return (
                  <tr key={point}>
                    <td className="font-bold">{point}</td>
                    <td className="text-right tabular-nums">{formatVolts(seen.volts)}</td>
                    <td className="text-right tabular-nums">{formatVolts(seen.low)}</td>
                    <td className="text-right tabular-nums">{formatVolts(seen.high)}</td>
                    <td className="text-right tabular-nums">{seen.count}</td>
                  </tr>
                );
              })}
            </tbody>
          </WideTable>
        </Section>
      )}
      {series.length > 0 && (
        <Section title="Makings of parts" hint="over all amps of the shop">
          <ul>
            {series.map(([name, s]) => (
              <li key={name}>
                <strong>{name}</strong>: {s.failed} of {s.had} were replaced <Cases cases={s.cases} />
              </li>
            ))}
          </ul>
        </Section>
      )}
    </div>
  );
}

const Job = ({ job }: { job: number }) => (
  <a className="font-bold underline" href={`/jobs/${job}/return`}>
    job {job}
  </a>
);

function Cases({ cases }: { cases: readonly Case[] }) {
  return (
    <span className="soft text-sm">
      {cases.map((c) => (
        <span key={`${c.job} ${c.line}`} className="block pl-4">
          <a className="underline" href={`/jobs/${c.job}/work`}>
            job {c.job}
          </a>
          : {c.says}
        </span>
      ))}
    </span>
  );
}
