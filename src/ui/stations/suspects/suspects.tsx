"use client";
/** Suspects: the next measurement as the one thing to do, and under it the faults that explain what was read so far. */

import { expectedFrom } from "@/core/expectation/modelled";
import Link from "next/link";
import { useMemo, useState } from "react";
import { noiseOf } from "@/core/noise/job-noise";
import { partsNamed } from "../../drawing/parts-named";
import { useJob } from "../../job/job-context";
import { late, lateInBrowser } from "../../forms/late";
import { useSuspects } from "../../job/use-suspects";
import { Temperatures } from "../temperatures";
import { Findings } from "../findings";
import { NoCircuit } from "../no-circuit";
import { Stays } from "../../forms/stays";
import { Advice, adviceName, isEnough } from "./advice";
import { CasesOf, SimilarCases } from "./cases";
import { PlanRepair } from "./plan-repair";
import { SuspectList } from "./suspect-list";
import { Predicted } from "./predicted";
import { Observed } from "./observed";
import { Untested } from "./untested";

const SuspectDrawing = lateInBrowser(() => import("./suspect-drawing").then((m) => m.SuspectDrawing), "min-h-[31rem]");
const JointList = late(() => import("../noise/enters").then((m) => m.JointList));

export function Suspects() {
  const { view } = useJob();
  if (!view.circuit) return <NoCircuit what="Suspects needs the circuit." />;
  return (
    <div className="space-y-5">
      <Together />
      <SuspectsSheet />
      <SimilarCases />
      <Temperatures />
      <Findings station="suspects" />
    </div>
  );
}

function SuspectsSheet() {
  const { solver, view, setInHand } = useJob();
  const { job, history, answer, progress, failed } = useSuspects();
  const [chosen, setChosen] = useState<string>();
  const top = answer?.suspects[0];
  const picked = answer?.suspects.find((s) => s.fault === chosen) ?? top;
  const enough = answer !== undefined && isEnough(answer);
  const choose = (fault: string) => {
    setChosen(fault);
    const [part] = partsNamed(view.circuit!, answer?.suspects.find((s) => s.fault === fault)?.refs[0] ?? "");
    if (part) setInHand({ part });
  };
  return (
    <>
      {job.since && (
        <p className="rounded border border-base-300 px-3 py-2 text-sm">
          Readings before line {job.since.seq} are ignored: the amp was changed there ({job.since.position}).
          {job.evidence.length === 0 && " Measure again at Walk to see whether the change cured it."}
        </p>
      )}
      {failed && (
        <p role="alert" className="text-error">
          The suspects could not be computed: {failed}
        </p>
      )}
      {progress !== undefined && (
        <p role="status" className="flex items-center gap-3 text-sm">
          <span className="soft">Solving every fault of this circuit for these conditions</span>
          <progress className="progress w-48" value={progress} max={1} aria-label="Solving the faults" />
          <button className="btn btn-ghost btn-sm min-h-9" onClick={() => solver?.cancel()}>
            Stop
          </button>
        </p>
      )}
      {answer && (
        <Stays of={answer} name={adviceName(answer, enough)}>
          {(advised) => <Advice answer={advised} enough={advised === answer ? enough : isEnough(advised)} />}
        </Stays>
      )}
      {answer && answer.suspects.length > 0 && job.evidence.length > 0 && (
        <div className="grid gap-5 xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
          <SuspectList suspects={answer.suspects} picked={picked} choose={choose} history={history} />
          {picked && (
            <div>
              {picked.refs.length > 0 && !picked.unknown && <PlanRepair suspect={picked} />}
              <CasesOf refs={picked.refs} history={history} />
              <Predicted suspect={picked} answer={answer} />
            </div>
          )}
        </div>
      )}
      {answer && <SuspectDrawing answer={answer} picked={job.evidence.length > 0 ? picked : undefined} choose={setChosen} />}
      <Observed />
      {answer && job.evidence.length > 0 && answer.notYetTestable.length > 0 && <Untested list={answer.notYetTestable} />}
      {view.circuit && <p className="soft text-xs">{expectedFrom(view.circuit)}</p>}
      {job.leftOut.length > 0 && <p className="soft text-xs">Left out: {job.leftOut.map((l) => `${l.point} (${l.why})`).join("; ")}.</p>}
    </>
  );
}

/** Where a noise has been answered for, both kinds of evidence make one list; it is the same as at Noise. */
function Together() {
  const { view, jobId } = useJob();
  const heard = useMemo(() => noiseOf(view.state, view.circuit!), [view.state, view.circuit]);
  if (heard.answers.length + heard.rails.length === 0) return null;
  return (
    <>
      <JointList />
      <Link className="link" href={`/jobs/${jobId}/noise`}>
        Next noise test
      </Link>
    </>
  );
}
