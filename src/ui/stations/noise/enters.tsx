"use client";
/** Where it enters: the test that splits the causes best as the one thing to do, and one list of causes from tests and readings. */

import { tellsHowMuch } from "@/core/texts/diagnosis";
import Link from "next/link";
import { useMemo, useState } from "react";
import { noiseOf } from "@/core/noise/job-noise";
import { sayOutcome } from "@/core/tape/sound-words";
import type { NoiseAnswer } from "@/core/noise/noise-answer";
import { NOT_SURE, NOW_AND_THEN } from "@/core/noise/test";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import type { JointSuspect } from "@/core/noise/together";
import { historyOf } from "@/core/suspects/history";
import { evidenceOf } from "@/core/suspects/job-evidence";
import { ReadingField } from "../../forms/reading-field";
import { useEnergy, useJob } from "../../job/job-context";
import { capital, energyWords } from "../../job/words";
import { useAnswer } from "../../job/use-answer";
import { CauseBars, Instead } from "../cause-bars";
import { ChainPicture } from "./chain-picture";
import { causeLayer } from "../../drawing/layers";
import { lateInBrowser } from "../../forms/late";
import { GenericForm, useGeneric, type Generic } from "./generic-form";

const StationDrawing = lateInBrowser(() => import("../../drawing/station-drawing").then((m) => m.StationDrawing), "min-h-[31rem]");

/** Where it enters by all that the tape says; solved again when an answer or a reading comes. */
function useEnters(generic?: Generic) {
  const { view, netlist, solver, settings, shopHistory, badNames } = useJob();
  const used = netlist ?? generic?.netlist;
  const circuit = view.circuit ?? generic?.circuit;
  const mains = circuit?.mains?.volts ?? settings.mainsVolts;
  const job = useMemo(() => (circuit ? noiseOf(view.state, circuit) : undefined), [view.state, circuit]);
  const read = useMemo(() => {
    if (!view.circuit) return undefined;
    const { evidence } = evidenceOf(view.state, view.circuit);
    return {
      evidence: evidence.filter((e) => e.kind !== "observe"),
      history: historyOf(view.state, view.circuit, shopHistory, badNames),
    };
  }, [view.state, view.circuit, shopHistory, badNames]);
  const key = used !== undefined && solver && job ? JSON.stringify([used, mains, job, read]) : undefined;
  return useAnswer<NoiseAnswer>(key, (told) => solver!.enters(used!, mains, job!, read, told));
}

/** The one list, for the suspects' own station. */
export function JointList() {
  const { answer } = useEnters();
  return answer ? <Causes suspects={answer.suspects} /> : <p role="status">Putting the noise and the readings together…</p>;
}

export function Enters() {
  const { netlist, solver } = useJob();
  const generic = useGeneric();
  const { answer, progress, failed } = useEnters(generic);
  return (
    <div className="max-w-5xl space-y-4">
      {netlist === undefined && <GenericForm generic={generic} />}
      {failed && (
        <p role="alert" className="text-error">
          Where it enters could not be worked out: {failed}
        </p>
      )}
      {progress !== undefined && (
        <p role="status" className="flex items-center gap-3 text-sm">
          <span className="soft">Working out what each cause would do in each test</span>
          <progress className="progress w-64" value={progress} max={1} aria-label="Solving the causes" />
          <button className="btn btn-ghost btn-sm min-h-9" onClick={() => solver?.cancel()}>
            Stop
          </button>
        </p>
      )}
      {answer && answer.doubts.length > 0 && (
        <p className="text-warning">
          ▲ Not solved, so neither confirmed nor ruled out: {answer.doubts.slice(0, 3).join("; ")}
          {answer.doubts.length > 3 && ` and ${answer.doubts.length - 3} more`}
        </p>
      )}
      {answer && <Now answer={answer} />}
      {answer && (
        <ChainPicture
          chain={answer.chain}
          suspicion={(refs) =>
            Math.min(
              1,
              answer.suspects.filter((s) => s.refs.some((r) => refs.includes(r))).reduce((sum, s) => sum + s.probability, 0),
            )
          }
        />
      )}
      {answer && <Causes suspects={answer.suspects} />}
      {answer && netlist !== undefined && <EntersDrawing suspects={answer.suspects} />}
      {answer && <Answered answer={answer} />}
      {answer && answer.refused.length > 0 && (
        <p className="soft text-sm">Tests that do not apply to this amp: {answer.refused.map((r) => `${r.what} (${r.why})`).join("; ")}.</p>
      )}
    </div>
  );
}

function EntersDrawing({ suspects }: { suspects: JointSuspect[] }) {
  const { view } = useJob();
  const circuit = view.circuit!;
  const layer = useMemo(() => causeLayer(circuit, suspects), [circuit, suspects]);
  return <StationDrawing layer={layer} />;
}

