/** What Suspects advises: a reading again, the next measurement, or the proof of what is left. */

import type { ReactNode } from "react";
import { say, words } from "@/core/language/language";
import { ENOUGH } from "@/core/diagnosis/evidence";
import type { SuspectsAnswer } from "@/core/ports/solver-port";
import type { NextMeasurement } from "@/core/suspects/next";
import { partsOf, severityOf } from "./suspect-words";
import { TakeNext } from "../take-next";

/** Whether one is left that is probable enough to be proven on the part. */
export const isEnough = ({ suspects: [top], evidence }: SuspectsAnswer): boolean =>
  top !== undefined && evidence.length > 0 && top.groupProbability >= ENOUGH;

/** Says when something else is to be done: the branch below, and the point that is asked for. */
export function adviceName(answer: SuspectsAnswer, enough: boolean): string {
  const [next] = answer.next;
  const top = answer.suspects[0];
  return JSON.stringify([
    answer.circuitDoubtful,
    top?.unknown && answer.recheck.length !== 1,
    answer.recheck[0],
    answer.standsAlone[0],
    enough && top?.fault,
    next && [next.point, next.kind],
  ]);
}

/** What to do now: take a reading again, take the next one, or prove the one that is left. */
export function Advice({ answer, enough }: { answer: SuspectsAnswer; enough: boolean }) {
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
          {Math.round(top!.groupProbability * 100)} % probability{severityOf(top!)}. Prove it on the part itself before it is replaced.
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

function Big({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label="What to do now" className="rounded border border-base-300 bg-base-200 p-4">
      <p className="text-3xl font-bold">{title}</p>
      <p className="mt-1 text-lg">{children}</p>
    </section>
  );
}

function measurementWords(m: NextMeasurement): string {
  if (m.kind === "mains") return words("the mains voltage at the amp");
  if (m.kind === "ohm") return `ohms of ${m.point}, power off`;
  if (m.kind === "leak") return `one leg of ${m.point} lifted, volts at it`;
  if (m.kind === "gm") return say`${m.point} in the tube tester, or a known good one in its place`;
  return `volts at ${m.point}`;
}
