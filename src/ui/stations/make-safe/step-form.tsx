"use client";
/** The form of one step of the proof: a reading, the meter on a known source, the tool across the meter. */

import { useRef, useState } from "react";
import { useForm } from "react-hook-form";
import { dischargeDraft } from "@/core/entry/measurement-lines";
import { meterCheckDraft } from "@/core/entry/power-lines";
import type { ProofStep } from "@/core/safety/proof";
import { readOhms } from "@/core/quantity/ohms";
import { toolProved } from "@/core/safety/discharge-tool";
import { formatQuantity } from "@/core/quantity/format";
import { useFocusOnArrival } from "../../forms/focus";
import { ReadingField } from "../../forms/reading-field";
import { Field } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { useTool } from "../../job/tool";

export function StepForm({ step }: { step: ProofStep }) {
  const { say } = useJob();
  if (step.do === "unplug")
    return (
      <button className="btn btn-primary btn-lg mt-3" onClick={() => say({ type: "power", payload: { state: "off", plug: "out" } })}>
        It is off and the plug is out
      </button>
    );
  if (step.do === "name-reservoirs") return <p className="mt-1">Below, by size and by the voltage that they are rated for.</p>;
  if (step.do === "tool") return <ToolForm when={step.when} />;
  return <ReadingForm step={step} />;
}

function ReadingForm({ step }: { step: Exclude<ProofStep, { do: "unplug" | "name-reservoirs" | "tool" }> }) {
  const { say, settings } = useJob();
  const { field, onSubmit, refused, typed, form } = useTypedForm({ text: "", known: "9" }, ({ text, known }) => {
    const entry =
      step.do === "meter"
        ? meterCheckDraft({ read: text, known, source: "known source" }, settings.decimal)
        : dischargeDraft(step.reservoir, text, settings.decimal);
    if (!entry.ok) return `${entry.why}. Accepted: ${entry.accepted}`;
    say(...entry.drafts);
    form.setFocus("text");
    return { known };
  });
  const wait = step.do === "read" ? step.wait : 0;
  const text = field("text");
  const place = useRef<HTMLInputElement>(null);
  useFocusOnArrival(place);
  return (
    <form className="mt-3 flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
      {step.do === "discharge" && (
        <p className="basis-full">
          Through the tool, never a screwdriver: a plain short draws a spark and harms the capacitor. One hand; the clip on chassis first.
          Then read it again.
        </p>
      )}
      {step.do === "discharge" && (
        <details className="basis-full text-sm">
          <summary className="cursor-pointer py-1">It does not go down?</summary>
          <ul className="list-disc pl-5">
            <li>Is the plug out, and no other machine feeds this one: a second supply, a connected tuner, a battery?</li>
            <li>Is the chassis clip on bare metal? Touch the tool&apos;s clips together with the ohmmeter on them.</li>
            <li>Is the tip on this capacitor&apos;s own terminal? Behind an open dropper it is not bled from the rail.</li>
            <li>It falls and comes back: dielectric absorption. Leave the tool clipped on for minutes.</li>
            <li>Still there: do not work in it. Leave the tool on, case closed, and read it again tomorrow.</li>
          </ul>
        </details>
      )}
      {step.do === "reach" && (
        <p className="basis-full">
          It counts as charged. Leave the tool across its rail for the time below, take the case off where that can be done from outside, or
          work under the gate with this as the reason. A reading takes its place at any time.
        </p>
      )}
      {step.do === "meter" && (
        <Field label="Known source, V">
          <input className="input h-14 w-28 text-right tabular-nums text-xl" {...field("known")} />
        </Field>
      )}
      <Field label={step.do === "meter" ? "Meter reads, V" : "Reading, V"}>
        <input
          className="input h-14 w-40 text-right tabular-nums text-2xl"
          inputMode="decimal"
          {...text}
          ref={(e) => {
            text.ref(e);
            place.current = e;
          }}
        />
      </Field>
      <button className="btn btn-primary h-14" disabled={typed.text.trim() === ""}>
        Log it
      </button>
      {wait > 0 && (
        <p className="font-mono text-2xl" role="timer">
          {wait} s
        </p>
      )}
      {(step.do === "read" || step.do === "discharge") && <CannotRead reservoir={step.reservoir} />}
      {wait > 0 && (
        <p className="soft basis-full text-sm">
          Dielectric absorption brings voltage back. A reading sooner than a minute after the first does not count as the second.
        </p>
      )}
      <Refused className="basis-full">{refused}</Refused>
    </form>
  );
}

/** No terminal within reach: said once, with the reason. */
function CannotRead({ reservoir }: { reservoir: string }) {
  const { say } = useJob();
  const [asking, setAsking] = useState(false);
  const { register, watch, getValues, reset } = useForm({ defaultValues: { reason: "" } });
  if (!asking)
    return (
      <button type="button" className="btn btn-ghost h-14 text-sm" onClick={() => setAsking(true)}>
        Cannot be read…
      </button>
    );
  return (
    <span className="flex items-end gap-2">
      <Field label={`Why ${reservoir} cannot be read`}>
        <input
          className="input h-14 w-64"
          placeholder="potted under the choke"
          // It lies inside the form of the reading, which Enter would take.
          onKeyDown={(e) => e.key === "Enter" && e.preventDefault()}
          {...register("reason")}
        />
      </Field>
      <button
        type="button"
        className="btn h-14"
        disabled={watch("reason").trim().length < 3}
        onClick={() => {
          say({ type: "reservoir-unread", payload: { reservoir, reason: getValues("reason").trim() } });
          reset();
          setAsking(false);
        }}
      >
        Leave it unproven
      </button>
    </span>
  );
}

/** The tool across the meter on its ohms range. */
function ToolForm({ when }: { when: "before" | "after" }) {
  const { say, settings } = useJob();
  const tool = useTool();
  function take(text: string) {
    const ohms = readOhms(text, settings.decimal);
    if (typeof ohms === "string") return { refused: ohms, keep: true };
    say({ type: "tool-check", payload: { marked: tool.ohms, read: ohms } });
    if (toolProved(tool.ohms, ohms)) return undefined;
    const refused =
      ohms > tool.ohms
        ? `${formatQuantity(ohms, "Ω", 3)} is not the ${formatQuantity(tool.ohms, "Ω", 2)} it was made with: it would bleed nothing. Mend the lead or take another.`
        : `${formatQuantity(ohms, "Ω", 3)} is far below the ${formatQuantity(tool.ohms, "Ω", 2)} it was made with: it would spark. Take another.`;
    return { refused, keep: false };
  }
  return (
    <>
      <p className="mt-3">
        {when === "before"
          ? "Measure the ohms across its clips: a tool with a broken lead discharges nothing."
          : "It may have burnt open while it discharged, and would do nothing the next time."}{" "}
        Made with <strong>{formatQuantity(tool.ohms, "Ω", 2)}</strong> (set below).
      </p>
      <ReadingField button="Log it" label="Tool reads, Ω" take={take} />
    </>
  );
}
