/** The part of the owner's report that is about the output stage: the idle and the waveform before and after, in the owner's words. */

import { figure } from "../language/language";
import { formatQuantity, formatVolts } from "../quantity/format";
import type { BiasTaken } from "../tape/events/output-events";
import type { JobState } from "../tape/fold";
import * as texts from "../texts/job";

export interface ReportOutput {
  /** Sentences, in order. */
  says: string[];
  bias: { name: string; before: string; after: string }[];
  /** One period at the speaker, volts, before and after. */
  waves?: { before?: number[]; after?: number[] };
}

const percent = (part: number) => `${Math.round(part * 100)} %`;

/** @returns undefined where nothing of the kind is on the tape. */
export function reportOutput(
  state: Pick<JobState, "biases" | "waveforms" | "blockings" | "tubesFitted" | "signalFigures">,
): ReportOutput | undefined {
  const stages = [...new Set(state.biases.map((b) => b.stage))];
  const bias = stages.flatMap((stage) => {
    const of = state.biases.filter((b) => b.stage === stage);
    return biasRows(
      of.find((b) => b.when === "before"),
      of.findLast((b) => b.when === "after"),
    );
  });
  const before = state.waveforms.find((w) => w.when === "before");
  const after = state.waveforms.findLast((w) => w.when === "after");
  const says: string[] = [];
  if (before && after)
    says.push(texts.roughness(percent(before.notch), percent(after.notch), distortion(before.distortion), distortion(after.distortion)));
  for (const b of state.blockings) {
    const back = b.recovery === undefined ? "" : formatQuantity(b.recovery, "s", 2);
    says.push(b.when === "before" ? texts.chokesNow(back) : texts.chokesThen(b.what, back));
  }
  for (const t of state.tubesFitted) says.push(texts.tubeFromStock(t.tube, t.type, t.number));
  const power = state.signalFigures.findLast((f) => f.kind === "power at clip");
  if (power?.value)
    says.push(texts.powerMeasured(formatQuantity(power.value, "W", 3), power.load === undefined ? "" : formatQuantity(power.load, "Ω", 3)));
  const hum = state.signalFigures.findLast((f) => f.kind === "residual hum");
  if (hum?.value)
    says.push(texts.humMeasured(formatVolts(hum.value), hum.decibels === undefined ? "" : String(Math.round(Math.abs(hum.decibels)))));
  if (says.length + bias.length === 0 && !before && !after) return undefined;
  return {
    says,
    bias,
    ...(before || after ? { waves: { ...(before ? { before: before.wave } : {}), ...(after ? { after: after.wave } : {}) } } : {}),
  };
}

const distortion = (part: number) => `${figure(Number((part * 100).toPrecision(2)))} %`;

function biasRows(before: BiasTaken | undefined, after: BiasTaken | undefined): ReportOutput["bias"] {
  const tubes = [...new Set([...(before?.rows ?? []), ...(after?.rows ?? [])].map((r) => r.tube))];
  const rails = [...new Set((after ?? before)?.rails.map((r) => r.point) ?? [])];
  const tube = (b: BiasTaken | undefined, name: string) => {
    const row = b?.rows.find((r) => r.tube === name);
    return row
      ? `${formatQuantity(row.plateMilliamps / 1e3, "A", 3)}${row.ofRating === undefined ? "" : `, ${percent(row.ofRating)}`}`
      : "";
  };
  const rail = (b: BiasTaken | undefined, point: string) => {
    const row = b?.rails.find((r) => r.point === point);
    return row ? formatVolts(row.volts) : "";
  };
  return [
    ...tubes.map((name) => ({ name: texts.tubeIdles(name), before: tube(before, name), after: tube(after, name) })),
    ...rails.map((point) => ({ name: texts.railVolts(point), before: rail(before, point), after: rail(after, point) })),
  ];
}
