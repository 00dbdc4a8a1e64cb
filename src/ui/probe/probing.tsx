"use client";
/** One point fills the screen: where the probe goes, what should be there, what is there. The reading is taken by itself. */

import { useEffect, useRef, useState } from "react";
import { biasMissing, switchOffWithoutBias } from "@/core/walk/bias-missing";
import { readingOf } from "@/core/instrument/held-reading";
import { measurementDraft } from "@/core/entry/measurement-lines";
import type { Reading } from "@/core/tape/events/measuring-events";
import { warmingSeconds } from "@/core/anatomy/warm-up";
import { fullScale, verdictOf } from "@/core/expectation/expectation";
import type { ProbeWalk } from "@/core/walk/probe-walk";
import { spokenPoint, spokenVerdict } from "@/core/walk/spoken";
import { useJob, useNow } from "../job/job-context";
import { LastVerdict, ProbeStrip } from "./around";
import { PointPhoto } from "../drawing/point-photo";
import { Keys } from "./keys";
import { Now } from "./now";
import { usePedal } from "./pedal";
import { PointPlace } from "./point-place";
import type { Sound } from "./sound";
import type { ProbingOrder } from "@/core/walk/probe-order";
import { useHold } from "./use-hold";
import { useProbeWalk, type Move } from "./use-probe-walk";

/** Mains that moved by more than this since it was logged is logged anew; less is the wall's wandering. */
const MAINS_MOVED = 1;

export interface ProbingProps {
  order: ProbingOrder;
  sound: Sound;
  resume: ProbeWalk;
  leave(walk: ProbeWalk): void;
  /** @param why the walk was stopped; empty at its end. */
  ended(walk: ProbeWalk, why: string): void;
}

