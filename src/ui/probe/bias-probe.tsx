"use client";
/** The bias set hands-free: each current and rail is taken when it stands still, the adjuster is turned with the eyes on the chassis. */

import { words } from "@/core/language/language";
import { useEffect, useMemo, useRef, useState } from "react";
import { useRouter } from "next/navigation";
import { biasTable } from "@/core/output/bias-table";
import { biasTaken } from "@/core/output/bias-taken";
import { biasSteps, ON_TARGET, type BiasStep } from "@/core/output/bias-steps";
import { outputStages, type OutputStage } from "@/core/output/output-stage";
import { readCurrent, type Way } from "@/core/output/read-current";
import { usualWay } from "@/core/output/from-tape";
import { feedHold, startHold, type HoldState } from "@/core/instrument/hold";
import { readingOf } from "@/core/instrument/held-reading";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import type { IdleSchool } from "@/core/tape/events/words";
import { warmingSeconds } from "@/core/anatomy/warm-up";
import { useJob, useNow } from "../job/job-context";
import { answerTo, useAnswer } from "../job/use-answer";
import { useInstruments } from "../job/use-instruments";
import { ProbeStrip } from "./around";
import { Done, Expected, Turn } from "./bias-parts";
import { Asking } from "./asking";
import { Keys } from "./keys";
import { Leaving } from "./leaving";
import { Now } from "./now";
import { usePedal } from "./pedal";
import { useAsked } from "./use-asked";
import { useSound } from "./sound";

/** A hundredth of the turn for each press of an arrow key. */
const STEP = 0.01;

/** Parts of the plate rating above which the screen says to switch off. */
const TOO_MUCH = 1;

/** Unlike tubes need the adjuster more than once; after so many turns the rest is the tubes' own. */
const MOST_ROUNDS = 3;

/** @param stageName of the transformer; the first stage unless given. */
export function BiasProbe({ stageName }: { stageName?: string }) {
  const { view, jobId, energyKind } = useJob();
  const router = useRouter();
  const [phase, setPhase] = useState<"asking" | "setting" | "leaving">(
    energyKind === "live" && view.state.liveChecked ? "setting" : "asking",
  );
  const stages = useMemo(() => (view.circuit ? outputStages(view.circuit) : []), [view.circuit]);
  const stage = stages.find((s) => s.name === stageName) ?? stages[0];
  const out = () => router.push(`/jobs/${jobId}/output-stage`);
  if (!stage)
    return (
      <p className="m-auto max-w-3xl text-center text-4xl">
        {words("Setting the bias by the probe wants a circuit with an output stage.")}
      </p>
    );
  if (phase === "asking") return <Asking done={() => setPhase("setting")} out={out} />;
  if (phase === "leaving") return <Leaving why="" out={out} back={() => setPhase("setting")} />;
  return <Setting stage={stage} leave={() => setPhase("leaving")} />;
}

interface Taken {
  step: number;
  value: number;
}

