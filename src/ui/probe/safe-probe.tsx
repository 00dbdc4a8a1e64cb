"use client";
/** Make safe hands-free: the steps of the proof one at a time and large, each reading taken by itself from a steady meter. */

import { useRouter } from "next/navigation";
import { useEffect, useMemo } from "react";
import { dischargeDraft } from "@/core/entry/measurement-lines";
import { meterCheckDraft } from "@/core/entry/power-lines";
import { readingOf } from "@/core/instrument/held-reading";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import type { ProofStep } from "@/core/safety/proof";
import { useEnergy, useJob } from "../job/job-context";
import { capital, clockTime, energyWords, stepWords } from "../job/words";
import { Keys } from "./keys";
import { Now } from "./now";
import { usePedal } from "./pedal";
import { useHold } from "./use-hold";
import { useSound } from "./sound";
import { useTool } from "../job/tool";

/** A steady display is the known source where it is within this part of it: else the tips are somewhere else. */
const NEAR_SOURCE = 0.2;

/** What is asked for now: a step of the proof, the plug, the clip, or nothing any more. */
type Asked = ProofStep | { do: "off" } | { do: "clip-off"; reservoir: string } | { do: "done" };

export function SafeProbe() {
  const { view, jobId, say, settings, conditions } = useJob();
  const { energy } = useEnergy();
  const tool = useTool();
  const router = useRouter();
  const sound = useSound();
  const out = () => router.push(`/jobs/${jobId}/make-safe`);
  const proof = energy.kind === "stored" || energy.kind === "unknown" || energy.kind === "proven-dead" ? energy.proof : undefined;
  const here: Asked = useMemo(() => {
    if (energy.kind === "live") return { do: "off" };
    if (energy.kind === "proven-dead") return proof!.clips[0] ? { do: "clip-off", reservoir: proof!.clips[0] } : { do: "done" };
    return proof?.missing[0] ?? { do: "done" };
  }, [energy.kind, proof]);
  const waits = here.do === "read" ? here.wait : 0;
  const kind = here.do === "tool" ? ("ohm" as const) : ("dcv" as const);
  const reads = here.do === "meter" || here.do === "tool" || here.do === "read" || here.do === "discharge";
  const reservoir = here.do === "read" || here.do === "discharge" ? here.reservoir : undefined;
  const place = useMemo(() => {
    const r = view.reservoirs.find((x) => x.name === reservoir);
    return r && (view.circuit?.points.find((p) => p.node === r.node)?.name ?? r.name);
  }, [view.reservoirs, view.circuit, reservoir]);
  const known = view.state.effective.findLast((e) => e.type === "meter-check")?.payload as { expected: number } | undefined;
  const source = known?.expected ?? 9;

  // A step begins anew where what is asked for is another thing, not while its seconds run down.
  const key = JSON.stringify(here, (k, v: unknown) => (k === "wait" || k === "volts" ? undefined : v));
  const estimate = proof?.reservoirs.find((r) => r.name === reservoir)?.volts;
  const want = here.do === "meter" ? "source" : here.do === "tool" ? "tool" : place;
  const probe = useHold({
    want: reads && want !== undefined ? { point: want, kind } : undefined,
    waits: waits > 0,
    held: () => takeHeld(false),
    letters: "kM-",
    sound,
  });
  const { hold, typed } = probe;
  const { meter, heard } = probe.instruments;
  useEffect(() => {
    probe.begin(want, true, { expected: estimate !== undefined && Math.abs(estimate) > settings.safeVolts ? estimate : undefined });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each step
  }, [key]);

  /** @param pressed the key was pressed: then what stands there is taken, whatever it is. */
  function takeHeld(pressed: boolean) {
    const reading = readingOf(probe.current(), want ?? "", conditions, kind);
    if (!reading) return probe.refuse("The meter shows no steady value yet");
    if (here.do === "meter" && !pressed && Math.abs(reading.value - source) > NEAR_SOURCE * source)
      return probe.refuse(
        `${formatVolts(reading.value)} is not the known source of ${formatVolts(source)}: tips on it, or press to log it`,
      );
    take(String(reading.value));
  }
  function take(text: string) {
    probe.refuse("");
    if (here.do === "tool") {
      const ohms = parseQuantity(text, { unit: "Ω", decimal: settings.decimal });
      if (!ohms.ok) return probe.refuse(`${ohms.why}; accepted: ${ohms.accepted}`);
      say({ type: "tool-check", payload: { marked: tool.ohms, read: ohms.quantity.value } });
    } else {
      const entry =
        here.do === "meter"
          ? meterCheckDraft({ read: text, known: String(source), source: "known source" }, settings.decimal)
          : dischargeDraft(reservoir!, text, settings.decimal);
      if (!entry.ok) return probe.refuse(`${entry.why}. Accepted: ${entry.accepted}`);
      say(...entry.drafts);
    }
    sound.say("in", `${stepWords(here as ProofStep)}: ${text}`);
  }
  function press() {
    if (here.do === "off" || here.do === "unplug") say({ type: "power", payload: { state: "off", plug: "out" } });
    else if (here.do === "clip-off") say({ type: "clip", payload: { reservoir: here.reservoir, state: "off" } });
    else if (here.do === "done" || here.do === "name-reservoirs" || here.do === "reach") out();
    else if (typed) take(typed);
    else takeHeld(true);
  }
  const clip = proof?.clips[0];
  const pedal = usePedal({
    short: press,
    long: press,
    other(pressed) {
      if (probe.key(pressed)) return true;
      if (pressed === "escape") out();
      else if (pressed === "c" && (clip ?? reservoir))
        say({ type: "clip", payload: { reservoir: clip ?? reservoir!, state: clip ? "off" : "on" } });
      else return false;
      return true;
    },
  });
  const { title, detail } = energyWords(energy);
  const conflict = proof?.reservoirs.find((r) => r.conflict);
  const again = proof?.reservoirs.find((r) => r.name === reservoir);
  const next = proof?.missing[1];
  return (
    <>
      <header className="flex items-center gap-8 border-b border-base-300 bg-base-200 px-6 py-3 text-2xl">
        <p role="status" aria-label="Energy state" data-energy={energy.kind} className="min-w-0 flex-1 truncate font-bold">
          {title} <span className="text-xl font-normal">{detail}</span>
        </p>
        {proof && <p className="whitespace-nowrap">{proof.missing.length} to go</p>}
      </header>
      <div
        className={`grid shrink-0 gap-y-4 py-4 md:min-h-0 md:flex-1 md:shrink md:py-0 ${reads ? "md:grid-cols-[minmax(0,11fr)_minmax(0,9fr)]" : ""}`}
      >
        <section
          aria-label="What to do"
          data-testid="safe-step"
          data-step={here.do}
          className="flex min-w-0 flex-col justify-center gap-5 border-base-300 px-4 md:border-r md:px-10"
        >
          {conflict?.conflict && (
            <p role="alert" className="probe-watch text-3xl leading-tight font-bold">
              ▲ {conflict.name}: {conflict.conflict}
            </p>
          )}
          <p className="text-[clamp(3rem,6vw,6.5rem)] leading-none font-bold">{words(here)}</p>
          {waits > 0 && (
            <p role="timer" className="text-8xl font-bold tabular-nums">
              {waits} s
            </p>
          )}
          <p className="text-3xl leading-tight">
            {reservoir && (
              <>
                {again?.label}
                {place && place !== reservoir && <span className="soft"> at {place}</span>}
                {estimate !== undefined && <span className="soft">, about {formatVolts(estimate)} by estimate</span>}
              </>
            )}
            {here.do === "meter" && <span className="soft">a source of {formatVolts(source)}</span>}
            {here.do === "tool" && <span className="soft">made with {formatQuantity(tool.ohms, "Ω", 2)}</span>}
            {here.do === "done" && energy.kind === "proven-dead" && (
              <span className="soft">
                This says what was read at {clockTime(energy.at)}, not that anything is safe to touch. One hand away; check again after a
                break.
              </span>
            )}
          </p>
          {clip && here.do !== "clip-off" && <p className="probe-watch text-3xl font-bold">The clip is on {clip}: it cannot charge.</p>}
        </section>
        {reads && (
          <Now
            hold={hold}
            meter={meter}
            heard={heard}
            typed={typed}
            refused={probe.refused}
            live
            waiting={waits > 0}
            warming={0}
            kind={kind}
          />
        )}
      </div>
      <p className="flex min-h-24 items-center border-t border-base-300 px-4 text-3xl md:px-10">
        {next && (
          <span>
            <span className="soft">then </span>
            <strong>{stepWords(next)}</strong>
          </span>
        )}
      </p>
      <Keys
        pedal={pedal}
        keys={[
          ["press", pressDoes(here)],
          ...(clip || reservoir
            ? ([["C", clip ? `the clip is off ${clip}` : `the clip is on ${reservoir} and stays`]] as [string, string][])
            : []),
          ...(reads ? ([["0–9", "type it"]] as [string, string][]) : []),
          ["V", sound.speech ? "voice off" : "voice on"],
          ["Esc", "leave"],
        ]}
      />
    </>
  );
}

function words(here: Asked): string {
  switch (here.do) {
    case "off":
      return "Switch off and pull the plug";
    case "clip-off":
      return `PROVEN DEAD with the clip on ${here.reservoir}. It may stay there`;
    case "done":
      return "Nothing is left to read";
    case "discharge":
      return `Clip the tool on ${here.reservoir}: it holds ${formatVolts(here.volts)}`;
    default:
      return capital(stepWords(here).replace(/ in \d+ s$/, ""));
  }
}

function pressDoes(here: Asked): string {
  switch (here.do) {
    case "off":
    case "unplug":
      return "it is off and the plug is out";
    case "clip-off":
      return `the clip comes off ${here.reservoir}`;
    case "done":
    case "name-reservoirs":
    case "reach":
      return "back to Make safe";
    default:
      return "take it now";
  }
}
