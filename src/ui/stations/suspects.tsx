"use client";
/** Suspects: the next measurement as the one thing to do, and under it the faults that explain what was read so far. */

import dynamic from "next/dynamic";
import Link from "next/link";
import { useMemo, useState } from "react";
import { envelopeOf } from "@/core/circuit/circuit";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import type { SuspectsAnswer } from "@/core/solver/port";
import { noiseOf } from "@/core/noise/job-noise";
import { ENOUGH } from "@/core/suspects/evidence";
import { historyWords, type PartHistory } from "@/core/suspects/history";
import type { NextMeasurement } from "@/core/suspects/next";
import { OBSERVATIONS } from "@/core/suspects/observation-names";
import type { Suspect } from "@/core/suspects/rank";
import { useJob } from "../frame/job-context";
import { useSuspects } from "../frame/use-suspects";
import { Temperatures } from "./temperatures";
import { Findings } from "./findings";
import { NoCircuit } from "./no-circuit";
import { TakeNext } from "./take-next";

const JointList = dynamic(() => import("./noise/enters").then((m) => m.JointList));

export function Suspects() {
  const { view } = useJob();
  if (!view.circuit) return <NoCircuit what="Suspects are reasoned from the circuit." />;
  return (
    <div className="space-y-5">
      <Together />
      <SuspectsSheet />
      <Temperatures />
      <Findings station="suspects" />
    </div>
  );
}

