"use client";
/** Prove: nothing left off, every control tried, the electrical safety tests, the complaint's own test again. */

import { figure } from "@/core/language/language";
import { useRef } from "react";
import { useForm } from "react-hook-form";
import { parseQuantity } from "@/core/quantity/parse";
import { isOverload, OPEN_OHMS } from "@/core/quantity/ohms";
import {
  holdsLimit,
  limitText,
  SAFETY_NOTE,
  safetyTestsFor,
  figureProblem,
  testValue,
  type SafetyTestSpec,
} from "@/core/safety/end-of-job-tests";
import { focusNextForm } from "../forms/focus";
import { Field, Section } from "../forms/section";
import { Refused, useTypedForm } from "../forms/typed-form";
import { useJob } from "../job/job-context";
import { Reproduce } from "./intake-arrival";
import { TakeApart } from "./take-apart";

export function Prove() {
  const { view, settings } = useJob();
  const off = view.state.removed.filter((r) => r.back === undefined);
  return (
    <div className="max-w-5xl">
      {off.length > 0 && (
        <section className="mb-4 rounded border-2 border-warning p-4" aria-label="Not put back yet">
          <p className="text-xl font-bold">
            ▲ Before the tests: {off.length} {off.length === 1 ? "thing is" : "things are"} not put back
          </p>
          <TakeApart add={false} />
        </section>
      )}
      <div inert={off.length > 0} className={off.length > 0 ? "opacity-60" : ""}>
        <Section title="Electrical safety tests" hint="limits are settings of this shop">
          <table className="table table-sm">
            <thead>
              <tr>
                <th>Test</th>
                <th>How</th>
                <th>Limit</th>
                <th>Result</th>
              </tr>
            </thead>
            <tbody>
              {safetyTestsFor(settings).map((t) => (
                <TestRow key={t.test} spec={t} />
              ))}
            </tbody>
          </table>
          <p className="soft mt-2 text-sm">{SAFETY_NOTE}</p>
        </Section>
        <Controls />
        <Reproduce run="prove" />
      </div>
    </div>
  );
}

function TestRow({ spec }: { spec: SafetyTestSpec }) {
  const { view } = useJob();
  const done = view.state.safetyTests.get(spec.test);
  return (
    <tr data-test={spec.test}>
      <td className="font-bold">{spec.name}</td>
      <td className="text-xs">{spec.how}</td>
      <td className="whitespace-nowrap">{limitText(spec) || "looked at"}</td>
      <td>
        {done && (
          <p data-passed={done.passed} className={done.passed ? "verdict-in font-bold" : "verdict-out font-bold"}>
            {done.passed ? "● passed" : "■ FAILED"}
            {done.value !== undefined && spec.unit ? ` ${testValue(done.value, spec.unit)}` : ""}
            {done.note ? `, ${done.note}` : ""}
          </p>
        )}
        {spec.unit === undefined ? (
          <LookedAt spec={spec} done={done !== undefined} />
        ) : (
          <Measured spec={spec} unit={spec.unit} done={done !== undefined} />
        )}
      </td>
    </tr>
  );
}

/** A test with a figure: passed or not by its limit. */
function Measured({ spec, unit, done }: { spec: SafetyTestSpec; unit: NonNullable<SafetyTestSpec["unit"]>; done: boolean }) {
  const { say, settings } = useJob();
  const { field, onSubmit, refused, typed } = useTypedForm({ text: "" }, ({ text }) => {
    const open = unit === "Ω" && isOverload(text);
    const parsed = open ? undefined : parseQuantity(text, { unit, decimal: settings.decimal });
    if (parsed && !parsed.ok) return `${parsed.why}; accepted: ${parsed.accepted}${unit === "Ω" ? ", OL" : ""}`;
    const { value, echo } = parsed?.quantity ?? { value: OPEN_OHMS, echo: "OL" };
    if (value < 0) return `read ${echo}: this cannot be negative`;
    const problem = figureProblem(spec, value, safetyTestsFor(settings));
    if (problem) return problem;
    say({ type: "safety-test", payload: { test: spec.test, value, limit: spec.limit, passed: holdsLimit(spec, value) } });
  });
  return (
    <>
      <form className="flex gap-1" data-onward="safety-tests" data-arrival={done ? undefined : true} onSubmit={onSubmit}>
        <input
          className="input input-sm min-h-10 w-24 text-right tabular-nums"
          aria-label={`${spec.name}, measured, ${unit}`}
          placeholder={figure(unit === "A" ? "0.2m" : spec.test === "insulation" ? "50M" : "0.05")}
          {...field("text")}
        />
        <button className="btn btn-sm min-h-10" disabled={!typed.text.trim()}>
          Log
        </button>
      </form>
      <Refused>{refused}</Refused>
    </>
  );
}

