"use client";
/** A blown fuse or a short isolated as a procedure: the test that splits the causes best, what each answer leaves, the proof. */

import { tellsHowMuch } from "@/core/texts/diagnosis";
import { useState } from "react";
import { fuseGone, isolationAnswers } from "@/core/bring-up/fuse-isolation-state";
import { bucketOf } from "@/core/bring-up/ohm-outcome";
import { formatQuantity } from "@/core/quantity/format";
import { readOhms } from "@/core/quantity/ohms";
import type { Isolation, NextTest } from "@/core/diagnosis/isolate";
import { ReadingField } from "../../forms/reading-field";
import { Field } from "../../forms/section";
import { Gate } from "../../frame/gate";
import { useJob } from "../../job/job-context";
import { capital } from "../../job/words";
import { useAnswer } from "../../job/use-answer";
import { CauseBars, Instead } from "../cause-bars";
import { MainsInstrument } from "./mains-instrument";
import type { BringUpBench } from "./use-bring-up";

export function FuseIsolation({ wall, lamp, setLamp }: BringUpBench) {
  const { view, netlist, solver, say } = useJob();
  const { state, circuit } = view;
  const answers = isolationAnswers(state);
  const gone = fuseGone(state);
  const fuse = Number(circuit!.facts.fuse) || undefined;
  const [with0, setWith] = useState<"lamp" | "fuse">("lamp");
  const bench = { wall, lamp: with0 === "lamp" ? lamp : 0, ...(fuse ? { fuse } : {}) };
  const wanted = gone || answers.length > 0;
  const key = wanted && solver && netlist !== undefined ? JSON.stringify([netlist, bench, answers]) : undefined;
  const { answer, progress, failed } = useAnswer<Isolation>(key, (told) =>
    solver!.isolate(
      netlist!,
      bench,
      answers.map(({ test, outcome }) => ({ test, outcome })),
      told,
    ),
  );
  if (!wanted)
    return (
      <div className="max-w-3xl space-y-3">
        <p className="text-2xl font-bold">No fuse has blown in this job.</p>
        <p>
          When one blows, or the series lamp stays bright, start here: Scutum lists what can blow the fuse of this amp, suggests the test
          that tells most for its effort and danger, and keeps what each answer rules out.
        </p>
        <button className="btn btn-primary" onClick={() => say({ type: "observation", payload: { name: "fuse blows", conditions: {} } })}>
          The fuse has blown
        </button>
      </div>
    );
  return (
    <div className="max-w-5xl space-y-4">
      <div className="flex flex-wrap items-end gap-3 text-sm">
        <Field label="Power through">
          <select className="select w-52" value={with0} onChange={(e) => setWith(e.target.value as "lamp")}>
            <option value="lamp">a series lamp</option>
            <option value="fuse">the fuse alone</option>
          </select>
        </Field>
        {with0 === "lamp" ? (
          <Field label="Lamp, W">
            <input
              className="input w-20 text-right"
              type="number"
              min={15}
              max={500}
              value={lamp}
              onChange={(e) => setLamp(Math.max(15, Math.min(500, Number(e.target.value) || lamp)))}
            />
          </Field>
        ) : (
          <p className="pb-2 text-warning">
            ▲ Every power test may blow a fuse and damage the faulty part further. A series lamp limits that.
          </p>
        )}
      </div>
      {failed && <p role="alert">The causes could not be solved: {failed}</p>}
      {!answer && !failed && (
        <p role="status">
          Working out what each cause would show in each test
          <progress className="progress mt-1 block w-72" value={progress ?? 0} max={1} aria-label="Solving the causes" />
        </p>
      )}
      {answer && <Now isolation={answer} />}
      <MainsInstrument />
      {answer && <Left isolation={answer} />}
      {answer && answer.proof.length > 0 && <Proof isolation={answer} />}
    </div>
  );
}

