"use client";
/** What it sounds like, measured: a recording named with its figures, kept before and after, one over the other. */

import { fixed } from "@/core/language/language";
import { late } from "../../forms/late";
import { useRef, useState } from "react";
import type { RecordingTaken } from "@/core/tape/events/noise-events";
import type { Line } from "@/core/tape/fold";
import { ampAsItIs } from "@/core/tape/amp-as-it-is";
import { heardIn, louderBy, millivoltsOf, recordingLine } from "@/core/sound/recording-line";
import type { Analysed } from "@/core/sound/sounds";
import { saidSound } from "@/core/tape/sound-words";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { Figure } from "../../forms/figure";
import { Field } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { capital } from "../../job/words";
import { recordMicrophone } from "./microphone";
import type { Curve } from "../../charts/spectrum-chart";
import { FileField, WAV_FILES } from "../../forms/file-field";

const SECONDS = 6;
type When = RecordingTaken["when"];

const SpectrumChart = late(() => import("../../charts/spectrum-chart").then((m) => m.SpectrumChart));

interface Heard {
  file: Blob;
  name: string;
  sounds: Analysed;
}

export function Sound() {
  const { view, sounds: reader, port } = useJob();
  const [heard, setHeard] = useState<Heard>();
  const [busy, setBusy] = useState<{ what: string; part: number }>();
  const [refused, setRefused] = useState("");
  const stop = useRef<AbortController>(undefined);
  const mains = view.circuit?.mains?.hertz;

  async function look(get: (told: (part: number) => void, signal: AbortSignal) => Promise<{ file: Blob; name: string }>, what: string) {
    const control = (stop.current = new AbortController());
    // Progress comes by a way of its own, and may come after the answer, or after something else was begun.
    const current = () => stop.current === control;
    const at = (doing: string) => (part: number) => current() && setBusy({ what: doing, part });
    setRefused("");
    at(what)(0);
    try {
      const { file, name } = await get(at(what), control.signal);
      const looking = at(`Looking at ${name}`);
      looking(0);
      const sounds = await reader!.analyse(file, mains, looking);
      if (current()) setHeard({ file, name, sounds });
    } catch (error) {
      if (current()) setRefused((error as Error).message);
    }
    if (!current()) return;
    stop.current = undefined;
    setBusy(undefined);
  }
  const choose = (file: File) => look(async () => ({ file, name: file.name }), `Reading ${file.name}`);
  const kept = view.state.recordings;
  return (
    <div className="max-w-5xl space-y-4">
      <section
        aria-label="A recording"
        className="flex flex-wrap items-center gap-3 rounded border border-dashed border-base-content/50 p-4"
      >
        <button
          data-arrival
          className="btn btn-primary h-14"
          disabled={busy !== undefined}
          onClick={() =>
            void look(
              async (told, signal) => ({
                file: await recordMicrophone(SECONDS, told, signal),
                name: `microphone ${new Date().toLocaleTimeString("en-GB")}.wav`,
              }),
              `Recording ${SECONDS} s`,
            )
          }
        >
          Record {SECONDS} s
        </button>
        <FileField label="Choose a WAV" accept={WAV_FILES} className="btn btn-line h-14" take={async (file) => choose(file)} />
        <Simulated
          look={(noted) =>
            void look(
              async () => ({ file: await port.microphone(SECONDS, noted), name: "simulated microphone.wav" }),
              "Listening to the simulated amp",
            )
          }
        />
        <p className="soft text-sm">or drop one here. Play nothing while it records; set the controls where the noise is heard.</p>
        {busy && (
          <p role="status" className="flex basis-full items-center gap-3">
            {busy.what}
            <progress className="progress w-64" value={busy.part} max={1} aria-label={busy.what} />
            <button
              className="btn btn-ghost btn-sm min-h-9"
              onClick={() => {
                stop.current?.abort();
                reader?.cancel();
              }}
            >
              Stop
            </button>
          </p>
        )}
        {refused && (
          <p role="alert" className="basis-full text-error">
            {refused}
          </p>
        )}
      </section>
      {heard ? <Named heard={heard} kept={kept} done={() => setHeard(undefined)} /> : <Kept recordings={kept} mains={mains ?? 50} />}
    </div>
  );
}

/** The demo's amps have a microphone of their own; circumstances are said as the matrix says them. */
function Simulated({ look }: { look(noted: string): void }) {
  const { view } = useJob();
  const last = view.state.conditionsRuns.at(-1);
  const noted = last ? last.settings.map((s) => `${s.name} ${s.setting}`).join(", ") : "";
  return (
    <button
      className="btn btn-line h-14"
      title={noted ? `with the conditions of the last run: ${noted}` : undefined}
      onClick={() => look(noted)}
    >
      Simulated microphone
    </button>
  );
}

