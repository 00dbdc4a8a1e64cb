/** The owner's report as it prints. */

import type { ReactNode } from "react";
import { money, type Report } from "@/core/job/report";
import { SpectrumChart } from "../charts/spectrum-chart";
import { Staircase } from "../charts/staircase";
import { VerdictMark } from "../frame/verdict-mark";
import { day } from "../frame/words";

export function ReportPaper({ report: r }: { report: Report }) {
  return (
    <article className="report mx-auto max-w-4xl px-8 py-8">
      <header className="border-b-2 border-base-content pb-3">
        <p className="text-2xl font-bold">{r.shop.name}</p>
        <p className="soft text-sm">{r.shop.address}</p>
        <h1 className="mt-4 text-xl font-bold">
          Report on the {r.amp}
          {r.serial && `, serial ${r.serial}`}
        </h1>
        <p className="soft">
          For {r.owner} · job {r.job} · taken in {r.opened && day(r.opened)}
          {r.returned && ` · returned ${day(r.returned)}`}
        </p>
        {r.madeWhen && <p className="soft">{r.madeWhen}</p>}
      </header>

      {r.complaint && (
        <Part title="What you told us">
          <p className="text-lg">
            “{r.complaint.words}”{r.complaint.when && <span className="soft"> ({r.complaint.when})</span>}
          </p>
          {[r.complaint.reproduced, r.complaint.proved, ...r.brief].filter(Boolean).map((line) => (
            <p key={line}>{line}.</p>
          ))}
        </Part>
      )}
      {r.findings.length > 0 && (
        <Part title="What we found">
          <Table
            head={["Place", "Finding", "Weight", "Outcome"]}
            rows={r.findings.map((f) => [<strong key="p">{f.place}</strong>, f.text, f.severity, f.outcome])}
          />
        </Part>
      )}
      {r.parts.length > 0 && (
        <Part title="What was replaced, and why">
          <Table
            head={["Where", "Old part", "Fitted", "Why", "Old part went"]}
            rows={r.parts.map((p) => [
              <strong key="p">{p.position}</strong>,
              p.old,
              `${p.fitted}${p.reversible ? "" : " (not reversible)"}`,
              p.why,
              p.oldWent,
            ])}
          />
        </Part>
      )}
      {r.noise && (
        <Part title="Noise">
          {r.noise.says.map((x) => (
            <p key={x}>{x}</p>
          ))}
          {r.noise.before && (
            <SpectrumChart
              mains={r.noise.hertz}
              curves={[
                ...(r.noise.after ? [{ name: "after", curve: r.noise.after.curve }] : []),
                { name: "before", curve: r.noise.before.curve },
              ]}
            />
          )}
          {r.noise.tests.length > 0 && <Table head={["Asked of it", "Answer"]} rows={r.noise.tests.map((t) => [t.what, t.outcome])} />}
        </Part>
      )}
      {r.experiments.length > 0 && (
        <Part title="What was tried">
          <Table head={["Where", "Tried", "Result"]} rows={r.experiments.map((e) => [e.position, e.what, e.outcome])} />
        </Part>
      )}
      {r.beforeAfter.length > 0 && (
        <Part title="Voltages before and after">
          {r.stairs && (
            <div className="mb-3 grid grid-cols-2 gap-6">
              <Staircase steps={r.stairs.before} title="Supply before" />
              <Staircase steps={r.stairs.after} title="Supply after" />
            </div>
          )}
          <Table
            head={["Point", "What it is", "Should be", "Before", "After"]}
            rows={r.beforeAfter.map((b) => [
              <strong key="p">{b.point}</strong>,
              b.label,
              b.expected,
              <Reading key="b" {...b.before} />,
              b.after ? <Reading key="a" {...b.after} /> : "",
            ])}
          />
        </Part>
      )}
      <Part title="Safety work">
        <Table
          head={["Test", "Measured", "Limit of this shop", "Result"]}
          rows={r.safety.map((s) => [<strong key="n">{s.name}</strong>, s.result, s.limit, s.verdict])}
        />
        <p className="soft mt-2 text-sm">{r.safetyNote}</p>
      </Part>
      {r.declined.length > 0 && (
        <Part title="Advised, and declined">
          <List items={r.declined} />
        </Part>
      )}
      {r.unanswered.length > 0 && (
        <Part title="Still waiting for your answer">
          <List items={r.unanswered} />
        </Part>
      )}
      {r.advice?.text && (
        <Part title="What to watch">
          <p>{r.advice.text}</p>
          {r.advice.nextService && <p className="mt-1 font-bold">Next service: {day(r.advice.nextService)}</p>}
        </Part>
      )}
      {r.oldParts.length + r.packing.length > 0 && (
        <Part title="Goes back with the amplifier">
          <List
            items={[...r.oldParts.map((p) => `Old part, bagged: ${p}`), ...r.packing.map((p) => `${p.what}${p.done ? "" : " (open)"}`)]}
          />
        </Part>
      )}
      {r.bill.lines.length > 0 && (
        <Part title="Bill">
          <table className="w-full max-w-lg">
            <tbody>
              {r.bill.lines.map((l, i) => (
                <tr key={i} className="border-b border-base-300">
                  <td className="py-1">
                    {l.text} <span className="soft">{l.kind}</span>
                  </td>
                  <td className="text-right tabular-nums">{money(l.amount, r.bill.currency)}</td>
                </tr>
              ))}
              <tr className="font-bold">
                <td className="py-1">Total</td>
                <td className="text-right tabular-nums">{money(r.bill.total, r.bill.currency)}</td>
              </tr>
            </tbody>
          </table>
        </Part>
      )}
      {r.photos.length > 0 && (
        <Part title="Pictures">
          <div className="grid grid-cols-2 gap-4">
            {r.photos.map((p, i) => (
              <figure key={i} className="break-inside-avoid">
                <img src={`/api/v1/photos/${p.hash}`} alt={p.caption} className="w-full border border-base-300" />
                <figcaption className="soft text-sm">{p.caption}</figcaption>
              </figure>
            ))}
          </div>
        </Part>
      )}
    </article>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-5">
      <h2 className="mb-1 border-b border-base-300 text-base font-bold">{title}</h2>
      {children}
    </section>
  );
}

function Table({ head, rows }: { head: string[]; rows: ReactNode[][] }) {
  return (
    <table className="w-full text-sm">
      <thead>
        <tr className="soft text-left">
          {head.map((h) => (
            <th key={h} className="pr-3 pb-1 font-normal">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((cells, i) => (
          <tr key={i} className="border-b border-base-300 align-top">
            {cells.map((c, k) => (
              <td key={k} className="py-1 pr-3">
                {c}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function List({ items }: { items: string[] }) {
  return (
    <ul className="list-disc pl-5">
      {items.map((i) => (
        <li key={i}>{i}</li>
      ))}
    </ul>
  );
}

function Reading({ text, verdict }: { text: string; verdict: Parameters<typeof VerdictMark>[0]["verdict"] }) {
  return (
    <span className="inline-flex items-center gap-1.5 font-mono whitespace-nowrap">
      <VerdictMark verdict={verdict} size={11} /> {text}
    </span>
  );
}
