"use client";
/** The output's waveform into the load over the idle current: crossover notch and distortion now and on target, and a scope's file over it. */

import { figure, words } from "@/core/language/language";
import { useDeferredValue, useEffect, useMemo, useState } from "react";
import { crossoverGone, frameAt } from "@/core/output/idle-frames";
import { aligned, readScope, type ScopeWave } from "@/core/output/scope-file";
import type { WaveFigures } from "@/core/output/wave-figures";
import { formatQuantity } from "@/core/quantity/format";
import type { TakenWhen } from "@/core/tape/events/words";
import { FileField } from "../../forms/file-field";
import { Field, Section } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { FiguresTable, partWords } from "./figures-of";
import { UnderWay } from "./under-way";
import { keyOf, percent, useStage } from "./use-stage";
import { WaveChart, type Trace } from "../../charts/wave-chart";

const FRAMES = 12;
/** The largest of a file that the browser reads whole: two million rows of an oscilloscope. */
const MOST_BYTES = 120_000_000;
const WATTS = [0.1, 0.5, 1, 2, 5, 10];

export function Waveform() {
  const { output, say } = useJob();
  const { netlist, ask, stage, read, facts, setFacts } = useStage();
  const [watts, setWatts] = useState(1);
  const [bound, setBound] = useState(5);
  const [at, setAt] = useState<number>();
  const [scope, setScope] = useState<{ name: string; wave: ScopeWave }>();
  const [stopped, setStopped] = useState(0);
  const rated = stage.tubes[0]?.type.ratings?.plateWatts ?? 15;
  const volts = Object.values(read.volts).find((v) => v.plate)?.plate ?? 300;
  // From next to nothing to the whole rating.
  const [low, high] = [0.04 * (rated / volts), (1.05 * rated) / volts];
  const key = output && stage.load ? keyOf("frames", netlist, ask.stage, ask.mains, ask.read, watts, stopped) : undefined;
  const { answer, failed, progress } = useAnswer(key, (told) => output!.frames(netlist, { ...ask, low, high, count: FRAMES, watts }, told));
  const clipKey = output && stage.load ? keyOf("clip", netlist, ask) : undefined;
  const clip = useAnswer(clipKey, () => output!.clip(netlist, ask)).answer;

  const own = Object.values(read.read);
  const nowAmps = own.length > 0 ? own.reduce((a, b) => a + b, 0) / own.length : undefined;
  const frames = useMemo(() => answer?.frames ?? [], [answer]);
  const gone = crossoverGone(frames, bound / 100);
  useEffect(() => {
    if (gone !== undefined && Math.abs((facts.crossover ?? 0) / gone - 1) > 0.01) setFacts({ ...facts, crossover: gone });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a target of the Bias tab: once for each answer
  }, [gone]);
  const chosen = at ?? gone ?? nowAmps ?? (low + high) / 2;
  // The picture follows the hand as fast as it can be drawn; the figures beside it may come a moment later.
  const shown = useDeferredValue(chosen);
  const here = useMemo(() => frameAt(frames, shown), [frames, shown]);
  const now = useMemo(() => (nowAmps === undefined ? undefined : frameAt(frames, nowAmps)), [frames, nowAmps]);

  if (!stage.load)
    return (
      <p>{words("The load on the output transformer is not in the circuit: a resistor across its secondary is wanted for a waveform.")}</p>
    );
  const traces: Trace[] = [
    ...(now ? [{ name: `idle now, ${formatQuantity(nowAmps!, "A", 3)}`, wave: aligned(now.wave), look: "now" as const }] : []),
    ...(here ? [{ name: `at ${formatQuantity(shown, "A", 3)}`, wave: aligned(here.wave), look: "then" as const }] : []),
    ...(scope ? [{ name: scope.name, wave: scope.wave.wave, look: "scope" as const }] : []),
  ];
  const named = [
    ...(now ? [{ name: "Idle now", figures: now.figures }] : []),
    ...(here ? [{ name: `At ${formatQuantity(shown, "A", 3)}`, figures: here.figures }] : []),
    ...(scope ? [{ name: scope.name, figures: scope.wave.figures }] : []),
  ];
  function log(
    when: TakenWhen,
    source: "computed" | "oscilloscope",
    figures: WaveFigures,
    wave: readonly number[],
    idle?: number,
    name?: string,
  ) {
    const round = (x: number) => Number(x.toPrecision(4));
    say({
      type: "waveform",
      payload: {
        when,
        source,
        notch: round(Math.min(1, Math.max(0, figures.notch))),
        distortion: round(figures.distortion),
        harmonics: figures.harmonics.map(round),
        wave: wave.map(round),
        ...(idle === undefined ? {} : { idleMilliamps: round(idle * 1e3) }),
        ...(source === "computed" ? { watts } : {}),
        ...(name ? { name } : {}),
      },
    });
  }
  return (
    <div className="space-y-4">
      <section className="rounded border border-base-300 bg-base-200 p-4">
        <p className="text-2xl font-bold" data-testid="notch-says">
          {!answer
            ? "Working out the waveform over the idle current…"
            : now
              ? `Crossover notch ${partWords(now.figures.notch)}, distortion ${partWords(now.figures.distortion)} now${gone === undefined ? "." : `; the notch is under ${bound} % from ${formatQuantity(gone, "A", 3)} on.`}`
              : gone === undefined
                ? `The notch is deeper than ${bound} % at every idle within the rating.`
                : `The notch is under ${bound} % from ${formatQuantity(gone, "A", 3)} on. Read the currents at Bias to see where the amp is.`}
        </p>
        <UnderWay what="Solving the frames" progress={progress} failed={failed} again={() => setStopped((n) => n + 1)} />
        {clip && (
          <p className="mt-1">
            Power at clip {formatQuantity(clip.watts, "W", 3)} into {formatQuantity(clip.load, "Ω", 2)};{" "}
            {clip.first === "both"
              ? "both halves clip together."
              : `the ${clip.first === "top" ? "upper" : "lower"} half clips first${clip.tubes.length > 0 ? ` (${clip.tubes.join(", ")})` : ""}.`}
          </p>
        )}
      </section>
      <div className="flex flex-wrap items-end gap-4">
        <Field label="Power into the load">
          <select className="select w-28" value={watts} onChange={(e) => setWatts(Number(e.target.value))}>
            {WATTS.map((w) => (
              <option key={w} value={w}>
                {figure(w)} W
              </option>
            ))}
          </select>
        </Field>
        <Field label="Notch counts as gone under">
          <select className="select w-28" value={bound} onChange={(e) => setBound(Number(e.target.value))}>
            {[1, 2, 5, 10].map((b) => (
              <option key={b} value={b}>
                {b} %
              </option>
            ))}
          </select>
        </Field>
        <FileField
          label="Lay an oscilloscope's CSV over it"
          accept={{ "text/csv": [".csv", ".txt"] }}
          take={async (file) => {
            if (file.size > MOST_BYTES) throw new Error(`${Math.round(file.size / 1e6)} MB; up to ${MOST_BYTES / 1e6} MB are read`);
            const wave = readScope(await file.text(), { hertz: 1000 });
            if (!wave.ok) throw new Error(`${wave.why}; accepted: ${wave.accepted}`);
            setScope({ name: file.name, wave: wave.wave });
            const w = wave.wave;
            return `${w.rows} rows, ${w.periods} ${w.periods === 1 ? "period" : "periods"} of ${formatQuantity(w.hertz, "Hz", 3)}${w.skipped ? `, ${w.skipped} lines of text passed over` : ""}; offset ${formatQuantity(w.offset, "V", 2)} taken off`;
          }}
        />
      </div>
      {frames.length > 0 && (
        <>
          <label className="block">
            <span className="mb-1 block">
              {words("Idle, plate current of each tube:")}{" "}
              <strong className="text-xl tabular-nums">{formatQuantity(chosen, "A", 3)}</strong>{" "}
              {here && <span className="soft">{percent(here.ofRating)} of the rating</span>}
            </span>
            <input
              type="range"
              className="h-11 accent-primary w-full max-w-2xl"
              aria-label="Idle current"
              min={Math.log(frames[0]!.amps)}
              max={Math.log(frames.at(-1)!.amps)}
              step={0.01}
              value={Math.log(chosen)}
              aria-valuetext={formatQuantity(chosen, "A", 3)}
              onChange={(e) => setAt(Math.exp(Number(e.target.value)))}
            />
          </label>
          <div className="grid gap-4 lg:grid-cols-[3fr_2fr]">
            <WaveChart traces={traces} milliseconds={1} />
            <FiguresTable of={named} />
          </div>
          <Section title="On the tape">
            <div className="flex flex-wrap gap-3">
              {now && (
                <>
                  <button className="btn" onClick={() => log("before", "computed", now.figures, aligned(now.wave), nowAmps)}>
                    Log idle now as found
                  </button>
                  <button className="btn btn-primary" onClick={() => log("after", "computed", now.figures, aligned(now.wave), nowAmps)}>
                    Log idle now as left
                  </button>
                </>
              )}
              {scope && (
                <>
                  <button
                    className="btn"
                    onClick={() => log("before", "oscilloscope", scope.wave.figures, scope.wave.wave, nowAmps, scope.name)}
                  >
                    Log the file as found
                  </button>
                  <button
                    className="btn"
                    onClick={() => log("after", "oscilloscope", scope.wave.figures, scope.wave.wave, nowAmps, scope.name)}
                  >
                    Log the file as left
                  </button>
                </>
              )}
            </div>
          </Section>
        </>
      )}
    </div>
  );
}
