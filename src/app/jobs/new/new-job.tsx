"use client";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { useForm } from "react-hook-form";
import { readCircuit } from "@/core/circuit/read";
import { CircuitReading } from "@/ui/forms/circuit-reading";
import { Field } from "@/ui/forms/section";
import { CIRCUIT_FILES, FileField } from "@/ui/forms/file-field";

interface Props {
  /** The model that the job begins with: its id. */
  model?: string;
  models: { id: number; maker: string; name: string; version: number }[];
  owners: string[];
  who: string;
}

export function NewJob({ model: first, models, owners, who }: Props) {
  const router = useRouter();
  const [refused, setRefused] = useState("");
  const [sending, setSending] = useState(false);
  const { register, handleSubmit, watch, setValue, setError, formState } = useForm({
    defaultValues: {
      owner: "",
      contact: "",
      model: models.some((m) => String(m.id) === first) ? first! : "",
      maker: "",
      amp: "",
      serial: "",
      complaint: "",
      netlist: "",
    },
  });
  const model = watch("model");
  const netlist = watch("netlist");
  const read = useMemo(() => (netlist.trim() ? readCircuit(netlist) : undefined), [netlist]);
  const chosen = models.find((m) => String(m.id) === model);

  const [ask, setAsk] = useState("");
  const open = (sameOwner?: boolean) =>
    handleSubmit(async (v) => {
      setAsk("");
      setSending(true);
      setRefused("");
      try {
        const body = {
          who,
          owner: v.owner,
          contact: v.contact,
          ...(sameOwner === undefined ? {} : { sameOwner }),
          amp: v.amp.trim() || chosen?.name || read?.circuit.facts.model || "",
          maker: v.maker.trim() || chosen?.maker || read?.circuit.facts.maker,
          serial: v.serial,
          complaint: v.complaint,
          ...(chosen ? { modelId: chosen.id } : model === "file" ? { netlist: v.netlist } : {}),
        };
        const response = await fetch("/api/v1/jobs", {
          method: "POST",
          headers: { "content-type": "application/json" },
          body: JSON.stringify(body),
        });
        const answer = (await response.json()) as { id?: number; error?: string; details?: { field?: string; message: string }[] };
        if (answer.id) return router.push(`/jobs/${answer.id}/intake`);
        if (answer.details?.[0]?.field === "sameOwner") {
          setSending(false);
          return setAsk(answer.error ?? "");
        }
        for (const d of answer.details ?? []) if (d.field === "owner" || d.field === "amp") setError(d.field, { message: d.message });
        setRefused(answer.error ?? "The server refused it.");
      } catch {
        setRefused("The server is not reached. What you typed is still here; try again.");
      }
      // A job that was opened stays "Opening…" until its page is there.
      setSending(false);
    });

  return (
    <form className="grid grid-cols-1 gap-4 sm:grid-cols-2" onSubmit={open()}>
      <Field label="Owner" error={formState.errors.owner?.message}>
        <input
          autoFocus
          className="input w-full"
          list="owners"
          autoComplete="off"
          {...register("owner", { validate: (v) => v.trim() !== "" || "The owner's name is wanted." })}
        />
        <datalist id="owners">
          {owners.map((o) => (
            <option key={o} value={o} />
          ))}
        </datalist>
      </Field>
      <Field label="Contact">
        <input className="input w-full" {...register("contact")} />
      </Field>
      <Field label="Circuit" className="sm:col-span-2">
        <select className="select w-full" {...register("model")}>
          <option value="">none yet: points and reservoirs are named by hand</option>
          {models.map((m) => (
            <option key={m.id} value={m.id}>
              {m.maker} {m.name}
            </option>
          ))}
          <option value="file">a circuit file of my own…</option>
        </select>
      </Field>
      {model === "file" && (
        <div className="sm:col-span-2">
          <p className="mb-2 flex flex-wrap items-center gap-3 text-sm">
            <FileField label="Choose a circuit file" accept={CIRCUIT_FILES} take={async (file) => setValue("netlist", await file.text())} />
            or paste its text: SPICE lines with Scutum&apos;s notes
          </p>
          <textarea
            aria-label="Circuit file text"
            className="textarea h-48 w-full font-mono text-xs"
            spellCheck={false}
            {...register("netlist")}
          />
          {read && <CircuitReading result={read} />}
        </div>
      )}
      <Field label="Maker">
        <input className="input w-full" placeholder={chosen?.maker} {...register("maker")} />
      </Field>
      <Field label="Amp" error={formState.errors.amp?.message}>
        <input className="input w-full" placeholder={chosen?.name ?? "what it says on it"} {...register("amp")} />
      </Field>
      <Field label="Serial">
        <input className="input w-full font-mono" {...register("serial")} />
      </Field>
      <Field label="Complaint, in the owner's words" className="sm:col-span-2">
        <textarea className="textarea w-full" {...register("complaint")} />
      </Field>
      <div className="flex items-center gap-4 sm:col-span-2">
        <button className="btn btn-primary btn-lg" disabled={sending || (model === "file" && (read?.errors.length ?? 1) > 0)}>
          {sending ? "Opening…" : "Open the job"}
        </button>
        {ask && (
          <div role="alert" className="flex flex-wrap items-center gap-3 rounded border border-warning p-3">
            <p className="basis-full">▲ {ask}</p>
            <button type="button" className="btn" onClick={() => void open(true)()}>
              The same person, new contact
            </button>
            <button type="button" className="btn" onClick={() => void open(false)()}>
              Another person
            </button>
          </div>
        )}
        {refused && (
          <p role="alert" className="text-error">
            {refused}
          </p>
        )}
      </div>
    </form>
  );
}
