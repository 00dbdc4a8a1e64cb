"use client";
/** Which amp this is: maker, model, serial, and when it was made, from the codes on its parts. */

import { useState } from "react";
import { useForm } from "react-hook-form";
import { readCircuit, type ReadResult } from "@/core/circuit/read";
import { dateAmp, readDateCode } from "@/core/job/dating";
import { CircuitReading } from "../forms/circuit-reading";
import { Field, Section } from "../forms/section";
import { useJob } from "../frame/job-context";

export function AmpIdentity() {
  const { view, say, modelName } = useJob();
  const stands = view.state.identity;
  const facts = view.circuit?.facts;
  const { register, handleSubmit, formState } = useForm({
    values: {
      maker: stands?.maker ?? facts?.maker ?? "",
      model: stands?.model ?? facts?.model ?? view.state.opened?.amp ?? "",
      revision: stands?.revision ?? facts?.revision ?? "",
      serial: stands?.serial ?? "",
    },
  });
  const store = handleSubmit((v) =>
    say({
      type: "identity",
      payload: Object.fromEntries(
        Object.entries(v)
          .map(([k, t]) => [k, t.trim()])
          .filter(([, t]) => t),
      ),
    }),
  );
  return (
    <Section title="The amp" hint={modelName ? `circuit: ${modelName}` : "no circuit file on this job"}>
      <form className="grid grid-cols-2 gap-3 lg:grid-cols-4" onSubmit={store}>
        <Field label="Maker">
          <input className="input w-full" {...register("maker")} />
        </Field>
        <Field label="Model">
          <input className="input w-full" {...register("model")} />
        </Field>
        <Field label="Revision">
          <input className="input w-full" {...register("revision")} />
        </Field>
        <Field label="Serial">
          <input className="input w-full font-mono" {...register("serial")} />
        </Field>
        <div className="col-span-full">
          <button className="btn" disabled={stands !== undefined && !formState.isDirty}>
            Store
          </button>
        </div>
      </form>
      <CircuitFile />
    </Section>
  );
}

/** A circuit for a job that was opened without one, or a better one; read here first, so that its errors are seen in place. */
function CircuitFile() {
  const { port, view } = useJob();
  const [read, setRead] = useState<{ name: string; text: string; result: ReadResult }>();
  const [refused, setRefused] = useState("");
  async function give() {
    try {
      await port.circuit(read!.text);
      window.location.reload();
    } catch (error) {
      setRefused((error as Error).message);
    }
  }
  return (
    <div className="mt-3">
      <label className="btn">
        {view.circuit ? "Another circuit file…" : "Give it a circuit file…"}
        <input
          type="file"
          accept=".cir,.net,.txt,.sp"
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0];
            void file?.text().then((text) => setRead({ name: file.name, text, result: readCircuit(text) }));
            e.target.value = "";
          }}
        />
      </label>
      {read && <CircuitReading result={read.result} name={read.name} />}
      {read && read.result.errors.length === 0 && (
        <button className="btn btn-primary mt-2" onClick={() => void give()}>
          Use {read.name} for this job
        </button>
      )}
      {refused && (
        <p role="alert" className="text-error">
          {refused}
        </p>
      )}
    </div>
  );
}

export function DateCodes() {
  const { view, say } = useJob();
  const [form, setForm] = useState({ place: "", code: "" });
  const [refused, setRefused] = useState("");
  const facts = view.circuit?.facts;
  const years = facts?.from ? { from: Number(facts.from), to: Number(facts.to) || undefined } : undefined;
  const dating = dateAmp(
    view.state.dateCodes.map((d) => ({ place: d.place, code: d.code })),
    years,
  );
  const read = form.code.trim() ? readDateCode(form.place, form.code) : undefined;

  function add(e: React.FormEvent) {
    e.preventDefault();
    if (!form.place.trim()) return setRefused("Which part carries it?");
    if (!read || "why" in read) return setRefused(read ? read.why : "The code is wanted");
    say({ type: "date-code", payload: { place: form.place.trim(), code: form.code.trim() } });
    setForm({ place: "", code: "" });
    setRefused("");
  }
  return (
    <Section title="When was it made?">
      <p className="text-lg">{dating.sentence}</p>
      {view.state.dateCodes.length > 0 && (
        <ul className="my-2 text-sm">
          {dating.dated.map((d, i) => (
            <li key={i}>
              <strong>{d.place}</strong> <span className="font-mono">{d.code}</span>{" "}
              <span className="soft">
                {d.read}
                {d.years.length > 1 ? `: ${d.years.filter((y) => y < 2000).join(", ")}` : ""}
              </span>
              {dating.outlier === d && <span className="text-warning"> ▲ does not fit</span>}
            </li>
          ))}
        </ul>
      )}
      <form className="flex flex-wrap items-end gap-3" onSubmit={add}>
        <Field label="Part">
          <input
            className="input w-44"
            placeholder="volume pot"
            value={form.place}
            onChange={(e) => setForm({ ...form, place: e.target.value })}
          />
        </Field>
        <Field label="Code on it">
          <input
            className="input w-40 font-mono"
            placeholder="137-6118"
            value={form.code}
            onChange={(e) => setForm({ ...form, code: e.target.value })}
          />
        </Field>
        <button className="btn">Add</button>
        <p className="pb-3 text-sm" aria-live="polite">
          {refused ? (
            <span className="text-error">{refused}</span>
          ) : read && !("why" in read) ? (
            <span className="soft">{read.read}</span>
          ) : (
            ""
          )}
        </p>
      </form>
    </Section>
  );
}
