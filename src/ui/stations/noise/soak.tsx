"use client";
/** The soak: how long it must run without failing before "cured" means anything, where it stands, how it ended. */

import { figure, fixed } from "@/core/language/language";
import { useForm } from "react-hook-form";
import { soakFrom } from "@/core/intermittent/occurrences";
import { soakPlan, soakState, type SoakState } from "@/core/intermittent/soak";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob, useNow } from "../../job/job-context";

export function Soak() {
  const { view } = useJob();
  const now = useNow();
  const running = soakState(view.state, now);
  return (
    <Section title="Soak test" hint="decide before it starts how long it must run without failure">
      {running && !running.soak.ended ? <Running running={running} /> : <Begin last={running} />}
    </Section>
  );
}

const hoursText = (h: number) => (h < 1 ? `${Math.round(60 * h)} min` : `${fixed(h, 1)} h`);

function Running({ running }: { running: SoakState }) {
  const { say, energyKind } = useJob();
  const { soak, plan, hours, cycles, failures, confidence, left, cyclesLeft } = running;
  const { register, watch } = useForm({ defaultValues: { done: "" } });
  const done = watch("done");
  const met = left <= 0 && cyclesLeft <= 0;
  const end = (outcome: "cured" | "failed" | "no fault found" | "broken off") =>
    say(
      { type: "soak-ended", payload: { soak: soak.seq, outcome, ...(done.trim() ? { done: done.trim() } : {}) } },
      { type: "waiting", payload: { on: "you" } },
    );
  return (
    <div className="rounded border border-base-300 bg-base-200 p-4">
      <p className="text-3xl font-bold" role="status" data-testid="soak-verdict">
        {met
          ? `● ${hoursText(hours)} without failure: ${Math.floor(100 * confidence)} % confidence that it is cured`
          : `○ ${left > 0 ? `${hoursText(left)} still to run` : ""}${left > 0 && cyclesLeft > 0 ? ", " : ""}${cyclesLeft > 0 ? `${cyclesLeft} ${cyclesLeft === 1 ? "cycle" : "cycles"} to go` : ""}`}
      </p>
      <p className="mt-1 text-lg">
        For: {soak.fault}. It failed {soak.failures === 1 ? "once" : `${soak.failures} times`} in {hoursText(soak.hours)}
        {soak.onsetMinutes > 0 && `, ${Math.round(soak.onsetMinutes)} min after power-on`}.
      </p>
      <p>
        Rule: {hoursText(plan.hours)}
        {plan.cycleMinutes > 0 && ` and ${plan.cycles} times on for ${Math.round(plan.cycleMinutes)} min without a break`}, for{" "}
        {Math.round(100 * soak.confidence)} %. So far {hoursText(hours)}
        {plan.cycleMinutes > 0 && `, ${cycles} ${cycles === 1 ? "cycle" : "cycles"}`}; {Math.floor(100 * confidence)} %.
      </p>
      <progress
        className="progress mt-2 w-full max-w-xl"
        value={Math.min(1, hours / plan.hours)}
        max={1}
        aria-label="Hours of the soak test"
      />
      {failures.length > 0 && (
        <p className="text-warning">
          ▲ It failed {failures.length === 1 ? "once" : `${failures.length} times`} during this test; the count started again each time.
          Last: {failures.at(-1)!.what}.
        </p>
      )}
      {energyKind !== "live" && !met && <p className="soft">The amp is off: timer paused.</p>}
      <div className="mt-3 flex flex-wrap items-end gap-2">
        <Field label="What was done, for the report">
          <input className="input w-80" placeholder="C11 replaced, socket cleaned" {...register("done")} />
        </Field>
        <button className="btn btn-primary" disabled={!met} onClick={() => end("cured")}>
          Cured
        </button>
        <button className="btn btn-outline" disabled={failures.length === 0} onClick={() => end("failed")}>
          Not cured
        </button>
        <button className="btn btn-outline" disabled={done.trim() === ""} title="say what was done" onClick={() => end("no fault found")}>
          No fault found
        </button>
        <button className="btn btn-ghost" onClick={() => end("broken off")}>
          Stop the soak test
        </button>
      </div>
    </div>
  );
}

/** The plan, or why there is none. */
function planOf(soak: Parameters<typeof soakPlan>[0]): ReturnType<typeof soakPlan> | { why: string } {
  try {
    return soakPlan(soak);
  } catch (error) {
    return { why: (error as Error).message };
  }
}

function Begin({ last }: { last?: SoakState }) {
  const { view, say, settings } = useJob();
  const seen = soakFrom(view.state.occurrences);
  const number = (text: string) => {
    const parsed = parseQuantity(text, { decimal: settings.decimal });
    return parsed.ok ? parsed.quantity.value : NaN;
  };
  const usual = {
    fault: seen.fault,
    failures: figure(seen.failures),
    hours: seen.hours === undefined ? "" : figure(seen.hours),
    onset: seen.onsetMinutes === undefined ? "" : figure(seen.onsetMinutes),
    confidence: "95",
  };
  const read = (t: typeof usual) => ({
    fault: t.fault.trim(),
    failures: Math.round(number(t.failures)),
    hours: number(t.hours),
    onsetMinutes: t.onset.trim() === "" ? 0 : number(t.onset),
    confidence: number(t.confidence) / 100,
  });
  const { field, onSubmit, refused, typed } = useTypedForm(usual, (t) => {
    const soak = read(t);
    if (soak.fault === "") return "Which fault is it tested for?";
    if (!(soak.onsetMinutes >= 0)) return `Read "${t.onset}" minutes; accepted: 0 or more`;
    const planned = planOf(soak);
    if ("why" in planned) return planned.why;
    say({ type: "soak-begun", payload: soak }, { type: "waiting", payload: { on: "soak", what: soak.fault.slice(0, 200) } });
  });
  const planned = typed.hours.trim() === "" ? undefined : planOf(read(typed));
  const plan = planned && "hours" in planned ? planned : undefined;
  return (
    <form className="space-y-2" onSubmit={onSubmit}>
      {last?.soak.ended && (
        <p className="text-xl font-bold">
          Last soak test: {last.soak.ended.outcome} after {hoursText(last.hours)}
          {last.soak.ended.done && `; ${last.soak.ended.done}`}
        </p>
      )}
      <div className="flex flex-wrap items-end gap-3">
        <Field label="For the fault">
          <input className="input w-64" placeholder="loses half its level" {...field("fault")} />
        </Field>
        <Field label="Failures">
          <input className="input w-24 text-right" inputMode="numeric" {...field("failures")} />
        </Field>
        <Field label="within hours of running">
          <input className="input w-28 text-right" inputMode="decimal" {...field("hours")} />
        </Field>
        <Field label="minutes after power-on (if typical)">
          <input className="input w-28 text-right" inputMode="decimal" placeholder="any time" {...field("onset")} />
        </Field>
        <Field label="Confidence, %">
          <input className="input w-24 text-right" inputMode="decimal" {...field("confidence")} />
        </Field>
        <button className="btn btn-primary">Start the soak test</button>
      </div>
      {plan ? (
        <p>
          It would have to run {hoursText(plan.hours)}
          {plan.cycleMinutes > 0 && `, ${plan.cycles} times on for ${Math.round(plan.cycleMinutes)} min without a break,`} without failing.
        </p>
      ) : (
        <p className="soft">The more rarely it failed before, the longer it must run without failing.</p>
      )}
      <Refused>{refused}</Refused>
    </form>
  );
}
