"use client";
/** The soak: how long it must run without failing before "cured" means anything, where it stands, how it ended. */

import { useState } from "react";
import { soakFrom } from "@/core/job/occurrences";
import { soakPlan, soakState, type SoakState } from "@/core/job/soak";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../../forms/section";
import { useJob } from "../../frame/job-context";

export function Soak() {
  const { view, now } = useJob();
  const running = soakState(view.state, now);
  return (
    <Section title="Soak" hint="the stop rule is written down before it runs">
      {running && !running.soak.ended ? <Running running={running} /> : <Begin last={running} />}
    </Section>
  );
}

const hoursText = (h: number) => (h < 1 ? `${Math.round(60 * h)} min` : `${h.toFixed(1)} h`);

function Running({ running }: { running: SoakState }) {
  const { say, energy } = useJob();
  const { soak, plan, hours, cycles, failures, confidence, left, cyclesLeft } = running;
  const [done, setDone] = useState("");
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
          ? `● ${hoursText(hours)} without failure: ${Math.floor(100 * confidence)} % sure that it no longer fails as it did`
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
      <progress className="progress mt-2 w-full max-w-xl" value={Math.min(1, hours / plan.hours)} max={1} aria-label="Hours of the soak" />
      {failures.length > 0 && (
        <p className="text-warning">
          ▲ It failed {failures.length === 1 ? "once" : `${failures.length} times`} in this soak; the count began anew each time. Last:{" "}
          {failures.at(-1)!.what}.
        </p>
      )}
      {energy.kind !== "live" && !met && <p className="soft">The amp is off: the clock stands.</p>}
      <div className="mt-3 flex flex-wrap items-end gap-2">
        <Field label="What was done, for the report">
          <input className="input w-80" value={done} placeholder="C11 replaced, socket cleaned" onChange={(e) => setDone(e.target.value)} />
        </Field>
        <button className="btn btn-primary" disabled={!met} onClick={() => end("cured")}>
          Cured
        </button>
        <button className="btn btn-outline" disabled={failures.length === 0} onClick={() => end("failed")}>
          Not cured
        </button>
        <button
          className="btn btn-outline"
          disabled={done.trim() === ""}
          title="an honest outcome: say what was done"
          onClick={() => end("no fault found")}
        >
          No fault found
        </button>
        <button className="btn btn-ghost" onClick={() => end("broken off")}>
          Break it off
        </button>
      </div>
    </div>
  );
}

function Begin({ last }: { last?: SoakState }) {
  const { view, say, settings } = useJob();
  const seen = soakFrom(view.state.occurrences);
  const [fault, setFault] = useState(seen.fault);
  const [failures, setFailures] = useState(String(seen.failures));
  const [hours, setHours] = useState(seen.hours === undefined ? "" : String(seen.hours));
  const [onset, setOnset] = useState(seen.onsetMinutes === undefined ? "" : String(seen.onsetMinutes));
  const [confidence, setConfidence] = useState("95");
  const [refused, setRefused] = useState("");
  const number = (text: string) => {
    const parsed = parseQuantity(text, { decimal: settings.decimal });
    return parsed.ok ? parsed.quantity.value : NaN;
  };
  const payload = () => ({
    fault: fault.trim(),
    failures: Math.round(number(failures)),
    hours: number(hours),
    onsetMinutes: onset.trim() === "" ? 0 : number(onset),
    confidence: number(confidence) / 100,
  });
  let plan: ReturnType<typeof soakPlan> | undefined;
  try {
    plan = hours.trim() === "" ? undefined : soakPlan(payload());
  } catch {
    plan = undefined;
  }
  function begin(e: React.FormEvent) {
    e.preventDefault();
    try {
      const soak = payload();
      if (soak.fault === "") return setRefused("What is it soaked for?");
      if (!(soak.onsetMinutes >= 0)) return setRefused(`Read "${onset}" minutes; accepted: 0 or more`);
      soakPlan(soak);
      say({ type: "soak-begun", payload: soak }, { type: "waiting", payload: { on: "soak", what: soak.fault.slice(0, 200) } });
    } catch (error) {
      setRefused((error as Error).message);
    }
  }
  return (
    <form className="space-y-2" onSubmit={begin}>
      {last?.soak.ended && (
        <p className="text-xl font-bold">
          Last soak: {last.soak.ended.outcome} after {hoursText(last.hours)}
          {last.soak.ended.done && `; ${last.soak.ended.done}`}
        </p>
      )}
      <div className="flex flex-wrap items-end gap-3">
        <Field label="For the fault">
          <input className="input w-64" value={fault} placeholder="loses half its level" onChange={(e) => setFault(e.target.value)} />
        </Field>
        <Field label="It failed, times">
          <input className="input w-24 text-right" inputMode="numeric" value={failures} onChange={(e) => setFailures(e.target.value)} />
        </Field>
        <Field label="within hours of running">
          <input className="input w-28 text-right" inputMode="decimal" value={hours} onChange={(e) => setHours(e.target.value)} />
        </Field>
        <Field label="after minutes on (if so)">
          <input
            className="input w-28 text-right"
            inputMode="decimal"
            value={onset}
            placeholder="any time"
            onChange={(e) => setOnset(e.target.value)}
          />
        </Field>
        <Field label="Confidence, %">
          <input className="input w-24 text-right" inputMode="decimal" value={confidence} onChange={(e) => setConfidence(e.target.value)} />
        </Field>
        <button className="btn btn-primary">Begin the soak</button>
      </div>
      {plan ? (
        <p>
          It would have to run {hoursText(plan.hours)}
          {plan.cycleMinutes > 0 && `, ${plan.cycles} times on for ${Math.round(plan.cycleMinutes)} min without a break,`} without failing.
        </p>
      ) : (
        <p className="soft">How often it used to fail decides how long silence must last to mean anything.</p>
      )}
      {refused && (
        <p role="alert" className="text-error">
          {refused}
        </p>
      )}
    </form>
  );
}