function Setting({ stage, leave }: { stage: OutputStage; leave(): void }) {
  const { view, say, conditions, netlist, output, energyKind, settings } = useJob();
  // Cold tubes show nothing: what is held before they are warm is no idle.
  const warming = warmingSeconds(view.state.power, useNow());
  const circuit = view.circuit!;
  // The circuit in use changes when the adjuster is logged: the steps are those that it began with.
  const [{ way, steps, file, mains }] = useState(() => ({
    way: usualWay(stage) as Way,
    steps: biasSteps(circuit, stage),
    file: netlist!,
    mains: circuit.mains ? (conditions.mains ?? circuit.mains.volts) : undefined,
  }));
  const [at, setAt] = useState(0);
  const [taken, setTaken] = useState<Taken[]>([]);
  const [typed, setTyped] = useState("");
  const [refused, setRefused] = useState("");
  const [hold, setHold] = useState<HoldState>(() => startHold());
  const [turned, setTurned] = useState<number>();
  /** The watched tube's part of the mean, as it was read on target: unlike tubes do not keep to each other as the bias is turned. */
  const [shared, setShared] = useState<number>();
  const rounds = useRef(0);
  const holding = useRef(hold);
  const here = useRef(0);
  const asked = useAsked();
  const sound = useSound();
  const step: BiasStep | undefined = steps[at];
  const turnAt = steps.findIndex((s) => s.what === "turn");

  const valueOf = (i: number) => taken.findLast((t) => t.step === i)?.value;
  const amps = (s: { tube?: string }, value: number): number | undefined => {
    const r = s.tube === undefined ? undefined : readCurrent(stage, { tube: s.tube, way, value });
    return r?.ok ? r.current.plate : undefined;
  };
  /** Plate amperes by tube out of the readings before, or after, the turn. */
  const currents = (when: "before" | "after", of = taken): Record<string, number> =>
    Object.fromEntries(
      steps.flatMap((s, i) => {
        const value = of.findLast((t) => t.step === i)?.value;
        if (s.what !== "read" || s.when !== when || s.tube === undefined || value === undefined) return [];
        const each = amps(s, s.kind === "ma" ? value / 1e3 : value);
        const sharing = stage.tubes.filter((t) => t.cathode === stage.tubes.find((u) => u.name === s.tube)!.cathode);
        return each === undefined
          ? []
          : (way === "cathode resistor" ? sharing.map((t) => t.name) : [s.tube]).map((t) => [t, each] as const);
      }),
    );
  const before = currents("before");
  const figures = view.state.biasFigures.findLast((f) => f.stage === stage.name);
  const milli = (x: number | undefined) => (x === undefined ? undefined : x / 1e3);
  const facts = {
    label: milli(figures?.labelMilliamps),
    manual: milli(figures?.manualMilliamps),
    own: milli(figures?.ownMilliamps),
    brief: view.state.brief?.order[0],
  };
  const ask = { stage: stage.name, ...(mains === undefined ? {} : { mains }), read: before };
  const ready = output && at >= turnAt;
  const key = ready ? JSON.stringify(["bias", ask, facts]) : undefined;
  const bias = answerTo(
    useAnswer(key, () => output!.bias(file, { ...ask, facts })),
    key,
  );
  const school: IdleSchool = figures?.chosen ?? "middle";
  const target = bias?.targets.find((t) => t.school === school) ?? bias?.targets.find((t) => t.school === "middle");
  const adjuster = bias?.adjusters.find((a) => a.stages.includes(stage.name) && a.role === "level");
  const aimKey = target && adjuster ? JSON.stringify(["aim", ask, adjuster.name, target.amps]) : undefined;
  const aim = answerTo(
    useAnswer(aimKey, () => output!.aim(file, { ...ask, adjuster: adjuster!.name, amps: target!.amps })),
    aimKey,
  );
  const then = aim?.idle ?? target?.idle;
  // The target is the mean of the stage: the tube that is watched has its own share of it.
  const watchedTube = (steps[turnAt] as { tube?: string } | undefined)?.tube;
  // Cold tubes say little of how they will go together on target: at first each is taken for the mean.
  const share = shared ?? 1;
  const watched = target && target.amps * share;

  function begin(next: number) {
    const shown = holding.current.samples.at(-1);
    // On the turn the probe stays where it is; elsewhere the display has to be left first.
    const same = steps[next]?.what === "turn" || (steps[next] && steps[here.current]?.point === steps[next]!.point);
    if (steps[next]?.point !== steps[here.current]?.point) asked.begin();
    here.current = next;
    holding.current = startHold({}, !same && shown?.value !== undefined ? { value: shown.value, digit: shown.digit } : undefined);
    setHold(holding.current);
    setAt(next);
    setTyped("");
    setRefused("");
  }

  const instruments = useInstruments((sample, anew) => {
    const s = steps[here.current];
    if (!s || sample.kind !== s.kind || !asked.known()) return;
    holding.current = feedHold(anew ? startHold() : holding.current, sample);
    setHold(holding.current);
    if (holding.current.phase !== "held" || warming > 0) return;
    if (s.what === "read") takeHeld();
    else watch();
  });
  const { meter, heard, send } = instruments;
  useEffect(() => {
    const s = steps[at];
    if (s && heard !== "waiting") asked.until(send({ tell: "want", point: s.point, kind: s.kind }));
  }, [at, heard, send, asked, steps]);

  /** On the turn the current is watched; when it stands still on the target the step is done. */
  function watch() {
    const s = steps[here.current];
    const value = holding.current.value;
    if (s?.what !== "turn" || value === undefined || watched === undefined) return;
    const now = amps(s, s.kind === "ma" ? value / 1e3 : value);
    if (now !== undefined && Math.abs(now / watched - 1) <= ON_TARGET) doneTurning();
    else {
      // It stands still elsewhere: go on watching.
      holding.current = startHold();
      setHold(holding.current);
    }
  }
  const logged = useRef(false);
  useEffect(() => {
    if (!bias || logged.current) return;
    logged.current = true;
    logTable("before", taken);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the solver has answered
  }, [bias]);
  function doneTurning() {
    const position = turned ?? aim?.position;
    if (adjuster)
      say({
        type: "adjusted",
        payload: {
          control: adjuster.name,
          ...(position === undefined ? {} : { position: Number(position.toFixed(4)) }),
          why: target ? `idle of ${stage.name} to ${formatQuantity(target.amps, "A", 3)}` : "",
        },
      });
    sound.say("in", "on target");
    begin(turnAt + 1);
  }

  function log(value: number, digits?: number, note?: string) {
    const s = steps[here.current];
    if (s?.what !== "read") return;
    say({
      type: "reading",
      payload: { point: s.point, kind: s.kind, value, ...(digits ? { digits } : {}), conditions, ...(note ? { note } : {}) },
    });
    const all = [...taken.filter((t) => t.step !== here.current), { step: here.current, value }];
    setTaken(all);
    sound.say("in", s.place);
    const next = here.current + 1;
    if (steps[next]?.what === "read" && steps[next]!.tube === undefined && s.when === "after" && s.tube !== undefined && offTarget(all))
      return begin(turnAt);
    // As it was found stands with the plate's volts that the same solver gives as for what is left: it is logged when they are known.
    if (next === turnAt && !output) logTable("before", all);
    if (next === steps.length) logTable("after", all);
    begin(next);
  }
  /** All tubes are read again: is their mean on target? If not, the watched one's part of it is known better now. */
  function offTarget(all: Taken[]): boolean {
    const after = currents("after", all);
    const each = Object.values(after);
    const mean = each.reduce((sum, x) => sum + x, 0) / Math.max(1, each.length);
    const own = watchedTube === undefined ? undefined : after[watchedTube];
    if (!target || own === undefined || Math.abs(mean / target.amps - 1) <= 1.5 * ON_TARGET || rounds.current >= MOST_ROUNDS) return false;
    rounds.current++;
    setShared(own / mean);
    return true;
  }
  function takeHeld() {
    const s = steps[here.current];
    if (!s) return;
    const reading = readingOf(holding.current, s.point, conditions, s.kind);
    if (!reading) return setRefused("The meter shows no steady value yet");
    if (reading.value < 0 && s.what === "read" && s.tube !== undefined) return setRefused("Negative: turn the leads round");
    log(reading.value, reading.digits, reading.note);
  }
  function takeTyped() {
    const s = steps[here.current];
    const parsed = parseQuantity(typed, { unit: s?.kind === "ma" ? "A" : "V", decimal: settings.decimal });
    if (!parsed.ok || !s) return setRefused(parsed.ok ? "" : `${parsed.why}; accepted: 0.45, 38m`);
    log(s.kind === "ma" ? parsed.quantity.value * 1e3 : parsed.quantity.value, parsed.quantity.digits);
  }

  /** The table as it was found or is left, with the rails beside what was predicted of them. */
  function logTable(when: "before" | "after", all: Taken[]) {
    const read = steps.flatMap((s, i) => {
      const value = all.findLast((t) => t.step === i)?.value;
      return s.what === "read" && s.when === when && value !== undefined ? [{ s, value }] : [];
    });
    const rail = read.find((x) => circuit.points.find((p) => p.name === x.s.point)?.node === stage.supply)?.value;
    const idle = when === "after" ? then : bias?.idle;
    const { rows } = biasTable(
      stage,
      read.flatMap(({ s, value }) => (s.tube === undefined ? [] : [{ tube: s.tube, way, value: s.kind === "ma" ? value / 1e3 : value }])),
      (tube) => {
        const plate = idle?.tubes.find((t) => t.name === tube)?.plateVolts ?? rail;
        return plate === undefined ? {} : { plate };
      },
    );
    if (rows.length === 0) return;
    const rails = read.flatMap(({ s, value }) => {
      const predicted = when === "after" ? then?.rails.find((r) => r.point === s.point)?.volts : undefined;
      return s.tube === undefined ? [{ point: s.point, volts: value, ...(predicted === undefined ? {} : { predicted }) }] : [];
    });
    const payload = biasTaken({
      stage: stage.name,
      when,
      rows,
      rails,
      ...(target && when === "after" ? { target } : {}),
      ...(mains === undefined ? {} : { mains }),
    });
    say({ type: "bias", payload });
  }

  function turn(by: number) {
    if (step?.what !== "turn" || !adjuster) return false;
    const to = Math.min(1, Math.max(0, (turned ?? adjuster.position) + by));
    setTurned(to);
    void send({ tell: "set", turn: adjuster.name, pos: Number(to.toFixed(4)) });
    holding.current = startHold();
    setHold(holding.current);
    return true;
  }
  const pedal = usePedal({
    short: () => (step === undefined ? leave() : typed ? takeTyped() : step.what === "turn" ? doneTurning() : takeHeld()),
    long: () => (step === undefined ? leave() : begin(Math.min(steps.length, at + 1))),
    other(key) {
      if (key === "escape" && typed) setTyped("");
      else if (key === "escape") leave();
      else if (step?.what === "turn" && (key === "arrowright" || key === "arrowup")) return turn(STEP);
      else if (step?.what === "turn" && (key === "arrowleft" || key === "arrowdown")) return turn(-STEP);
      else if (/^[\d.,m-]$/.test(key)) setTyped((t) => (t.length < 9 ? t + key : t));
      else if (key === "backspace" && typed) setTyped((t) => t.slice(0, -1));
      else if (key === "b" || key === "backspace") begin(Math.max(0, at - 1));
      else if (key === "r") begin(at);
      else if (key === "v") sound.toggleSpeech();
      else if (key === "t") sound.toggleTone();
      else return false;
      return true;
    },
  });
  const live =
    meter?.value !== undefined && step && meter.kind === step.kind
      ? amps(step, step.kind === "ma" ? meter.value / 1e3 : meter.value)
      : undefined;
  // Above the rating by a fifth, at the supply's volts: nothing is to be read then but the switch.
  const rail =
    bias?.idle.tubes[0]?.plateVolts ??
    taken.find((x) => circuit.points.find((p) => p.name === steps[x.step]?.point)?.node === stage.supply)?.value ??
    view.rows.find((r) => r.point.node === stage.supply)?.expected?.volts;
  const rated = stage.tubes.find((t) => t.name === step?.tube)?.type.ratings?.plateWatts;
  // A display that is over its range on a current says the same, only worse.
  const beyond = meter?.over === true && step?.tube !== undefined && meter.kind === step.kind;
  const tooMuch = beyond || (live !== undefined && rated !== undefined && rail !== undefined && (live * rail) / rated > TOO_MUCH);
  return (
    <>
      <ProbeStrip
        instruments={instruments}
        sound={sound}
        walk={{
          taken: steps.filter((s, i) => s.what === "read" && valueOf(i) !== undefined).map((s) => s.point),
          order: steps.filter((s) => s.what === "read").map((s) => s.point),
        }}
      />
      {step === undefined ? (
        <Done stage={stage} />
      ) : (
        <div className="grid shrink-0 gap-y-4 py-4 md:min-h-0 md:flex-1 md:shrink md:grid-cols-[minmax(0,11fr)_minmax(0,9fr)] md:py-0">
          <section
            aria-label="What to do"
            data-testid="bias-step"
            data-step={step.what}
            data-point={step.point}
            className="flex min-w-0 flex-col justify-center gap-4 border-base-300 px-4 md:border-r md:px-10"
          >
            {tooMuch && (
              <p role="alert" className="probe-out text-5xl leading-tight font-bold" data-testid="too-much">
                ■ Above the rating: {step.what === "turn" ? "turn it back, or switch off" : "switch off"}.
              </p>
            )}
            {step.what === "read" ? (
              <>
                <p className="soft text-3xl">{step.when === "before" ? "As found" : "As left"}</p>
                <p className="text-[clamp(3.5rem,7vw,8rem)] leading-none font-bold">{step.place}</p>
                <p className="text-4xl">
                  {step.label} <span className="soft">{step.kind === "ma" ? "milliamperes" : "DC volts"}</span>
                </p>
                {step.when === "after" && then && <Expected step={step} then={then} />}
              </>
            ) : (
              <Turn
                adjuster={adjuster}
                target={aim ? watched : undefined}
                live={live}
                place={step.place}
                turned={turned}
                failed={bias !== undefined && !adjuster}
              />
            )}
          </section>
          <Now
            hold={hold}
            meter={meter}
            heard={heard}
            typed={typed}
            refused={refused}
            live={energyKind === "live"}
            waiting={false}
            warming={warming}
            kind={step.kind}
          />
        </div>
      )}
      <Keys
        pedal={pedal}
        keys={[
          ["press", step === undefined ? "done" : step.what === "turn" ? "it is on target" : "take it now"],
          ...(step?.what === "turn" ? ([["← →", "turn the simulated adjuster"]] as [string, string][]) : []),
          ["hold", "skip"],
          ["B", "back"],
          ["0–9", "type it"],
          ["V", sound.speech ? "voice off" : "voice on"],
          ["Esc", "leave"],
        ]}
      />
    </>
  );
}
