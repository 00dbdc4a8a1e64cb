/** Above and below the point: the state of the amp and the mains; the last verdict, and where the hand goes next. */

import { fixed, words } from "@/core/language/language";
import { formatVolts } from "@/core/quantity/format";
import { tellReading } from "@/core/tape/tell";
import { VERDICT_WORD } from "@/core/expectation/expectation";
import type { ProbeWalk } from "@/core/walk/probe-walk";
import type { WalkRow } from "@/core/walk/walk";
import { useEnergy, useJob } from "../job/job-context";
import type { Instruments } from "../job/use-instruments";
import { VerdictMark } from "../forms/verdict-mark";
import { energyWords } from "../job/words";
import type { Sound } from "./sound";

export function ProbeStrip({
  instruments,
  walk,
  sound,
}: {
  instruments: Instruments;
  walk: Pick<ProbeWalk, "taken" | "order">;
  sound: Sound;
}) {
  const { view, tape, conditions } = useJob();
  const { energy } = useEnergy();
  const { title, detail } = energyWords(energy);
  const { mains } = instruments;
  const volts = mains?.volts ?? view.state.mainsVolts ?? conditions.mains;
  const pending = tape.events.length - tape.pendingFrom + 1;
  return (
    <header className="flex flex-wrap items-center gap-x-8 gap-y-1 border-b border-base-300 bg-base-200 px-4 py-3 text-2xl md:px-6">
      <p
        role="status"
        aria-label="Energy state"
        data-energy={energy.kind}
        className={`rounded px-4 py-1 font-bold ${energy.kind === "live" ? "probe-live" : ""}`}
      >
        {title} <span className="text-xl font-normal">{detail}</span>
      </p>
      <p>
        <span className="soft">{words("mains")} </span>
        {volts === undefined ? "not read" : formatVolts(volts)}
        {mains && <span className="soft">, {fixed(mains.amps, 2)} A</span>}
        {mains?.lamp ? (
          <span className="soft">
            , lamp {mains.lamp} W at {Math.round((mains.glow ?? 0) * 100)} %
          </span>
        ) : null}
      </p>
      <p className="ml-auto">
        {walk.taken.length} <span className="soft">of {walk.order.length} taken</span>
      </p>
      {(sound.speech || !sound.tone) && <p className="soft text-xl">{sound.speech ? "voice on" : "tone off"}</p>}
      {instruments.trouble && (
        <p role="alert" className="probe-watch text-xl font-bold">
          ▲ The meter was not told which point: set it by hand
        </p>
      )}
      {tape.lost && (
        <p role="alert" className="probe-watch text-xl font-bold">
          ▲ {pending > 0 ? `${pending} lines wait for the server` : "server not reached"}
        </p>
      )}
    </header>
  );
}

export function LastVerdict({ row, after, why }: { row?: WalkRow; after?: WalkRow; why?: string }) {
  return (
    <div className="grid min-h-40 md:grid-cols-[minmax(0,11fr)_minmax(0,9fr)] items-center border-t border-base-300">
      <div aria-live="assertive" data-testid="probe-verdict" data-verdict={row?.verdict} className="px-4 md:px-10 py-3">
        {row?.reading && (
          <>
            <p className={`verdict-${row.verdict} flex items-center gap-5 text-6xl font-bold`}>
              <VerdictMark verdict={row.verdict} size={64} />
              <span className="whitespace-nowrap">
                {row.verdict === "in" || row.verdict === "none" || !row.expected
                  ? row.verdict === "none"
                    ? "taken"
                    : VERDICT_WORD[row.verdict]
                  : `${VERDICT_WORD[row.verdict]}, ${row.reading.value > row.expected.high ? "high" : "low"}`}
              </span>
            </p>
            <p className="mt-1 text-3xl">
              {tellReading(row.reading)}
              {row.expected && row.verdict !== "in" && <span className="soft">, should be {formatVolts(row.expected.volts)}</span>}
            </p>
          </>
        )}
      </div>
      <p className="flex h-full flex-wrap content-center items-baseline gap-x-2 border-base-300 px-4 md:border-l md:px-10 text-3xl">
        {why && <span className="text-2xl leading-snug">{why}</span>}
        {after && (
          <>
            <span className="soft">then </span>
            <strong>{after.probeOn}</strong> {after.point.label}
          </>
        )}
      </p>
    </div>
  );
}
