"use client";
/** Probe mode for resistances: the amp proven dead, one reading fills the screen, taken when it stands still or by the one key. */

import { useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { latestReading } from "@/core/tape/fold";
import { readingOf } from "@/core/instrument/held-reading";
import { measurementDraft } from "@/core/entry/measurement-lines";
import { OPEN_OHMS } from "@/core/quantity/ohms";
import { formatQuantity } from "@/core/quantity/format";
import { judgeCold, markNameOf, type ColdCheck } from "@/core/cold/cold-check";
import { VERDICT_WORD } from "@/core/expectation/expectation";
import { cannotReach, pointsLeft, skipHere, startProbeWalk, stepBack, takeHere, type ProbeWalk } from "@/core/walk/probe-walk";
import { PointPhoto } from "../drawing/point-photo";
import { useGateOpen } from "../frame/gate";
import { useEnergy, useJob } from "../job/job-context";
import { useAnswer } from "../job/use-answer";
import { VerdictMark } from "../forms/verdict-mark";
import { energyWords } from "../job/words";
import { Keys } from "./keys";
import { Now } from "./now";
import { usePedal } from "./pedal";
import { useHold } from "./use-hold";
import { useSound } from "./sound";

export function ColdProbe() {
  const { netlist, solver, jobId } = useJob();
  const { energy } = useEnergy();
  const router = useRouter();
  const out = () => router.push(`/jobs/${jobId}/cold-checks`);
  const open = useGateOpen("cold-checks");
  const { answer, progress, failed } = useAnswer(solver && netlist, (told) => solver!.cold(netlist!, told));
  if (!open)
    return (
      <Message says="Do not reach inside: the amp is not proven dead." out={out}>
        {energyWords(energy).title}: {energyWords(energy).detail}. Make safe first.
      </Message>
    );
  if (netlist === undefined) return <Message says="Expected resistances need a circuit." out={out} />;
  if (failed)
    return (
      <Message says="The expected resistances could not be computed." out={out}>
        {failed}
      </Message>
    );
  if (!answer)
    return (
      <Message says="Working out what the ohmmeter should show" out={out}>
        <progress className="progress w-full" value={progress ?? 0} max={1} aria-label="Solving the resistances" />
      </Message>
    );
  return <Probing checks={answer} out={out} />;
}

function Message({ says, out, children }: { says: string; out(): void; children?: React.ReactNode }) {
  const pedal = usePedal({ short: out, other: (key) => key === "escape" && (out(), true) });
  return (
    <>
      <section className="flex flex-1 flex-col justify-center gap-8 px-4 md:px-12">
        <p className="text-7xl leading-tight font-bold">{says}</p>
        <div className="text-3xl">{children}</div>
      </section>
      <Keys keys={[["press", "back to the list"]]} pedal={pedal} />
    </>
  );
}

function Probing({ checks, out }: { checks: ColdCheck[]; out(): void }) {
  const { view, say, conditions, entryContext } = useJob();
  const { energy } = useEnergy();
  const sound = useSound();
  const [walk, setWalk] = useState<ProbeWalk>(() =>
    startProbeWalk(
      checks.map((c) => c.point),
      checks.filter((c) => latestReading(view.state, c.point, "ohm")).map((c) => c.point),
    ),
  );
  const here = useRef(walk.here);
  const [last, setLast] = useState<{ check: ColdCheck; value: number }>();
  const check = checks.find((c) => c.point === walk.here);

  const probe = useHold({
    want: walk.here === undefined ? undefined : { point: walk.here, kind: "ohm" },
    held: takeHeld,
    letters: "kMG",
    sound,
  });
  const { hold, typed } = probe;
  const { meter, heard } = probe.instruments;
  function begin(next: ProbeWalk, leaveNow: boolean) {
    setWalk(next);
    here.current = next.here;
    probe.begin(next.here, leaveNow);
  }

  function log(value: number, digits?: number) {
    const at = checks.find((c) => c.point === here.current);
    if (!at) return;
    say({ type: "reading", payload: { point: at.point, kind: "ohm", value, ...(digits ? { digits } : {}), conditions } });
    const { verdict } = judgeCold(at, value);
    sound.say(verdict, `${at.place}, ${VERDICT_WORD[verdict]}`);
    setLast({ check: at, value });
    begin(takeHere(walkRef.current), true);
  }
  const walkRef = useRef(walk);
  useEffect(() => {
    walkRef.current = walk;
  }, [walk]);
  function takeHeld() {
    const point = here.current;
    if (point === undefined) return;
    // An overload does not end by itself as a reading does: it may be a tip in the air, so it takes the key.
    if (probe.current().phase === "over" || meter?.over) return log(OPEN_OHMS, 1);
    const reading = readingOf(probe.current(), point, conditions, "ohm");
    if (!reading) return probe.refuse("The meter shows no steady value yet");
    log(reading.value, reading.digits);
  }
  function takeTyped() {
    const entry = measurementDraft({ point: walk.here!, kind: "ohm", text: typed }, entryContext("cold-checks"));
    if (!entry.ok) return probe.refuse(`${entry.why}. Accepted: ${entry.accepted}`);
    const draft = entry.drafts.find((d) => d.type === "reading");
    if (draft?.type === "reading") log(draft.payload.value, draft.payload.digits);
  }
  const pedal = usePedal({
    short: () => (walk.here === undefined ? out() : typed ? takeTyped() : takeHeld()),
    long: () => begin(skipHere(walk), true),
    other(key) {
      if (probe.key(key)) return true;
      if (key === "escape") out();
      else if (key === "s" || key === "arrowright") begin(skipHere(walk), true);
      else if (key === "b" || key === "arrowleft" || key === "backspace") begin(stepBack(walk), true);
      else if (key === "r") begin(walk, false);
      else if (key === "n") begin(cannotReach(walk), true);
      else return false;
      return true;
    },
  });
  const { title, detail } = energyWords(energy);
  const after = pointsLeft(walk).find((p) => p !== walk.here);
  return (
    <>
      <header className="flex items-center gap-8 border-b border-base-300 bg-base-200 px-6 py-3 text-2xl">
        <p role="status" aria-label="Energy state" data-energy={energy.kind} className="min-w-0 flex-1 truncate font-bold">
          {title} <span className="text-xl font-normal">{detail}</span>
        </p>
        <p className="whitespace-nowrap">
          {walk.taken.length} <span className="soft">of {walk.order.length} taken</span>
        </p>
      </header>
      <div className="grid shrink-0 gap-y-4 py-4 md:min-h-0 md:flex-1 md:shrink md:py-0 md:grid-cols-[minmax(0,11fr)_minmax(0,9fr)]">
        {check ? (
          <section
            aria-label="Where the probe goes"
            className="flex min-w-0 flex-col justify-center gap-3 border-base-300 px-4 md:border-r md:px-10"
          >
            <p data-testid="probe-place" data-point={check.point} className="text-[clamp(3.5rem,7vw,8rem)] leading-none font-bold">
              {check.place}
            </p>
            <p className="text-4xl leading-tight">{check.label || check.where}</p>
            <p className="soft text-2xl">{check.label ? check.where : ""}</p>
            <p className="mt-2 text-4xl">
              <span className="soft">should read </span>
              <strong className="text-6xl whitespace-nowrap">{ohms(check.expected)}</strong>
              {Number.isFinite(check.expected) && (
                <span className="soft mt-1 block text-3xl">
                  {ohms(check.low)} to {ohms(check.high)}
                </span>
              )}
            </p>
          </section>
        ) : (
          <p role="status" className="flex items-center px-4 md:px-10 text-6xl font-bold">
            Everything has been measured.
          </p>
        )}
        <Now
          hold={hold}
          meter={meter}
          heard={heard}
          typed={typed}
          refused={probe.refused}
          live
          waiting={check === undefined}
          warming={0}
          photo={
            check && (
              <PointPhoto point={{ name: markNameOf(view.circuit!, check.point) }} place={check.place} className="hidden w-64 lg:block" />
            )
          }
          kind="ohm"
        />
      </div>
      <div className="grid min-h-36 md:grid-cols-[minmax(0,11fr)_minmax(0,9fr)] items-center border-t border-base-300">
        <div
          aria-live="assertive"
          data-testid="probe-verdict"
          data-verdict={last && judgeCold(last.check, last.value).verdict}
          className="px-4 md:px-10 py-3"
        >
          {last && <LastOhms {...last} />}
        </div>
        <p className="flex h-full items-center border-base-300 px-4 md:border-l md:px-10 text-3xl">
          {after && (
            <span>
              <span className="soft">then </span>
              <strong>{checks.find((c) => c.point === after)?.place}</strong>
            </span>
          )}
        </p>
      </div>
      <Keys
        pedal={pedal}
        keys={[
          ["press", check ? "take it now" : "back to the list"],
          ["hold", "skip"],
          ["B", "back"],
          ["R", "again"],
          ["N", "cannot reach"],
          ["0–9 k M", "type it"],
          ["V", sound.speech ? "voice off" : "voice on"],
          ["Esc", "leave"],
        ]}
      />
    </>
  );
}

function LastOhms({ check, value }: { check: ColdCheck; value: number }) {
  const { verdict, why } = judgeCold(check, value);
  return (
    <>
      <p className={`verdict-${verdict} flex items-center gap-5 text-5xl font-bold`}>
        <VerdictMark verdict={verdict} size={52} />
        {VERDICT_WORD[verdict]}
      </p>
      <p className="mt-1 text-2xl">
        {check.place} {ohms(value)}
        {why && <span className="soft">, {why}</span>}
      </p>
    </>
  );
}

const ohms = (value: number) => (value >= OPEN_OHMS ? "open" : formatQuantity(value, "Ω", 3));