function Named({ heard, kept, done }: { heard: Heard; kept: Line<RecordingTaken>[]; done(): void }) {
  const { view, say, port, settings } = useJob();
  const { sounds, name, file } = heard;
  const [when, setWhen] = useState<When>(view.state.changes.length > 0 ? "after" : "before");
  const [reference, setReference] = useState("");
  const [storing, setStoring] = useState("");
  const typed = reference.trim() === "" ? undefined : parseQuantity(reference, { decimal: settings.decimal });
  const lead = sounds.named[0]!;
  const before = kept.findLast((r) => r.when === "before");
  const curves: Curve[] = [{ name: "this one", curve: sounds.curve }, ...(before ? [{ name: "before", curve: before.curve }] : [])];
  async function keep() {
    const millivolts = typed;
    if (millivolts && !(millivolts.ok && millivolts.quantity.value > 0))
      return setStoring(`Read "${reference}"; accepted: millivolts above zero, such as 1414`);
    setStoring("Storing it…");
    try {
      const hash = await port.recording(file);
      const standing = view.state.noiseTests.some((t) => t.test === "sound" && ampAsItIs(view.state).counts(t.seq));
      say(
        {
          type: "recording",
          payload: recordingLine(sounds, {
            hash,
            name,
            when,
            ...(millivolts?.ok ? { fullScaleMillivolts: millivolts.quantity.value } : {}),
          }),
        },
        // What it sounds like is the first answer of the isolation.
        ...(when !== "after" && !standing && lead.kind !== "clean"
          ? ([{ type: "noise-test", payload: { test: "sound", what: "What does it sound like?", outcome: lead.kind } }] as const)
          : []),
      );
      done();
    } catch (error) {
      setStoring((error as Error).message);
    }
  }
  return (
    <section aria-label="What it sounds like" className="space-y-3">
      <p className="text-3xl font-bold" role="status">
        {capital(saidSound(lead.kind))}
        <span className="soft text-lg font-normal"> {Math.round(100 * lead.confidence)} % sure</span>
      </p>
      {sounds.named.length > 1 && (
        <p className="text-lg">
          also{" "}
          {sounds.named
            .slice(1)
            .map((n) => `${saidSound(n.kind)} (${Math.round(100 * n.confidence)} %)`)
            .join(", ")}
        </p>
      )}
      <Levels sounds={sounds} millivolts={typed?.ok && typed.quantity.value > 0 ? typed.quantity.value : undefined} />
      {sounds.notes.map((n) => (
        <p key={n} className="text-warning">
          ▲ {n}
        </p>
      ))}
      <SpectrumChart curves={curves} mains={sounds.mains.hertz} tones={sounds.tones} />
      <div className="flex flex-wrap items-end gap-3">
        <Field label="This is">
          <select className="select w-36" value={when} onChange={(e) => setWhen(e.target.value as When)}>
            {["before", "trial", "after"].map((w) => (
              <option key={w}>{w}</option>
            ))}
          </select>
        </Field>
        <Field label="Speaker voltage at 0 dB, mV rms">
          <input
            className="input w-40 text-right"
            inputMode="decimal"
            placeholder="not known"
            value={reference}
            onChange={(e) => setReference(e.target.value)}
          />
        </Field>
        <button className="btn btn-primary" onClick={() => void keep()}>
          Keep it
        </button>
        <button className="btn btn-ghost" onClick={done}>
          Discard
        </button>
        {storing && <span role="status">{storing}</span>}
      </div>
    </section>
  );
}

function Levels({ sounds, millivolts }: { sounds: Analysed; millivolts?: number }) {
  const level = (db: number) =>
    db <= -119 ? "not heard" : millivolts ? formatQuantity(millivoltsOf(db, millivolts) / 1e3, "V", 2) : `${fixed(db, 0)} dB`;
  const { mains } = sounds;
  return (
    <dl className="flex flex-wrap gap-x-8 gap-y-2">
      <Figure name={`f, ${fixed(mains.hertz, 1)} Hz`} value={level(mains.f1dB)} />
      <Figure name="2f" value={level(mains.f2dB)} />
      <Figure name="odd harmonics" value={level(mains.oddCombdB)} />
      <Figure name="even harmonics" value={level(mains.evenCombdB)} />
      <Figure name="hiss above 1 kHz" value={level(sounds.hissdB)} />
      {sounds.tones[0] && <Figure name="strongest tone" value={`${Math.round(sounds.tones[0].hertz)} Hz, ${level(sounds.tones[0].db)}`} />}
      {sounds.subAudioHz !== undefined && <Figure name="beats" value={`${fixed(sounds.subAudioHz, 1)} a second`} />}
      {sounds.crackleRate !== undefined && <Figure name="clicks" value={`${fixed(sounds.crackleRate, 1)} a second`} />}
      <Figure name="total" value={level(sounds.totaldB)} />
    </dl>
  );
}

function Kept({ recordings, mains }: { recordings: Line<RecordingTaken>[]; mains: number }) {
  const before = recordings.findLast((r) => r.when === "before");
  const later = recordings.findLast((r) => r.when !== "before");
  if (recordings.length === 0)
    return <p className="soft">No recording yet. Record before the work, so that the result can be compared afterwards.</p>;
  const curves = [later, before].flatMap((r) => (r ? [{ name: `${r.when}: ${r.name}`, curve: r.curve }] : []));
  return (
    <section aria-label="Recordings kept" className="space-y-3">
      {before && later && (
        <p className="text-2xl font-bold">
          {before.sounds[0]!.kind === later.sounds[0]!.kind ? "Still" : "Was"} {saidSound(before.sounds[0]!.kind)}
          {before.sounds[0]!.kind !== later.sounds[0]!.kind && `, now ${saidSound(later.sounds[0]!.kind)}`}:{" "}
          {fixed(louderBy(before, later), 0)} dB
        </p>
      )}
      <SpectrumChart curves={curves} mains={mains} />
      <table className="table table-sm" aria-label="Recordings">
        <tbody>
          {recordings.map((r) => (
            <tr key={r.seq}>
              <td className="font-bold">{r.when}</td>
              <td>{heardIn(r)}</td>
              <td className="tabular-nums">
                f {fixed(r.f1dB, 0)}, 2f {fixed(r.f2dB, 0)}, all {fixed(r.totaldB, 0)} dB
              </td>
              <td>
                <audio controls preload="none" src={`/api/v1/recordings/${r.hash}`} aria-label={r.name} className="h-9" />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
