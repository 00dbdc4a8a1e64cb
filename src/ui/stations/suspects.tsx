"use client";
/** Suspects: the next measurement as the one thing to do, and under it the faults that explain what was read so far. */

import { figure, say, words } from "@/core/language/language";
import { late } from "../frame/late";
import Link from "next/link";
import { useMemo, useState } from "react";
import { envelopeOf } from "@/core/circuit/circuit";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import type { SuspectsAnswer } from "@/core/ports/solver-port";
import { noiseOf } from "@/core/noise/job-noise";
import { ENOUGH } from "@/core/diagnosis/evidence";
import { historyWords, type PartHistory } from "@/core/suspects/history";
import type { NextMeasurement } from "@/core/suspects/next";
import { OBSERVATIONS } from "@/core/diagnosis/observation-names";
import type { Suspect } from "@/core/suspects/rank";
import { useJob } from "../frame/job-context";
import { useSuspects } from "../frame/use-suspects";
import { Temperatures } from "./temperatures";
import { Findings } from "./findings";
import { NoCircuit } from "./no-circuit";
import { TakeNext } from "./take-next";

const JointList = late(() => import("./noise/enters").then((m) => m.JointList));

export function Suspects() {
  const { view } = useJob();
  if (!view.circuit) return <NoCircuit what="Suspects needs the circuit." />;
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
      {answer && <Advice answer={answer} enough={enough} />}
      {answer && answer.suspects.length > 0 && job.evidence.length > 0 && (
        <div className="grid gap-5 xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
          <Bars suspects={answer.suspects} picked={picked} choose={setChosen} history={history} />
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
        Next noise test
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
        Too many readings fit no fault of this circuit: {answer.recheck.join(", ")}
        {words(". Check the model and its revision, the mains voltage that was entered, and where the black lead is connected.")}
      </Big>
    );
  // One reading that is off alone is taken again first; several are no slips.
  if (top?.unknown && answer.recheck.length !== 1)
    return (
      <>
        <Big title="None of the faults known here explains this">
          {top.against.length > 0 ? `${top.against.join(", ")} fit no fault on the list. ` : ""}Check the circuit against the amp: another
          revision, an earlier repair, a part that is not drawn. Then go on measuring.
        </Big>
        {next && <TakeNext key={next.point + next.kind} {...next} title={`Next: ${measurementWords(next)}`} label="Go on with" />}
      </>
    );
  const again = answer.recheck[0];
  if (again !== undefined) {
    const title = `Take ${again} again`;
    const why =
      answer.slips[again] ??
      "It does not fit any fault that explains the other readings: a slip of the probe, the range or the pin is more likely than a second fault.";
    const slipped = answer.evidence.find((e) => (e.kind === "dcv" ? e.point : `${e.point} ${e.kind}`) === again);
    if (!slipped || slipped.kind === "observe") return <Big title={title}>{why}</Big>;
    return <TakeNext key={`again ${again}`} point={slipped.point} kind={slipped.kind} title={title} why={why} />;
  }
  const [alone] = answer.standsAlone;
  if (alone !== undefined)
    return (
      <Big title={`${alone} does not fit the other readings`}>
        It was read twice with the same result, so it is no slip. Either the amp has changed since the other readings, for example by
        warming up, or there are two faults. Measure the other points again now.
      </Big>
    );
  if (enough && top!.refs.length > 0)
    return (
      <>
        <Big title={partsOf(top!).length > 1 ? `One of: ${partsOf(top!).join(", ")}` : top!.fault}>
          {Math.round(top!.groupProbability * 100)} % probability{severity(top!)}. Prove it on the part itself before it is replaced.
        </Big>
        {next && <TakeNext key={next.point + next.kind} {...next} title={`To settle it: ${measurementWords(next)}`} label="To settle it" />}
      </>
    );
  if (enough && !next)
    return <Big title="No fault that these measurements would show">All readings are what this circuit should show.</Big>;
  if (!next) return <Big title="No further measurement would narrow it down">See below what these measurements cannot show.</Big>;
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
  if (s.unit === "of emission") return `, about ${Math.round(s.fitted * 100)} % of its emission left`;
  if (s.unit === "of its value") return `, about ${Math.round(s.fitted * 100)} % of its value left`;
  if (s.unit === "of the mains") return say`, about ${Math.round(s.fitted * 100)} % of the mains that was entered`;
  return `, about × ${figure(s.fitted.toPrecision(2))}`;
};

/** The leading fault of each part of a group that is not told apart yet. */
function partsOf(s: Suspect): string[] {
  return s.group.filter((_, i) => s.groupRefs.findIndex((r) => r.join() === s.groupRefs[i]!.join()) === i);
}

/** Other ways in which the leading part may fail: what is to be replaced is the same. */
function waysOf(s: Suspect): string[] {
  return s.group.slice(1).filter((_, i) => s.groupRefs[i + 1]!.join() === s.refs.join());
}

function measurementWords(m: NextMeasurement): string {
  if (m.kind === "mains") return words("the mains voltage at the amp");
  if (m.kind === "ohm") return `ohms of ${m.point}, power off`;
  if (m.kind === "leak") return `one leg of ${m.point} lifted, volts at it`;
  if (m.kind === "gm") return say`${m.point} in the tube tester, or a known good one in its place`;
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
  // A sound amp is always there to compare with.
  const isShown = (s: Suspect, i: number) => i === 0 || s.refs.length === 0 || s.groupProbability >= LEAST_SHOWN;
  const shown = suspects.filter(isShown);
  const folded = suspects.filter((s, i) => !isShown(s, i));
  return (
    <section aria-label="Suspects">
      <h2 className="font-bold">Suspects</h2>
      <ul className="mt-1 space-y-1">
        {shown.map((s) => (
          <li key={s.fault}>
            <button
              className={`w-full rounded border px-3 py-2 text-left ${s === picked ? "border-primary bg-base-200" : "border-base-300"}`}
              aria-pressed={s === picked}
              onClick={() => choose(s.fault)}
            >
              <span className="flex items-baseline gap-3">
                <span className="flex-1 text-lg font-bold">
                  {s.fault}
                  {waysOf(s).length > 0 && (
                    <span className="soft block text-sm font-normal">or, the same part: {waysOf(s).join(", ")}</span>
                  )}
                  {partsOf(s).length > 1 && (
                    <span className="soft block text-sm font-normal">cannot be told apart from: {partsOf(s).slice(1).join(", ")}</span>
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
                {s.explains.length + s.against.length === 0 && "no reading confirms or contradicts it"}
                {historyWords(s.refs, history) && <span className="block">{historyWords(s.refs, history)}</span>}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {folded.length > 0 && (
        <p className="soft mt-2 text-sm">
          {folded.length} more under 2 % each:{" "}
          {folded
            .slice(0, MOST_FOLDED)
            .map((s) => s.fault)
            .join(", ")}
          {folded.length > MOST_FOLDED && " …"}
        </p>
      )}
    </section>
  );
}

/** What lies under this is folded into one line, so many of it by name. */
const LEAST_SHOWN = 0.02;
const MOST_FOLDED = 6;

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
        Seen, heard, felt <span className="soft text-sm font-normal">each counts as evidence; or type: saw V4 cold</span>
      </h2>
      <div className="mt-1 flex flex-wrap items-center gap-1">
        <select className="select select-sm min-h-9 w-24" value={tube} onChange={(e) => setTube(e.target.value)} aria-label={words("Tube")}>
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
        Not tested yet: {list.length} faults that none of these readings could show{" "}
        <span className="soft font-normal">(they are not ruled out)</span>
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
