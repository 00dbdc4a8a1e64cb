"use client";
/** Mains current and lamp of a stage: typed or taken from the instrument, and what they say. */

import { figure, words } from "@/core/language/language";
import {
  corridorAt,
  glowOf,
  judgeCurrent,
  judgeGlow,
  LAMPS,
  lampDoubt,
  type LampAdvice,
  type StagePrediction,
} from "@/core/bring-up/corridor";
import { lastChange } from "@/core/bring-up/stage-state";
import type { BringUpStage } from "@/core/bring-up/stages";
import { GLOWS, type Glow } from "@/core/tape/events/words";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { Field } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { useInstruments } from "../../job/use-instruments";
import { VerdictMark } from "../../forms/verdict-mark";

export interface CurrentFormProps {
  stage: BringUpStage;
  prediction?: StagePrediction;
  lamps: LampAdvice[];
  lamp: number;
  setLamp(watts: number): void;
}

export function CurrentForm({ stage, prediction, lamps, lamp, setLamp }: CurrentFormProps) {
  const { view, say, settings, energyKind } = useJob();
  const { mains } = useInstruments();
  const throughLamp = view.state.power?.state === "on" ? view.state.power.through?.includes("lamp") === true : true;
  const last = view.state.mainsCurrents.findLast((c) => c.stage === stage.id && c.seq > lastChange(view.state));
  const judged = last?.amps !== undefined && prediction ? judgeCurrent(prediction.steps, last.volts, last.amps) : undefined;
  const lampSays = last?.glow && prediction?.lamp && !nearFull(last.volts, prediction) ? judgeGlow(last.glow, prediction.lamp) : undefined;
  const live = energyKind === "live";

  const { field, onSubmit, refused } = useTypedForm({ volts: "", amps: "", glow: "" as Glow | "" }, ({ volts, amps, glow }) => {
    if (volts.trim() === "" && amps.trim() === "" && mains && live) {
      log(Math.round(mains.volts * 10) / 10, mains.amps, mains.lamp ? glowOf(mains.glow ?? 0) : undefined, mains.lamp);
      return;
    }
    const v = parseQuantity(volts, { unit: "V", decimal: settings.decimal });
    const a = parseQuantity(amps, { unit: "A", decimal: settings.decimal });
    if (!v.ok) return `Volts: ${v.why}; accepted: 115`;
    if (v.quantity.value < 0 || v.quantity.value > 500) return `Volts: ${v.quantity.echo}; accepted: 0 to 500 V`;
    if (amps.trim() !== "" && !a.ok) return `Amperes: ${a.why}; accepted: ${figure("0.28")}, 280m`;
    if (a.ok && (a.quantity.value < 0 || a.quantity.value > 50)) return `Amperes: ${a.quantity.echo}; accepted: 0 to 50 A`;
    if (amps.trim() === "" && glow === "") return "Enter the current, or how the lamp burns";
    log(v.quantity.value, amps.trim() !== "" && a.ok ? a.quantity.value : undefined, glow || undefined, glow ? lamp : undefined);
  });
  function log(v: number, a: number | undefined, g: Glow | undefined, watts: number | undefined) {
    say({
      type: "mains-current",
      payload: {
        volts: v,
        stage: stage.id,
        ...(a === undefined ? {} : { amps: a }),
        ...(g ? { glow: g } : {}),
        ...(watts ? { lamp: watts } : {}),
      },
    });
  }

  const expected = prediction?.steps.at(-1);
  const here = mains && prediction ? corridorAt(prediction.steps, mains.volts) : undefined;
  const now = mains && live && prediction ? judgeCurrent(prediction.steps, mains.volts, mains.amps) : undefined;
  return (
    <section aria-label={words("Mains current")}>
      <h2 className="font-bold">{words("Mains current")}</h2>
      {expected && (
        <p>
          A sound amp takes <strong>{formatQuantity(expected.amps, "A", 2)}</strong>{" "}
          <span className="soft">
            ({formatQuantity(expected.low, "A", 2)} to {formatQuantity(expected.high, "A", 2)})
          </span>{" "}
          at {formatVolts(expected.mains)} here
          {prediction?.lamp &&
            `; behind a ${prediction.lamp.watts} W lamp it gets ${formatVolts(prediction.lamp.ampVolts)} and the lamp is ${glowOf(prediction.lamp.glow)}`}
          .
        </p>
      )}
      {mains && live && (
        <p className="mt-1 text-xl" data-testid="current-now" aria-live="polite">
          {now && <VerdictMark verdict={now.verdict} />} now <strong>{formatQuantity(mains.amps, "A", 3)}</strong> at{" "}
          {formatVolts(mains.volts)}
          {here && (
            <span className="soft text-base">
              {" "}
              ({formatQuantity(here.low, "A", 2)} to {formatQuantity(here.high, "A", 2)})
            </span>
          )}
          {mains.fuse && <strong className="verdict-out block">The fuse has blown.</strong>}
          {now?.says && <span className={`block text-base ${now.stop ? "verdict-out font-bold" : ""}`}>{now.says}</span>}
        </p>
      )}
      {mains?.fuse && live && (
        <button
          className="btn btn-primary mt-1"
          onClick={() =>
            say(
              { type: "power", payload: { state: "off", plug: "out" } },
              { type: "observation", payload: { name: "fuse blows", conditions: {} } },
              { type: "stage", payload: { stage: stage.id, result: "stopped", note: "the fuse blew" } },
            )
          }
        >
          Switched off, plug out: find what blew it
        </button>
      )}
      <form onSubmit={onSubmit} className="mt-2 flex flex-wrap items-end gap-2">
        <Field label="At the amp, V">
          <input
            className="input w-24 text-right"
            inputMode="decimal"
            placeholder={mains && live ? figure(mains.volts) : ""}
            {...field("volts")}
          />
        </Field>
        <Field label="Current, A">
          <input
            className="input w-24 text-right"
            inputMode="decimal"
            placeholder={mains && live ? figure(mains.amps) : ""}
            {...field("amps")}
          />
        </Field>
        <Field label="Lamp">
          <select className="select w-28" {...field("glow")}>
            <option value="">none</option>
            {GLOWS.map((g) => (
              <option key={g}>{g}</option>
            ))}
          </select>
        </Field>
        <Field label="Its watts">
          <select className="select w-24" value={lamp} onChange={(e) => setLamp(Number(e.target.value))}>
            {LAMPS.map((w) => (
              <option key={w} value={w}>
                {w} W
              </option>
            ))}
          </select>
        </Field>
        <button className="btn">Log it</button>
      </form>
      <Refused>{refused}</Refused>
      {throughLamp && lampDoubt(lamp, lamps) && <p className="mt-1 text-sm text-warning">▲ {lampDoubt(lamp, lamps)}.</p>}
      {last && (judged || lampSays) && (
        <p className="mt-1" data-testid="current-verdict">
          {judged && (
            <>
              <VerdictMark verdict={judged.verdict} word /> {formatQuantity(last.amps!, "A", 3)} at {formatVolts(last.volts)}
              {judged.says && `: ${judged.says}`}{" "}
            </>
          )}
          {lampSays && (
            <span className="block">
              <VerdictMark verdict={lampSays.verdict} word /> {last.lamp ? `${last.lamp} W ` : ""}lamp {last.glow}
              {lampSays.says && `: ${lampSays.says}`}
            </span>
          )}
        </p>
      )}
    </section>
  );
}

/** At the wall's full volts there is no lamp in series any more. */
function nearFull(volts: number, prediction: StagePrediction): boolean {
  const full = prediction.steps.at(-1)?.mains ?? Infinity;
  return prediction.lamp !== undefined && volts > 0.98 * full && prediction.lamp.ampVolts < 0.9 * full;
}
