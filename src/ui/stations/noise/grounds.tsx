"use client";
/** The ground map: what returns where, the hum that it puts in series with the signal, star and bus beside it, the safety earth. */

import { figure, fixed, typedNumber } from "@/core/language/language";
import { useEffect, useMemo, useState } from "react";
import { useForm } from "react-hook-form";
import type { GroundMapDrawn } from "@/core/tape/events/noise-events";
import {
  compareSchemes,
  HEATER_CHECKS,
  judgeBond,
  liftLeaves,
  LOOP_OHMS,
  NO_HUM,
  solveGrounds,
  type GroundAnswer,
} from "@/core/noise/grounds";
import { formatQuantity } from "@/core/quantity/format";
import { Field, Section } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { GroundPicture } from "./ground-picture";
import { GroundTables } from "./ground-tables";

export function Grounds() {
  const { view, solver, netlist, conditions, settings } = useJob();
  const stored = view.state.groundMap;
  const [map, setMap] = useState<GroundMapDrawn>();
  const [failed, setFailed] = useState("");
  const seq = stored?.seq ?? 0;
  const usual = view.circuit?.mains?.volts ?? conditions.mains ?? settings.mainsVolts;
  useEffect(() => {
    let gone = false;
    if (stored) {
      const { seq: _s, at: _a, who: _w, ...drawn } = stored;
      setMap(drawn);
    } else
      solver?.grounds(netlist, usual).then(
        (m) => !gone && setMap(m),
        (e: Error) => !gone && setFailed(e.message),
      );
    return () => {
      gone = true;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- by the line that holds the map: what is edited here must not be overwritten
  }, [seq, netlist, solver]);
  if (failed) return <p role="alert">The ground map could not be made: {failed}</p>;
  if (!map) return <p role="status">Making a ground map from the circuit…</p>;
  return <Editor map={map} setMap={setMap} stored={stored !== undefined} />;
}

function Editor({ map, setMap, stored }: { map: GroundMapDrawn; setMap(m: GroundMapDrawn): void; stored: boolean }) {
  const { say } = useJob();
  const answer = useMemo(() => solveGrounds(map), [map]);
  return (
    <div className="max-w-5xl space-y-2">
      <Verdict map={map} answer={answer} />
      {!stored && (
        <p className="soft">
          This is a typical ground bus with the currents of this circuit. Correct it to what is in the amp, then keep it.
        </p>
      )}
      <GroundPicture map={map} answer={answer} />
      <GroundTables map={map} setMap={setMap} answer={answer} />
      <button className="btn btn-primary" onClick={() => say({ type: "ground-map", payload: map })}>
        Keep the map
      </button>
      <SafetyEarth map={map} setMap={setMap} />
      <Lift />
      <HeaterList />
    </div>
  );
}

function Verdict({ map, answer }: { map: GroundMapDrawn; answer: GroundAnswer }) {
  const found = answer.humVolts;
  const worst = answer.by[0];
  const shared = answer.wires.filter((w) => w.shared);
  return (
    <section aria-label="Hum of the grounds" className="rounded border border-base-300 bg-base-200 p-4">
      <p className="text-3xl font-bold tabular-nums">
        {found < NO_HUM ? "No hum" : formatQuantity(found, "V", 2)} in series with the first stage
      </p>
      <p className="mt-1 text-lg">
        {worst && found >= NO_HUM
          ? `Most of it from ${worst.what} (${formatQuantity(worst.volts, "V", 2)})`
          : "Nothing returns through the first stage's own ground"}
        {shared.length > 0 && `, along ${shared.map((w) => `${w.wire.from} – ${w.wire.to}`).join(", ")}`}.
      </p>
      {answer.loops.length > 0 && (
        <p className="text-warning">▲ Ground loops: {answer.loops.map((l) => l.join(" – ")).join("; ")}. Stray fields induce in them.</p>
      )}
      {answer.problems.map((p) => (
        <p key={p} className="text-warning">
          ▲ {p}
        </p>
      ))}
      <table className="table table-sm mt-2 max-w-xl" aria-label="Star, bus and as found">
        <tbody>
          {compareSchemes(map).map(({ scheme, volts, decibels }) => (
            <tr key={scheme}>
              <td className="font-bold">{scheme}</td>
              <td className="text-right tabular-nums">{volts < NO_HUM ? "none" : formatQuantity(volts, "V", 2)}</td>
              <td className="text-right tabular-nums">
                {decibels === undefined || scheme === "as found"
                  ? ""
                  : decibels === -Infinity
                    ? "gone"
                    : `${decibels > 0 ? "+" : ""}${fixed(decibels, 0)} dB`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function SafetyEarth({ map, setMap }: { map: GroundMapDrawn; setMap(m: GroundMapDrawn): void }) {
  const { settings } = useJob();
  return (
    <Section title="Safety earth" hint="never part of the signal's ground, never lifted; local codes and a licensed person decide">
      <div className="flex flex-wrap items-end gap-4">
        <Field label="Bolt of its own, on bare metal">
          <select
            className="select w-40"
            value={map.ownBolt === undefined ? "" : map.ownBolt ? "yes" : "no"}
            onChange={(e) => setMap({ ...map, ownBolt: e.target.value === "" ? undefined : e.target.value === "yes" })}
          >
            <option value="">not looked at</option>
            <option>yes</option>
            <option>no</option>
          </select>
        </Field>
        <Field label="Bond, Ω">
          <input
            className="input w-28 text-right"
            type="number"
            min={0}
            step="any"
            value={map.bondOhms ?? ""}
            onChange={(e) => setMap({ ...map, bondOhms: e.target.value === "" ? undefined : Math.max(0, Number(e.target.value)) })}
          />
        </Field>
      </div>
      {judgeBond(map, settings.limits.earthBondOhms).map((j) => (
        <p key={j.says} className={j.sound ? "verdict-in" : "verdict-out"}>
          {j.sound ? "●" : "■"} {j.says}
        </p>
      ))}
    </Section>
  );
}

function Lift() {
  const { view } = useJob();
  const { register, watch } = useForm({ defaultValues: { ohms: "10", farads: figure("0.1"), diodes: true, volts: figure("0.1") } });
  const { ohms, farads, diodes, volts } = watch();
  const left = liftLeaves(
    { ohms: typedNumber(ohms) || undefined, farads: (typedNumber(farads) || 0) * 1e-6, diodes },
    typedNumber(volts) || 0,
    LOOP_OHMS,
    view.circuit?.mains?.hertz ?? 50,
  );
  return (
    <Section title="A ground lift" hint="how much hum its network leaves in a loop of 50 mΩ">
      <div className="flex flex-wrap items-end gap-3">
        <Field label="Resistor, Ω">
          <input className="input w-24 text-right" {...register("ohms")} />
        </Field>
        <Field label="Capacitor, µF">
          <input className="input w-24 text-right" {...register("farads")} />
        </Field>
        <Field label="Voltage in the loop, V">
          <input className="input w-24 text-right" {...register("volts")} />
        </Field>
        <label className="flex min-h-11 items-center gap-2">
          <input type="checkbox" className="checkbox" {...register("diodes")} /> diodes across it
        </label>
        <p className="pb-2 text-lg font-bold">
          {left.lifts ? "● lifts" : "■ does not lift"}:{" "}
          {left.decibels === -Infinity ? "no hum is left" : `${fixed(left.decibels, 0)} dB of the loop's hum is left`}
        </p>
      </div>
    </Section>
  );
}

function HeaterList() {
  const { view, say } = useJob();
  return (
    <Section title="Heater wiring" hint="each with its reason">
      <table className="table table-sm" aria-label="Heater wiring">
        <tbody>
          {HEATER_CHECKS.map((c) => {
            const done = view.state.inspected.get(`heater-${c.id}`);
            return (
              <tr key={c.id}>
                <td>
                  <strong>{c.what}</strong> <span className="soft block text-xs">{c.why}</span>
                </td>
                <td className="w-28 whitespace-nowrap">
                  {done && done.result !== "open again"
                    ? done.result === "found"
                      ? "■ not correct"
                      : done.result === "sound"
                        ? "● correct"
                        : "○ not there"
                    : ""}
                </td>
                <td className="w-64">
                  <span className="flex gap-1">
                    {(["sound", "found", "not there"] as const).map((result) => (
                      <button
                        key={result}
                        className="btn btn-line btn-sm min-h-9"
                        onClick={() => say({ type: "inspection", payload: { item: `heater-${c.id}`, what: c.what, result } })}
                      >
                        {{ sound: "Correct", found: "Not correct", "not there": "Not there" }[result]}
                      </button>
                    ))}
                  </span>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Section>
  );
}