function Now({ isolation }: { isolation: Isolation }) {
  const { found, next, recheck, doubtful } = isolation;
  const again = recheck[0];
  const [instead, setInstead] = useState<string>();
  if (found && !again)
    return (
      <section aria-label="Result" className="rounded border border-base-300 bg-base-200 p-4">
        <p className="soft text-sm">{Math.round(found.probability * 100)} % probability</p>
        <p className="text-3xl font-bold">{capital(found.says)}</p>
        <p className="mt-1 text-lg">
          {found.refs.length > 0
            ? `Put it right and log the change at Work under ${found.refs[0]}; then bring the amp up again from the first stage.`
            : "Fit a fuse of the right rating and type, and bring the amp up again from the first stage, behind a lamp."}
        </p>
      </section>
    );
  const test: NextTest | undefined = again
    ? { ...again, bits: 0, cost: 0, why: "the most probable cause does not explain the answer" }
    : (next.find((t) => t.id === instead) ?? next[0]);
  if (!test)
    return (
      <p className="text-2xl font-bold">
        No test is left that tells these apart. Check them part by part, one leg lifted at a time, the most probable first.
      </p>
    );
  return (
    <section aria-label="Next test" className="rounded border border-base-300 bg-base-200 p-4">
      <p className="soft text-sm">
        {again ? "Repeat this test" : `This test ${tellsHowMuch(test.bits)}`}
        {doubtful && ": two answers contradict the others"}
      </p>
      <p className="text-3xl font-bold">{test.what}</p>
      <p className="mt-1">{test.why}</p>
      {test.id.startsWith("power:") && (
        <p className="soft text-sm">
          Switch on above for ten seconds at most; look, switch off, pull the plug, then answer. Ignore the first second: a cold amp draws a
          surge.
        </p>
      )}
      <TestForm key={test.id} test={test} />
      {!again && <Instead tests={next.filter((t) => t !== test)} choose={setInstead} />}
    </section>
  );
}

/** The answer: an outcome by its button, or ohms that say which. */
function TestForm({ test }: { test: NextTest }) {
  const { say, settings } = useJob();
  const log = (outcome: string, ohms?: number) =>
    say({ type: "isolation-step", payload: { test: test.id, what: test.what, outcome, ...(ohms === undefined ? {} : { ohms }) } });
  const form =
    test.id.startsWith("ohm:") && test.expectedOhms !== undefined ? (
      <ReadingField
        button="Log it"
        label="Reading, Ω"
        hint={`a sound amp reads ${formatQuantity(test.expectedOhms, "Ω", 3)}`}
        take={(text) => {
          const ohms = readOhms(text, settings.decimal);
          if (typeof ohms === "string") return { refused: ohms, keep: true };
          log(bucketOf(ohms, test.expectedOhms!), ohms);
          return undefined;
        }}
      />
    ) : (
      <div className="mt-2 flex flex-wrap gap-2">
        {test.outcomes.map((o) => (
          <button key={o} className="btn btn-primary btn-lg" onClick={() => log(o)}>
            {capital(o)}
          </button>
        ))}
      </div>
    );
  // Hands go in for these: the reading waits for the proof.
  return /^(ohm|halves|alone|shorts):/.test(test.id) ? <Gate station="cold-checks">{form}</Gate> : form;
}

function Left({ isolation }: { isolation: Isolation }) {
  const left = isolation.causes.filter((c) => c.probability > 0.005);
  return <CauseBars hint={`${isolation.causes.length - left.length} ruled out`} causes={left.slice(0, 12)} />;
}

/** The log as a proof: what was done, what it ruled out, how many are left. */
function Proof({ isolation }: { isolation: Isolation }) {
  const { view, say } = useJob();
  const steps = isolationAnswers(view.state);
  return (
    <section aria-label="Proof">
      <h2 className="font-bold">Results so far</h2>
      <ol className="mt-1 list-decimal space-y-2 pl-6">
        {isolation.proof.map((p) => {
          const step = steps.findLast((s) => s.test === p.test);
          return (
            <li key={p.test}>
              <strong>{p.what}</strong>:{" "}
              {step?.ohms === undefined ? "" : `${step.ohms >= 1e9 ? "open" : formatQuantity(step.ohms, "Ω", 3)}, `}
              {p.outcome}.{" "}
              {p.ruledOut.length > 0 ? <>Ruled out: {p.ruledOut.join("; ")}.</> : <span className="soft">It rules nothing out alone.</span>}{" "}
              <span className="soft">
                {p.left.length} left{p.left.length <= 3 ? `: ${p.left.join("; ")}` : ""}.
              </span>{" "}
              {step && (
                <button
                  className="text-sm underline decoration-dotted underline-offset-4"
                  onClick={() => say({ type: "undo", supersedes: step.seq, reason: "answered wrongly", payload: {} })}
                >
                  Undo
                </button>
              )}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