function SuspectsSheet() {
  const { solver } = useJob();
  const { job, history, answer, progress, failed } = useSuspects();
  const [chosen, setChosen] = useState<string>();
  const top = answer?.suspects[0];
  const picked = answer?.suspects.find((s) => s.fault === chosen) ?? top;
  const enough = top !== undefined && job.evidence.length > 0 && top.groupProbability >= ENOUGH;
  return (
    <>
      {job.since && (
        <p className="rounded border border-base-300 px-3 py-2 text-sm">
          Only what was read since line {job.since.seq} ({job.since.position}) counts: before it the amp was another one.
          {job.evidence.length === 0 && " Walk again: the readings will say whether the change cured it."}
        </p>
      )}
      {failed && (
        <p role="alert" className="text-error">
          The suspects were not worked out: {failed}
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
      {answer && <Advice answer={answer} enough={enough} />}
      {answer && answer.suspects.length > 0 && job.evidence.length > 0 && (
        <div className="grid gap-5 xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
          <Bars suspects={answer.suspects.slice(0, 8)} picked={picked} choose={setChosen} history={history} />
          {picked && <Overlay suspect={picked} answer={answer} />}
        </div>
      )}
      <Observed />
      {answer && job.evidence.length > 0 && answer.notYetTestable.length > 0 && <Untested list={answer.notYetTestable} />}
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
        The next test about the noise
      </Link>
    </>
  );
}

/** What to do now: take a reading again, take the next one, or prove the one that is left. */
function Advice({ answer, enough }: { answer: SuspectsAnswer; enough: boolean }) {
  const [next] = answer.next;
  const top = answer.suspects[0];
  if (answer.circuitDoubtful)
    return (
      <Big title="This circuit does not describe this amp">
        Too many readings fit no fault of it: {answer.recheck.join(", ")}. Check the model and its revision, the mains voltage that was
        entered, and where the black lead is.
      </Big>
    );
  const again = answer.recheck[0];
  if (again !== undefined) {
    const title = `Take ${again} again`;
    const why =
      "It does not fit any fault that explains the rest: a slip of the probe, the range or the pin is likelier than a second fault.";
    const slipped = answer.evidence.find((e) => (e.kind === "dcv" ? e.point : `${e.point} ${e.kind}`) === again);
    if (!slipped || slipped.kind === "observe") return <Big title={title}>{why}</Big>;
    return <TakeNext key={`again ${again}`} point={slipped.point} kind={slipped.kind} title={title} why={why} />;
  }
  const [alone] = answer.standsAlone;
  if (alone !== undefined)
    return (
      <Big title={`${alone} does not fit the rest`}>
        It was taken twice alike, so it is no slip. Either the amp has changed since the other readings were taken, by warmth perhaps, or
        two things are wrong. Walk the others again as it stands now.
      </Big>
    );
  if (enough && top!.refs.length > 0)
    return (
      <>
        <Big title={top!.group.length > 1 ? `One of: ${top!.group.join(", ")}` : top!.fault}>
          {Math.round(top!.groupProbability * 100)} % of what is left{severity(top!)}. Prove it on the part itself before it is replaced.
        </Big>
        {next && <TakeNext key={next.point + next.kind} {...next} title={`To settle it: ${measurementWords(next)}`} label="To settle it" />}
      </>
    );
  if (enough && !next) return <Big title="Nothing wrong that a meter would find here">All that was read is what this circuit shows.</Big>;
  if (!next) return <Big title="No further measurement would tell more">See what is not yet testable below.</Big>;
  return (
    <TakeNext key={next.point + next.kind} point={next.point} kind={next.kind} title={`Next: ${measurementWords(next)}`} why={next.why} />
  );
}

function Big({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section aria-label="What to do now" className="rounded border border-base-300 bg-base-200 p-4">
      <p className="text-3xl font-bold">{title}</p>
      <p className="mt-1 text-lg">{children}</p>
    </section>
  );
}

const severity = (s: Suspect) => {
  if (s.fitted === undefined) return "";
  if (s.unit === "Ω") return `, about ${formatQuantity(s.fitted, "Ω", 2)}`;
  if (s.unit === "A") return `, about ${formatQuantity(s.fitted, "A", 2)}`;
  return s.unit === "of emission" ? `, about ${Math.round(s.fitted * 100)} % of its emission left` : `, about × ${s.fitted.toPrecision(2)}`;
};

function measurementWords(m: NextMeasurement): string {
  if (m.kind === "ohm") return `ohms of ${m.point}, power off`;
  if (m.kind === "leak") return `one leg of ${m.point} lifted, volts at it`;
  if (m.kind === "gm") return `${m.point} in the tube tester, or a known good one in its place`;
  return `volts at ${m.point}`;
}

function Bars({
  suspects,
  picked,
  choose,
  history,
}: {
  suspects: Suspect[];
  picked?: Suspect;
  choose(fault: string): void;
  history: PartHistory;
}) {
  return (
    <section aria-label="Suspects">
      <h2 className="font-bold">Suspects</h2>
      <ul className="mt-1 space-y-1">
        {suspects.map((s) => (
          <li key={s.fault}>
            <button
              className={`w-full rounded border px-3 py-2 text-left ${s === picked ? "border-primary bg-base-200" : "border-base-300"}`}
              aria-pressed={s === picked}
              onClick={() => choose(s.fault)}
            >
              <span className="flex items-baseline gap-3">
                <span className="flex-1 text-lg font-bold">
                  {s.fault}
                  {s.group.length > 1 && (
                    <span className="soft text-sm font-normal"> or {s.group.slice(1).join(", ")}: not told apart yet</span>
                  )}
                </span>
                <span className="text-lg tabular-nums">
                  {s.groupProbability < 0.01 ? "under 1" : Math.round(s.groupProbability * 100)} %
                </span>
              </span>
              <span className="mt-1 block h-2 bg-base-300" aria-hidden>
                <span className="block h-2 bg-primary" style={{ width: `${Math.max(0.5, s.groupProbability * 100)}%` }} />
              </span>
              <span className="soft mt-1 block text-sm">
                {s.explains.length > 0 && `explains ${s.explains.join(", ")}`}
                {s.explains.length > 0 && s.against.length > 0 && "; "}
                {s.against.length > 0 && `does not explain ${s.against.join(", ")}`}
                {s.explains.length + s.against.length === 0 && "nothing speaks against it, nothing for it"}
                {historyWords(s.refs, history) && <span className="block">{historyWords(s.refs, history)}</span>}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Predicted beside measured, point by point, for the chosen suspect. */
function Overlay({ suspect, answer }: { suspect: Suspect; answer: SuspectsAnswer }) {
  const show = (kind: string, v: number) =>
    !Number.isFinite(v)
      ? "–"
      : kind === "ohm"
        ? formatQuantity(v, "Ω", 3)
        : kind === "ma"
          ? formatQuantity(v / 1e3, "A", 3)
          : kind === "gm"
            ? `${Math.round(v)} %`
            : kind === "temp"
              ? `${Math.round(v)} °C`
              : formatVolts(v);
  return (
    <section aria-label="Predicted beside measured">
      <h2 className="font-bold">
        If it is {suspect.fault}
        <span className="soft font-normal">{severity(suspect)}</span>
      </h2>
      <table className="table table-sm tabular-nums">
        <thead>
          <tr>
            <th>Measured at</th>
            <th className="text-right">Measured</th>
            <th className="text-right">It predicts</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {answer.evidence.map((e, i) => {
            const label = e.kind === "observe" || e.kind === "dcv" ? e.point : `${e.point} ${e.kind}`;
            return (
              <tr key={i}>
                <td>{label}</td>
                <td className="text-right font-bold">{e.kind === "observe" ? "seen" : show(e.kind, e.value)}</td>
                <td className="text-right">{e.kind === "observe" ? "" : show(e.kind, suspect.predicted[i] ?? NaN)}</td>
                <td>
                  {suspect.against.includes(label) ? (
                    <span className="verdict-out">■ not explained</span>
                  ) : suspect.explains.includes(label) ? (
                    <span className="verdict-in">● explained</span>
                  ) : (
                    <span className="soft">○ no difference</span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

function Observed() {
  const { view, say, conditions } = useJob();
  const tubes = [...new Set(view.circuit!.elements.filter((e) => e.tube).map((e) => envelopeOf(e.name)))];
  const [tube, setTube] = useState(tubes[0] ?? "");
  const seen = new Set(view.state.observations.map((o) => o.name));
  return (
    <section aria-label="Seen, heard, felt">
      <h2 className="font-bold">
        Seen, heard, felt <span className="soft text-sm font-normal">each counts as evidence; also: saw V4 cold</span>
      </h2>
      <div className="mt-1 flex flex-wrap items-center gap-1">
        <select className="select select-sm min-h-9 w-24" value={tube} onChange={(e) => setTube(e.target.value)} aria-label="Tube">
          {tubes.map((t) => (
            <option key={t}>{t}</option>
          ))}
        </select>
        {OBSERVATIONS.map((o) => {
          const name = o.about === "tube" ? `${tube} ${o.name}` : o.name;
          return (
            <button
              key={o.name}
              className="btn btn-sm min-h-9"
              title={o.says}
              disabled={seen.has(name)}
              onClick={() => say({ type: "observation", payload: { name, conditions } })}
            >
              {seen.has(name) ? `● ${name}` : name}
            </button>
          );
        })}
      </div>
    </section>
  );
}

function Untested({ list }: { list: SuspectsAnswer["notYetTestable"] }) {
  const byTest = new Map<string, string[]>();
  for (const { fault, test } of list) byTest.set(test, [...(byTest.get(test) ?? []), fault]);
  return (
    <details className="text-sm">
      <summary className="min-h-9 cursor-pointer font-bold">
        Not yet testable: {list.length} faults that none of these readings could show{" "}
        <span className="soft font-normal">(not cleared)</span>
      </summary>
      <ul className="mt-1 max-h-72 overflow-y-auto">
        {[...byTest].map(([test, faults]) => (
          <li key={test} className="border-t border-base-300 py-1">
            <strong>{test}</strong> would show <span className="soft">{faults.join(", ")}</span>
          </li>
        ))}
      </ul>
    </details>
  );
}
