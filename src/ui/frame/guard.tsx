"use client";
/** The top strip: the amp's energy state in words, shape and colour, the mains now, and the action that changes the state. */

import { figure, words } from "@/core/language/language";
import { lateInBrowser } from "../forms/late";
import Link from "next/link";
import { useState } from "react";
import { CircleHelp, DoorOpen, PlugZap, ShieldCheck, Zap } from "lucide-react";
import { openRun, reformRuns } from "@/core/capacitor/reform-run";
import { parseQuantity } from "@/core/quantity/parse";
import type { EnergyState } from "@/core/safety/energy";
import { useEnergy, useJob } from "../job/job-context";
import { Lost, OtherCircuit } from "./lost";
import { Others } from "./others";
import { energyWords } from "../job/words";

/** Comes when it is asked for; the dialog of a library is larger than the rest of the strip. */
const PowerOn = lateInBrowser(() => import("./power-on").then((m) => m.PowerOn));

const LOOK: Record<EnergyState["kind"], { className: string; icon: typeof Zap }> = {
  live: { className: "bg-[var(--live)] text-[var(--live-ink)]", icon: Zap },
  stored: { className: "bg-warning text-warning-content", icon: PlugZap },
  "proven-dead": { className: "bg-base-300 text-base-content", icon: ShieldCheck },
  "not-here": { className: "bg-base-200 text-base-content border border-base-content/40", icon: DoorOpen },
  unknown: { className: "bg-neutral text-neutral-content border-2 border-dashed border-base-content/60", icon: CircleHelp },
};

export function Guard() {
  const { view, jobId, say, tape } = useJob();
  const { energy, away } = useEnergy();
  const [powering, setPowering] = useState(false);
  const { title, detail } = energyWords(energy);
  const { className, icon: Icon } = LOOK[energy.kind];
  const opened = view.state.opened;
  const amp = [view.state.identity?.maker, view.state.identity?.model].filter(Boolean).join(" ") || opened?.amp;

  return (
    <header className="no-print sticky top-0 z-30 flex flex-wrap items-stretch gap-x-3 gap-y-1 border-b border-base-300 bg-base-200 px-3 py-2">
      <Link href="/" className="btn btn-ghost px-2 font-bold tracking-wide" aria-label="Bench board">
        Scutum
      </Link>
      <div
        role="status"
        aria-live="polite"
        aria-label="Energy state"
        data-energy={energy.kind}
        className={`flex min-w-72 flex-1 items-center gap-3 rounded px-3 py-1 ${className}`}
      >
        <Icon aria-hidden className="size-6 shrink-0" />
        <span className="text-lg font-bold whitespace-nowrap">{title}</span>
        <span className="text-sm">{detail}</span>
      </div>
      {away !== undefined ? (
        <>
          <span className="self-center text-sm font-bold">Nobody was here. Is it still on?</span>
          <button className="btn btn-primary" onClick={() => say({ type: "power", payload: { state: "off", plug: "out" } })}>
            Off, plug out
          </button>
          <button className="btn btn-outline" onClick={() => say({ type: "still-live", payload: { away } })}>
            Still on
          </button>
        </>
      ) : energy.kind === "not-here" ? (
        <TakeIn />
      ) : energy.kind === "live" && energy.reforming ? (
        <SupplyOff />
      ) : energy.kind === "live" ? (
        <button className="btn btn-primary" onClick={() => say({ type: "power", payload: { state: "off", plug: "out" } })}>
          Off, plug out
        </button>
      ) : (
        <>
          {energy.kind !== "proven-dead" && (
            <Link className="btn btn-primary" href={`/jobs/${jobId}/make-safe`}>
              Make safe
            </Link>
          )}
          <button className={`btn ${energy.kind === "proven-dead" ? "btn-primary" : "btn-outline"}`} onClick={() => setPowering(true)}>
            Power on…
          </button>
        </>
      )}
      <MainsNow />
      <div className="hidden min-w-40 flex-col justify-center text-right text-sm leading-tight lg:flex">
        <span className="font-bold">{amp}</span>
        <span className="soft">
          job {jobId} · {opened?.owner}
        </span>
      </div>
      <Others />
      <Lost />
      <OtherCircuit />
      {tape.onlyInPage > 0 && (
        <p role="alert" className="basis-full rounded bg-error px-3 py-1 text-sm text-error-content">
          This browser&apos;s storage is full: {tape.onlyInPage} {tape.onlyInPage === 1 ? "line is" : "lines are"} kept in this page only.
          Do not close it before they are stored.
        </p>
      )}
      {powering && <PowerOn close={() => setPowering(false)} />}
    </header>
  );
}

/** The amp is back at the bench: from here on it is a charged one until it is shown to be none. */
function TakeIn() {
  const { say } = useJob();
  const [why, setWhy] = useState("");
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (why.trim().length >= 3) say({ type: "taken-in", payload: { why: why.trim() } });
      }}
    >
      <input
        className="input w-56"
        aria-label="Why it is here again"
        placeholder="Why it is here again"
        value={why}
        onChange={(e) => setWhy(e.target.value)}
      />
      <button className="btn btn-primary" disabled={why.trim().length < 3}>
        Taken in again
      </button>
    </form>
  );
}

/** Capacitors are on a bench supply: it goes off, the run can go on later. */
function SupplyOff() {
  const { view, say } = useJob();
  const run = openRun(reformRuns(view.state));
  if (!run) return null;
  return (
    <button
      className="btn btn-primary"
      onClick={() => say({ type: "reform-turn", payload: { reform: run.seq, what: "paused", supply: 0 } })}
    >
      Supply off
    </button>
  );
}

/** Mains volts as read on the wall, entered in place. */
function MainsNow() {
  const { view, say, settings } = useJob();
  const [text, setText] = useState<string>();
  const [problem, setProblem] = useState("");
  const word = settings.mainsWord === "line" ? "Line" : words("Mains");
  const volts = view.state.mainsVolts;

  function store() {
    if (text === undefined || text.trim() === "") return setText(undefined);
    const parsed = parseQuantity(text, { unit: "V", decimal: settings.decimal });
    if (!parsed.ok) return setProblem(`${parsed.why}; accepted: 231`);
    if (parsed.quantity.value < 0 || parsed.quantity.value > 500) return setProblem(`${parsed.quantity.echo}: accepted 0 to 500 V`);
    if (parsed.quantity.value !== volts) say({ type: "mains", payload: { volts: parsed.quantity.value } });
    setText(undefined);
    setProblem("");
  }

  return (
    <label className="flex flex-col justify-center text-xs">
      <span className="soft">{word} now, V</span>
      <input
        className="input input-sm w-20 min-h-8 text-right tabular-nums"
        inputMode="decimal"
        placeholder={`${settings.mainsVolts}?`}
        value={text ?? (volts === undefined ? "" : figure(volts))}
        aria-invalid={problem !== ""}
        onChange={(e) => setText(e.target.value)}
        onBlur={store}
        onKeyDown={(e) => e.key === "Enter" && store()}
      />
      {problem && <span className="max-w-40 text-error">{problem}</span>}
    </label>
  );
}
