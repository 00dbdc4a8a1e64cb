"use client";
/** Make safe: the next step of the proof is the biggest thing; every reservoir is read twice, the meter proved around it. */

import { useRef, useState } from "react";
import { parseEntry } from "@/core/job/entry/entry";
import { formatDuration, formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { dischargePlan } from "@/core/supply/discharge";
import type { ProofStep, ReservoirState } from "@/core/job/energy";
import { Field } from "../forms/section";
import { useJob } from "../frame/job-context";
import { clockTime, energyWords, stepWords } from "../frame/words";

export function MakeSafe() {
  const { energy, settings, say } = useJob();
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
  const { proof } = energy;
  const { title, detail } = energyWords(energy);
  const next = proof.missing[0];
  return (
    <div className="space-y-5">
      <section aria-label="Next step" className="rounded border border-base-300 bg-base-200 p-4">
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
        ) : next ? (
          <>
            <p className="soft text-sm">
              {title}: {detail}
            </p>
            <p className="text-3xl font-bold">{stepWords(next)}</p>
            <StepForm key={JSON.stringify(next, (k, v: unknown) => (k === "wait" || k === "volts" ? undefined : v))} step={next} />
            <ol className="soft mt-3 list-decimal pl-5 text-sm">
              {proof.missing.slice(1, 5).map((s, i) => (
                <li key={i}>{stepWords(s)}</li>
              ))}
              {proof.missing.length > 5 && <li className="list-none">and {proof.missing.length - 5} more</li>}
            </ol>
          </>
        ) : null}
      </section>

      <section aria-label="Reservoirs">
        <h2 className="mb-1 font-bold">
          Reservoirs{" "}
          <span className="soft font-normal">each is read on its own; safe voltage of this shop {formatVolts(settings.safeVolts)}</span>
        </h2>
        <table className="table table-sm">
          <thead>
            <tr>
              <th>Reservoir</th>
              <th className="text-right">Size</th>
              <th className="text-right">Estimate now</th>
              <th>First reading</th>
              <th>After a minute</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            {proof.reservoirs.map((r) => (
              <ReservoirRow key={r.name} r={r} />
            ))}
          </tbody>
        </table>
        {proof.reservoirs.length === 0 && (
          <p className="soft">None known. Name each capacitor that can hold a charge: the large cans, and the bias supply.</p>
        )}
      </section>
      <NameReservoir />
      <Planner reservoirs={proof.reservoirs} />
    </div>
  );
}

function StepForm({ step }: { step: ProofStep }) {
  const { say, entryContext } = useJob();
  const [text, setText] = useState("");
  const [known, setKnown] = useState("9");
  const [refused, setRefused] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const submit = (e: React.FormEvent) => {
    e.preventDefault();
    const line = step.do === "meter" ? `meter ${text} ${known} known source` : "reservoir" in step ? `${step.reservoir} ${text}` : "";
    // A reservoir named by hand may have spaces in its name; the entry line has no way to say that.
    const entry =
      "reservoir" in step && /\s/.test(step.reservoir) ? byHand(step.reservoir, text) : parseEntry(line, entryContext("make-safe"));
    if (!entry.ok) return setRefused(`${entry.why}. Accepted: ${entry.accepted}`);
    say(...entry.drafts);
    setText("");
    field.current?.focus();
  };
  if (step.do === "unplug")
    return (
      <button className="btn btn-primary btn-lg mt-3" onClick={() => say({ type: "power", payload: { state: "off", plug: "out" } })}>
        It is off and the plug is out
      </button>
    );
  if (step.do === "name-reservoirs") return <p className="mt-1">Below, by size and by the voltage that they are rated for.</p>;
  const wait = step.do === "read" ? step.wait : 0;
  return (
    <form className="mt-3 flex flex-wrap items-end gap-3" onSubmit={submit}>
      {step.do === "discharge" && (
        <p className="basis-full">
          Through a resistor, never a screwdriver: a plain short draws a spark and harms the capacitor. Then read it again.
        </p>
      )}
      {step.do === "meter" && (
        <Field label="Known source, V">
          <input className="input h-14 w-28 text-right tabular-nums text-xl" value={known} onChange={(e) => setKnown(e.target.value)} />
        </Field>
      )}
      <Field label={step.do === "meter" ? "Meter reads, V" : "Reading, V"}>
        <input
          ref={field}
          autoFocus
          className="input h-14 w-40 text-right tabular-nums text-2xl"
          inputMode="decimal"
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setRefused("");
          }}
        />
      </Field>
      <button className="btn btn-primary h-14" disabled={text.trim() === ""}>
        Log it
      </button>
      {wait > 0 && (
        <p className="font-mono text-2xl" role="timer">
          {wait} s
        </p>
      )}
      {wait > 0 && (
        <p className="soft basis-full text-sm">
          Dielectric absorption brings voltage back. A reading sooner than a minute after the first does not count as the second.
        </p>
      )}
      {refused && (
        <p role="alert" className="basis-full text-error">
          {refused}
        </p>
      )}
    </form>
  );
}

function byHand(reservoir: string, text: string): ReturnType<typeof parseEntry> {
  const parsed = parseQuantity(text, { unit: "V" });
  if (!parsed.ok) return { ok: false, read: text, why: parsed.why, accepted: parsed.accepted };
  return { ok: true, echo: "", drafts: [{ type: "discharge-reading", payload: { reservoir, volts: parsed.quantity.value } }] };
}

const BASIS: Record<string, string> = { read: "read", expected: "from the chart", rating: "from its rating", named: "as named" };