function Now({ answer }: { answer: NoiseAnswer }) {
  const { isolation, found } = answer;
  const { next, recheck, doubtful } = isolation;
  const [instead, setInstead] = useState<string>();
  const again = recheck[0];
  if (found && !again)
    return (
      <section aria-label="Result" className="rounded border border-base-300 bg-base-200 p-4">
        <p className="soft text-sm">{Math.round(found.probability * 100)} % probability</p>
        <p className="text-3xl font-bold">{capital(found.says)}</p>
        <p className="mt-1 text-lg">
          Prove it on the part itself. Then log the change at Work{found.refs[0] ? ` under ${found.refs[0]}` : ""}, and record it again: the
          picture before and after goes into the report.
        </p>
      </section>
    );
  const test = again
    ? { ...again, bits: 0, why: "the most probable cause does not explain the answer" }
    : (next.find((t) => t.id === instead) ?? next[0]);
  if (!test)
    return <p className="text-2xl font-bold">No test is left that tells these apart. Check them part by part, the most probable first.</p>;
  const { how, caution, inside } = answer.how[test.id] ?? { how: "" };
  return (
    <section aria-label="Next test" className="rounded border border-base-300 bg-base-200 p-4">
      <p className="soft text-sm">
        {again ? "Repeat this test" : `This test ${tellsHowMuch(test.bits)}`}
        {doubtful && ": two answers contradict the others"}
      </p>
      <p className="text-3xl font-bold">{test.what}</p>
      <p className="mt-1 text-lg">{how}</p>
      {caution && <p className="text-warning">▲ {caution}</p>}
      {answer.chain.lineConnected && (
        <p className="text-warning">
          ▲ One side of the line is its chassis: through an isolation transformer, and nothing grounded is clipped to it.
        </p>
      )}
      {inside && <BeforeHandsGoIn />}
      {test.id === "sound" && <p className="soft">Record it under Sound: this is answered automatically.</p>}
      <TestAnswer key={test.id} test={test} answer={answer} />
      {!again && <Instead tests={next.filter((t) => t !== test)} choose={setInstead} />}
    </section>
  );
}

/** What stands between now and a hand in the chassis. The answer itself is heard with the amp on again. */
function BeforeHandsGoIn() {
  const { jobId } = useJob();
  const { energy } = useEnergy();
  if (energy.kind === "proven-dead") return <p className="verdict-in">● {energyWords(energy).title}, until the power comes on.</p>;
  return (
    <p className="text-lg font-bold text-warning">
      ▲ {energyWords(energy).title} now: do not reach inside until{" "}
      <Link className="link" href={`/jobs/${jobId}/make-safe`}>
        Make safe
      </Link>{" "}
      has proven it dead.
    </p>
  );
}

function TestAnswer({ test, answer }: { test: { id: string; what: string; outcomes: readonly string[] }; answer: NoiseAnswer }) {
  const { say, settings, conditions } = useJob();
  const rail = [...answer.chain.rails, ...answer.chain.bias].find((r) => `ac:${r.node}` === test.id);
  const log = (outcome: string) => say({ type: "noise-test", payload: { test: test.id, what: test.what, outcome } });
  if (rail)
    return (
      <>
        <ReadingField
          button="Log it"
          label="AC volts, V"
          hint={`a sound amp shows ${formatQuantity(answer.soundRipple[rail.node] ?? 0, "V", 2)}`}
          take={(text) => {
            const parsed = parseQuantity(text, { unit: "V", decimal: settings.decimal });
            if (!parsed.ok) return { refused: `${parsed.why}; accepted: ${parsed.accepted}`, keep: true };
            const { value, digits } = parsed.quantity;
            if (value < 0 || value > 500) return { refused: `Read ${parsed.quantity.echo}; accepted: 0 to 500 V of ripple`, keep: true };
            say({ type: "reading", payload: { point: rail.name, kind: "acv", value, digits: Math.max(1, digits), conditions } });
            return undefined;
          }}
        />
        <button className="btn btn-ghost mt-1" onClick={() => log(NOT_SURE)}>
          {NOT_SURE}
        </button>
      </>
    );
  return (
    <div className="mt-3 flex flex-wrap gap-2">
      {test.outcomes.map((o) => (
        <button key={o} className="btn btn-outline h-14" onClick={() => log(o)}>
          {sayOutcome(o)}
        </button>
      ))}
      <button className="btn btn-ghost h-14" onClick={() => log(NOT_SURE)}>
        {NOT_SURE}
      </button>
      {test.id !== "sound" && (
        <button className="btn btn-ghost h-14" onClick={() => log(NOW_AND_THEN)}>
          {NOW_AND_THEN}
        </button>
      )}
    </div>
  );
}

function Causes({ suspects }: { suspects: JointSuspect[] }) {
  const causes = suspects
    .filter((s) => s.probability > 0.01)
    .slice(0, 10)
    .map((s) => ({
      ...s,
      part: s.refs[0],
      aside: s.against.length > 0 ? `does not explain: ${s.against.slice(0, 2).join("; ")}` : undefined,
    }));
  return <CauseBars hint="from the tests and from the readings, together" causes={causes} />;
}

function Answered({ answer }: { answer: NoiseAnswer }) {
  const { view, say } = useJob();
  const { proof } = answer.isolation;
  if (proof.length === 0) return null;
  return (
    <section aria-label="Answers so far">
      <h2 className="font-bold">Answers so far</h2>
      <ol className="mt-1 list-decimal space-y-1 pl-6">
        {proof.map((p) => {
          const line = view.state.noiseTests.findLast((t) => t.test === p.test);
          return (
            <li key={p.test}>
              <strong>{p.what}</strong>: {sayOutcome(p.outcome)}.{" "}
              <span className="soft">
                {p.ruledOut.length > 0 ? `${p.ruledOut.length} ruled out, ${p.left.length} left.` : `${p.left.length} left.`}
              </span>{" "}
              {line && (
                <button
                  className="text-sm underline decoration-dotted underline-offset-4"
                  onClick={() => say({ type: "undo", supersedes: line.seq, reason: "answered wrongly", payload: {} })}
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
