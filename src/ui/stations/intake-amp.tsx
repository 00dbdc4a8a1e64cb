"use client";
/** Which amp this is: maker, model, serial, and when it was made, from the codes on its parts. */

import { useState } from "react";
import { useForm } from "react-hook-form";
import { readCircuit, type ReadResult } from "@/core/circuit/read";
import { dateAmp, readDateCode } from "@/core/inspection/dating";
import { CircuitReading } from "../forms/circuit-reading";
import { Field, Section } from "../forms/section";
import { useTypedForm } from "../forms/typed-form";
import { CIRCUIT_FILES, FileField } from "../forms/file-field";
import { useJob } from "../job/job-context";

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
      <FileField
        label={view.circuit ? "Another circuit file…" : "Give it a circuit file…"}
        accept={CIRCUIT_FILES}
        take={async (file) => {
          const text = await file.text();
          setRead({ name: file.name, text, result: readCircuit(text) });
        }}
      />
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
  const facts = view.circuit?.facts;
  const years = facts?.from ? { from: Number(facts.from), to: Number(facts.to) || undefined } : undefined;
  const dating = dateAmp(
    view.state.dateCodes.map((d) => ({ place: d.place, code: d.code })),
    years,
  );
  const { field, onSubmit, refused, typed } = useTypedForm({ place: "", code: "" }, ({ place, code }) => {
    if (!place.trim()) return "Which part is the code on?";
    if (!code.trim()) return "Enter the code that is on it";
    const answer = readDateCode(place, code);
    if ("why" in answer) return answer.why;
    say({ type: "date-code", payload: { place: place.trim(), code: code.trim() } });
  });
  const read = typed.code.trim() ? readDateCode(typed.place, typed.code) : undefined;
  return (
    <Section title="Date of manufacture">
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
      <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
        <Field label="Part">
          <input className="input w-44" placeholder="volume pot" {...field("place")} />
        </Field>
        <Field label="Code on it">
          <input className="input w-40 font-mono" placeholder="137-6118" {...field("code")} />
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