export function Probing({ order, sound, resume, leave, ended }: ProbingProps) {
  const { view, say, conditions, stands, entryContext, energyKind } = useJob();
  const now = useNow();
  const probing = useProbeWalk(order, resume);
  const { walk, move } = probing;
  const row = view.rows.find((r) => r.point.name === walk.here);
  const expected = row?.expected;
  const [last, setLast] = useState<string>();
  const here = useRef(walk.here);
  const range = expected && fullScale(expected.volts);
  const noted = [stands.switches, stands.controls].filter(Boolean).join("; ");

  // Volts of cold tubes are another amp's; who knows better presses the key.
  const { power } = view.state;
  const warming = warmingSeconds(power, now);

  const belongs = (name: string | undefined) => ({ expected: view.rows.find((r) => r.point.name === name)?.expected?.volts });
  const probe = useHold({
    want: walk.here === undefined ? undefined : { point: walk.here, kind: "dcv", ...(range ? { range } : {}), ...(noted ? { noted } : {}) },
    held: () => void (warming === 0 && takeHeld()),
    // After a silence nobody knows where the probe has been, nor whether it is the same meter.
    anew: () => probe.again(belongs(here.current)),
    letters: "−-",
    sound,
  });
  const { hold, typed, instruments } = probe;
  const { meter, mains, heard } = instruments;

  /** A new point, or the same again: what the display shows now must be left first, unless it is to be taken again. */
  function begin(name: string | undefined, leaveNow: boolean) {
    here.current = name;
    probe.begin(name, leaveNow, belongs(name));
  }
  function go(name: Move) {
    begin(move(name).here, true);
  }

  // The mains goes on the tape before the first point and whenever it has moved: each value is another set of expectations.
  const logged = view.state.mainsVolts;
  // Behind a lamp the amp's volts are not the mains.
  const moved = mains !== undefined && !mains.lamp && (logged === undefined || Math.abs(mains.volts - logged) > MAINS_MOVED);
  useEffect(() => {
    if (moved) say({ type: "mains", payload: { volts: Math.round(mains!.volts) } });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each move, not for each line
  }, [moved]);

  // The point of another order comes when the suspects have spoken.
  useEffect(() => {
    if (walk.here !== here.current) begin(walk.here, true);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only a new point begins anew
  }, [walk.here]);
  useEffect(() => {
    if (probing.over) ended(walk, "");
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, at the end
  }, [probing.over]);

  function takeHeld() {
    const point = here.current;
    if (point === undefined) return;
    const reading = readingOf(probe.current(), point, conditions);
    if (!reading)
      return probe.refuse(probe.current().phase === "over" ? "The display is over its range" : "The meter shows no steady value yet");
    log(reading);
  }
  function log(reading: Reading) {
    say({ type: "reading", payload: reading });
    const target = view.rows.find((r) => r.point.name === reading.point);
    const verdict = target?.expected ? verdictOf(reading.value, target.expected) : "none";
    sound.say(verdict, spokenVerdict(target?.point ?? { name: reading.point, label: "" }, reading.value, verdict, target?.expected));
    setLast(reading.point);
    const next = move("take");
    begin(next.here, true);
    if (target && biasMissing(target, reading.value)) ended(next, switchOffWithoutBias(target.point.label));
  }
  function takeTyped() {
    const entry = measurementDraft({ point: walk.here!, kind: "dcv", text: typed }, entryContext("walk"));
    if (!entry.ok) return probe.refuse(`${entry.why}. Accepted: ${entry.accepted}`);
    const draft = entry.drafts.find((d) => d.type === "reading");
    if (!draft) return probe.refuse("The amp is not logged as on, so this is no live reading");
    log(draft.payload as Reading);
  }

  const pedal = usePedal({
    short: () => (typed ? takeTyped() : takeHeld()),
    long: () => go("skip"),
    other(key) {
      if (probe.key(key)) return true;
      if (key === "escape") leave(walk);
      else if (key === "s" || key === "arrowright") go("skip");
      else if (key === "b" || key === "arrowleft" || key === "backspace") go("back");
      else if (key === "r") {
        // The point that the probe still lies on, or this one once more: it may stay where it is.
        begin(hold.phase === "lift" ? move("back").here : walk.here, false);
      } else if (key === "n") {
        if (walk.here !== undefined)
          say({ type: "note", payload: { text: `${walk.here} cannot be reached with the probe`, station: "walk" } });
        go("unreachable");
      } else if (key === "f")
        void (document.fullscreenElement ? document.exitFullscreen() : document.documentElement.requestFullscreen()).catch(() => {});
      else return false;
      return true;
    },
  });

  const lastRow = view.rows.find((r) => r.point.name === last);
  return (
    <>
      <ProbeStrip instruments={instruments} walk={walk} sound={sound} />
      <div className="grid shrink-0 gap-y-4 py-4 md:min-h-0 md:flex-1 md:shrink md:py-0 md:grid-cols-[minmax(0,11fr)_minmax(0,9fr)]">
        {row ? (
          <PointPlace row={row} again={walk.trail.includes(row.point.name) && walk.taken.includes(row.point.name)} />
        ) : (
          <p role="status" className="px-4 md:px-10 pt-10 text-5xl">
            {probing.thinking !== undefined ? "Working out which point tells most" : "All points are done"}
            {probing.thinking !== undefined && (
              <progress className="progress mt-6 w-full" value={probing.thinking} max={1} aria-label="Solving the faults" />
            )}
          </p>
        )}
        <Now
          hold={hold}
          meter={meter}
          heard={heard}
          typed={typed}
          refused={probe.refused}
          live={energyKind === "live"}
          waiting={row === undefined}
          warming={warming}
          photo={row && <PointPhoto point={row.point} place={row.probeOn} className="hidden w-64 lg:block" />}
        />
      </div>
      <LastVerdict row={lastRow} after={view.rows.find((r) => r.point.name === probing.after)} why={probing.why} />
      <Keys
        pedal={pedal}
        keys={[
          ["press", "take it now"],
          ["hold", "skip"],
          ["B", "back"],
          ["R", "again"],
          ["N", "cannot reach"],
          ["0–9", "type it"],
          ["V", sound.speech ? "voice off" : "voice on"],
          ["Esc", "leave"],
        ]}
      />
      <p className="sr-only" aria-live="polite">
        {row ? `Next: ${spokenPoint(row.point)}, ${row.probeOn}` : ""}
      </p>
    </>
  );
}