/** A test by eye: passed or failed, with a word where there is one to say. */
function LookedAt({ spec, done }: { spec: SafetyTestSpec; done: boolean }) {
  const { say } = useJob();
  const { register, getValues, reset } = useForm({ defaultValues: { note: "" } });
  const form = useRef<HTMLFormElement>(null);
  const button = useRef<HTMLButtonElement>(null);
  const store = (passed: boolean) => {
    const note = getValues("note").trim();
    say({ type: "safety-test", payload: { test: spec.test, passed, ...(note ? { note } : {}) } });
    reset();
    if (form.current?.contains(document.activeElement)) focusNextForm(form.current);
  };
  return (
    <form
      ref={form}
      className="flex items-center gap-1"
      data-onward="safety-tests"
      data-arrival={done ? undefined : true}
      // A look has no figure: Enter after the word for it asks which of the two it was.
      onSubmit={(e) => {
        e.preventDefault();
        button.current?.focus();
      }}
    >
      <input
        className="input input-sm min-h-10 w-28"
        aria-label={`${spec.name}, note`}
        placeholder={spec.test === "fuse" ? "T1A, 20 mm" : "note"}
        {...register("note")}
      />
      <button ref={button} type="button" className="btn btn-sm min-h-10" onClick={() => store(true)} aria-label={`${spec.name} passed`}>
        Passed
      </button>
      <button type="button" className="btn btn-sm min-h-10" onClick={() => store(false)} aria-label={`${spec.name} failed`}>
        Failed
      </button>
    </form>
  );
}

/** Pots and switches of the circuit, and whatever else is named. */
function Controls() {
  const { view, say } = useJob();
  const { field, onSubmit } = useTypedForm({ name: "" }, ({ name }) => {
    if (name.trim()) say({ type: "control-check", payload: { control: name.trim(), works: true } });
  });
  const fromCircuit =
    view.circuit?.elements.filter((e) => e.type === "POT" || e.type === "SW" || e.type === "SW2").map((e) => e.notes.label ?? e.name) ?? [];
  const names = [
    ...new Set([...fromCircuit, "Input jack", "Output jack", "Pilot lamp", ...view.state.controlChecks.map((c) => c.control)]),
  ];
  return (
    <Section title="Every control, jack and lamp">
      <ul className="grid gap-1 md:grid-cols-2">
        {names.map((n) => {
          const check = view.state.controlChecks.find((c) => c.control === n);
          return (
            <li key={n} className="flex items-center gap-2">
              <span className="flex-1">{n}</span>
              {check && <span className={check.works ? "verdict-in" : "verdict-out"}>{check.works ? "● works" : "■ does not work"}</span>}
              <button
                className="btn btn-line btn-sm"
                aria-label={`${n} works`}
                onClick={() => say({ type: "control-check", payload: { control: n, works: true } })}
              >
                Works
              </button>
              <button
                className="btn btn-line btn-sm"
                aria-label={`${n} does not work`}
                onClick={() => say({ type: "control-check", payload: { control: n, works: false } })}
              >
                Does not work
              </button>
            </li>
          );
        })}
      </ul>
      <form className="mt-2 flex items-end gap-3" onSubmit={onSubmit}>
        <Field label="Another one, which works">
          <input className="input w-60" placeholder="footswitch, reverb" {...field("name")} />
        </Field>
        <button className="btn">Add</button>
      </form>
    </Section>
  );
}
