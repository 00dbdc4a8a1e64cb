"use client";
/** The signal walk: a tone at the input, the level that every stage should have, what was read, and the first stage that is off. */

import { figure, fixed, words } from "@/core/language/language";
import { useState } from "react";
import { channelsOf, chainOf } from "@/core/noise/chain";
import type { Circuit } from "@/core/circuit/circuit";
import { judgeSignal, OFF_DB, type SignalRow, type WalkTone } from "@/core/output/signal-walk";
import { ampAsItIs } from "@/core/tape/amp-as-it-is";
import { settingsIn } from "@/core/expectation/modelled";
import { formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { WideTable } from "../../forms/wide-table";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { useInstruments } from "../../job/use-instruments";
import { useMeterAt } from "../../job/use-meter-at";
import { LoadFigures } from "./load-figures";

export function SignalWalk({ circuit }: { circuit: Circuit }) {
  const { view, netlist, output, conditions, settings, instruments, energyKind } = useJob();
  const channels = channelsOf(chainOf(circuit)).filter((c) => c.input && c.speaker);
  const [channel, setChannel] = useState(0);
  const [tone, setTone] = useState<WalkTone>({ volts: 0.01, hertz: 1000 });
  const { send, heard } = useInstruments();
  const speaker = channels[channel]?.speaker;
  const mains = circuit.mains ? (conditions.mains ?? circuit.mains.volts) : undefined;
  const set = settingsIn(circuit, conditions.switches, conditions.controls);
  const key = output && netlist !== undefined && speaker ? JSON.stringify(["signal", netlist, tone, mains, set, speaker]) : undefined;
  const { answer, failed } = useAnswer(key, () =>
    output!.signal(netlist!, tone, { ...(mains === undefined ? {} : { mains }), set, speaker: speaker! }),
  );
  const { field, onSubmit, refused } = useTypedForm({ volts: "10m", hertz: "1k" }, (typed) => {
    const [volts, hertz] = [
      parseQuantity(typed.volts, { unit: "V", decimal: settings.decimal }),
      parseQuantity(typed.hertz, { unit: "Hz", decimal: settings.decimal }),
    ];
    if (!volts.ok || !(volts.quantity.value > 0 && volts.quantity.value <= 50))
      return `Level: read ${typed.volts}; accepted: volts rms above 0, such as 10m`;
    if (!hertz.ok || !(hertz.quantity.value >= 10 && hertz.quantity.value <= 50_000))
      return `Frequency: read ${typed.hertz}; accepted: 10 Hz to 50 kHz, such as 1k`;
    setTone({ volts: volts.quantity.value, hertz: hertz.quantity.value });
    return typed;
  });
  const { counts } = ampAsItIs(view.state);
  const readings = view.state.readings
    .filter(
      (r) =>
        r.kind === "acv" &&
        counts(r.seq) &&
        r.conditions.toneVolts !== undefined &&
        Math.abs(r.conditions.toneVolts / tone.volts - 1) < 0.02 &&
        Math.abs((r.conditions.toneHertz ?? 0) / tone.hertz - 1) < 0.02,
    )
    .map((r) => ({ point: r.point, volts: r.value }));
  const judged = answer && judgeSignal(answer, readings);
  const [at, setAt] = useState(0);
  const next = judged?.rows[at];
  if (channels.length === 0) return null;
  return (
    <Section title="Signal walk" hint="a generator at the input, the dummy load on, an AC meter or scope from stage to stage">
      <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
        {channels.length > 1 && (
          <Field label="Channel">
            <select className="select w-40" value={channel} onChange={(e) => setChannel(Number(e.target.value))}>
              {channels.map((c, i) => (
                <option key={c.speaker} value={i}>
                  {c.stages[0]?.label ?? c.speaker}
                </option>
              ))}
            </select>
          </Field>
        )}
        <Field label="Tone, V rms">
          <input className="input w-28 text-right" inputMode="decimal" {...field("volts")} />
        </Field>
        <Field label="Frequency, Hz">
          <input className="input w-28 text-right" inputMode="decimal" {...field("hertz")} />
        </Field>
        <button className="btn">Expected levels</button>
        {instruments && heard === "heard" && energyKind === "live" && (
          <button type="button" className="btn btn-outline" onClick={() => void send({ tell: "set", tone: tone.volts, hertz: tone.hertz })}>
            Set the simulated generator
          </button>
        )}
      </form>
      <Refused>{refused}</Refused>
      {failed && <p role="alert">{failed}</p>}
      {!answer && !failed && <p role="status">Working out the levels…</p>}
      {judged && (
        <>
          <p className={`my-3 text-2xl font-bold ${judged.first ? "text-warning" : ""}`} data-testid="signal-says">
            {judged.first ? "▲ " : ""}
            {judged.says}.
          </p>
          {next && <TakeLevel row={next} tone={tone} onTaken={() => setAt(Math.min(judged.rows.length - 1, at + 1))} />}
          <WideTable label="Levels from stage to stage" className="table table-sm mt-2">
            <thead>
              <tr>
                <th>Point</th>
                <th>Where</th>
                <th className="text-right">Expected, rms</th>
                <th className="text-right">Gain</th>
                <th className="text-right">Read</th>
                <th className="text-right">Off by</th>
                <th className="text-right">Added here</th>
              </tr>
            </thead>
            <tbody>
              {judged.rows.map((r, i) => (
                <LevelRow key={r.node} row={r} here={i === at} first={judged.first?.row === r} choose={() => setAt(i)} />
              ))}
            </tbody>
          </WideTable>
          <Assumed circuit={circuit} controls={channels[channel]!.stages.flatMap((s) => s.control ?? [])} set={set} />
          <p className="soft text-sm">
            {words(
              `Levels stray by the tubes' and parts' tolerances: a stage is off from ${OFF_DB} dB on. Readings count as evidence for the suspects too.`,
            )}
          </p>
        </>
      )}
      <LoadFigures circuit={circuit} speaker={speaker} mains={mains} />
    </Section>
  );
}

/** Levels hang on the controls: which were noted, and which are taken as the circuit file has them. */
function Assumed({ circuit, controls, set }: { circuit: Circuit; controls: string[]; set: string[] }) {
  const taken = [...new Set(controls)].flatMap((name) => {
    const pos = circuit.elements.find((e) => e.name === name && e.type === "POT")?.params.pos;
    const noted = set.find((s) => s.startsWith(`${name}=`));
    return noted || typeof pos !== "number" ? [] : [`${name} at ${Math.round(pos * 100)} %`];
  });
  if (taken.length === 0) return null;
  return (
    <p className="mt-2 font-bold">
      ▲ Taken as the circuit file has it: {taken.join(", ")}. Note where the controls stand at Walk (such as {taken[0]!.split(" ")[0]}=
      {figure("0.5")}): levels behind a control that nobody noted are no evidence for the suspects.
    </p>
  );
}

function LevelRow({ row, here, first, choose }: { row: SignalRow; here: boolean; first: boolean; choose(): void }) {
  const db = (x: number | undefined) => (x === undefined ? "–" : `${x >= 0.05 ? "+" : x <= -0.05 ? "−" : ""}${fixed(Math.abs(x), 1)} dB`);
  return (
    <tr className={here ? "bg-base-200" : ""}>
      <td>
        <button className="min-h-9 font-bold underline" onClick={choose}>
          {row.name}
        </button>
      </td>
      <td>
        {row.label}
        {row.clips && <span className="text-warning"> ▲ clips at this level</span>}
      </td>
      <td className="text-right tabular-nums">{formatVolts(row.expected)}</td>
      <td className="text-right tabular-nums">
        {row.from === undefined ? "" : db(row.gain)}
        {row.inverts ? " inv." : ""}
      </td>
      <td className="text-right font-bold tabular-nums">{row.read === undefined ? "–" : formatVolts(row.read)}</td>
      <td className="text-right tabular-nums">{db(row.off)}</td>
      <td className="text-right tabular-nums">
        {first ? "▲ " : row.adds !== undefined ? "● " : ""}
        {db(row.adds)}
      </td>
    </tr>
  );
}

/** The level at one point, typed or from the meter. */
function TakeLevel({ row, tone, onTaken }: { row: SignalRow; tone: WalkTone; onTaken(): void }) {
  const { say, conditions, settings, energyKind } = useJob();
  const meter = useMeterAt(row.point, "acv", undefined, undefined, energyKind !== "live");
  const withTone = { ...conditions, toneVolts: tone.volts, toneHertz: tone.hertz };
  const { field, onSubmit, refused } = useTypedForm({ text: "" }, ({ text }) => {
    if (text.trim() === "") {
      const held = meter.toTake();
      if (held?.value === undefined) return "The meter does not show a steady value: wait, or type the reading";
      say({
        type: "reading",
        payload: { point: row.point, kind: "acv", value: Number(Math.abs(held.value).toPrecision(4)), digits: 3, conditions: withTone },
      });
      return void onTaken();
    }
    const parsed = parseQuantity(text, { unit: "V", decimal: settings.decimal });
    if (!parsed.ok) return `${parsed.why}; accepted: ${figure("1.8")}, 330m`;
    if (!(parsed.quantity.value >= 0 && parsed.quantity.value <= 1000)) return `${parsed.quantity.echo}: accepted 0 to 1000 V rms`;
    say({
      type: "reading",
      payload: { point: row.point, kind: "acv", value: parsed.quantity.value, digits: parsed.quantity.digits, conditions: withTone },
    });
    onTaken();
  });
  return (
    <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
      <Field label={`${row.name}, ${row.label}: level read, V rms`}>
        <input className="input h-14 w-40 text-right text-2xl" inputMode="decimal" autoComplete="off" {...field("text")} />
      </Field>
      <button className="btn btn-primary h-14">Log it</button>
      <p className="soft pb-4">
        should be {formatVolts(row.expected)}
        {meter.shows && `; ${meter.steady ? "●" : "○"} meter ${meter.shows}${meter.steady ? ", Enter takes it" : ""}`}
      </p>
      <Refused>{refused}</Refused>
    </form>
  );
}