function ReservoirRow({ r }: { r: ReservoirState }) {
  const shown = (reading: { volts: number; at: string } | undefined) =>
    reading ? `${formatVolts(reading.volts)} at ${clockTime(reading.at)}` : "";
  return (
    <tr>
      <td>
        <strong>{r.name}</strong> <span className="soft">{r.label}</span>
      </td>
      <td className="text-right tabular-nums">{formatQuantity(r.farads, "F", 2)}</td>
      <td className="text-right tabular-nums">
        {r.volts === undefined ? "not known" : formatVolts(r.volts)} {r.basis && <span className="soft text-xs">{BASIS[r.basis]}</span>}
      </td>
      <td className="tabular-nums">{shown(r.first)}</td>
      <td className="tabular-nums">
        {shown(r.second) || (r.secondIn !== undefined ? (r.secondIn > 0 ? `in ${r.secondIn} s` : "now") : "")}
      </td>
      <td className="text-xs">{r.first && r.second ? `rebound ${formatVolts(r.second.volts - r.first.volts)}` : ""}</td>
    </tr>
  );
}

function NameReservoir() {
  const { say, settings, view } = useJob();
  const [form, setForm] = useState({ name: "", farads: "", volts: "" });
  const [refused, setRefused] = useState("");
  function add(e: React.FormEvent) {
    e.preventDefault();
    const farads = parseQuantity(form.farads, { unit: "F", decimal: settings.decimal });
    const volts = parseQuantity(form.volts, { unit: "V", decimal: settings.decimal });
    if (!form.name.trim()) return setRefused("It wants a name: C1, big can");
    if (!farads.ok) return setRefused(`Size: ${farads.why}; accepted: 32u, 100uF`);
    if (!volts.ok) return setRefused(`Voltage: ${volts.why}; accepted: 450`);
    if (farads.quantity.value < 1e-9 || farads.quantity.value > 1)
      return setRefused(`Size: read ${farads.quantity.echo}; accepted: 1 nF to 1 F`);
    if (volts.quantity.value < 0 || volts.quantity.value > 3000)
      return setRefused(`Voltage: read ${volts.quantity.echo}; accepted: 0 to 3000 V`);
    say({ type: "reservoir", payload: { name: form.name.trim(), farads: farads.quantity.value, volts: volts.quantity.value } });
    setForm({ name: "", farads: "", volts: "" });
    setRefused("");
  }
  return (
    <details open={view.reservoirs.length === 0}>
      <summary className="cursor-pointer py-2 text-sm">Name a reservoir by hand</summary>
      <form className="flex flex-wrap items-end gap-3 text-sm" onSubmit={add}>
        <Field label="Name">
          <input className="input w-36" value={form.name} onChange={(e) => setForm({ ...form, name: e.target.value })} />
        </Field>
        <Field label="Size">
          <input
            className="input w-28"
            placeholder="32u"
            value={form.farads}
            onChange={(e) => setForm({ ...form, farads: e.target.value })}
          />
        </Field>
        <Field label="Rated, V">
          <input
            className="input w-24"
            placeholder="450"
            value={form.volts}
            onChange={(e) => setForm({ ...form, volts: e.target.value })}
          />
        </Field>
        <button className="btn">Add</button>
        {refused && (
          <p role="alert" className="text-error">
            {refused}
          </p>
        )}
      </form>
    </details>
  );
}

/** What a discharge resistor would do here. */
function Planner({ reservoirs }: { reservoirs: ReservoirState[] }) {
  const { settings } = useJob();
  const [text, setText] = useState("2k2");
  const ohms = parseQuantity(text, { unit: "Ω", decimal: settings.decimal });
  const farads = reservoirs.reduce((sum, r) => sum + r.farads, 0);
  const volts = Math.max(0, ...reservoirs.map((r) => Math.abs(r.volts ?? 0)));
  if (farads === 0) return null;
  const plan =
    ohms.ok && ohms.quantity.value > 0 && volts > 0 ? dischargePlan(farads, volts, ohms.quantity.value, settings.safeVolts) : undefined;
  return (
    <section aria-label="Discharge resistor" className="text-sm">
      <h2 className="text-base font-bold">Discharge tool</h2>
      <div className="mt-1 flex flex-wrap items-end gap-4">
        <Field label="Its resistance">
          <input
            className="input w-28 text-right tabular-nums"
            value={text}
            onChange={(e) => setText(e.target.value)}
            aria-invalid={!ohms.ok}
          />
        </Field>
        {!ohms.ok ? (
          <p className="text-error">
            {ohms.why}; accepted: {ohms.accepted}
          </p>
        ) : plan ? (
          <p className="flex-1 pb-1">
            All of it, {formatQuantity(farads, "F", 3)} at {formatVolts(volts)}: <strong>{formatQuantity(plan.joules, "J", 2)}</strong>, at
            first {formatQuantity(plan.peakAmps, "A", 2)} and {formatQuantity(plan.peakWatts, "W", 2)}, time constant{" "}
            {formatQuantity(plan.timeConstant, "s", 2)}, <strong>{formatDuration(Math.ceil(plan.seconds))}</strong> to{" "}
            {formatVolts(settings.safeVolts)}. The body must bear {formatVolts(volts)}.
            {plan.peakAmps > 5 && (
              <span className="text-warning"> That is a spark: take at least {formatQuantity(volts / 2, "Ω", 2)}.</span>
            )}
          </p>
        ) : (
          <p className="soft pb-2">
            {volts === 0 ? "No voltage is known yet, so there is nothing to size it for." : "A resistance above zero is wanted."}
          </p>
        )}
      </div>
    </section>
  );
}
