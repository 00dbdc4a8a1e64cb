"use client";
/** The point of the walk that is taken now, and what the last reading came to. */

import { tellReading } from "@/core/tape/tell";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { normalHere } from "@/core/memory/shop-memory";
import type { WalkRow } from "@/core/walk/walk";
import { PointPhoto } from "../drawing/point-photo";
import { PointSocket } from "../drawing/point-socket";
import { ReadingField } from "../forms/reading-field";
import { useJob } from "../job/job-context";
import { useTakeReading } from "../forms/use-take-reading";
import { VerdictMark } from "../forms/verdict-mark";

/** The one point to take now, and its field: the biggest thing on the sheet. */
export function Probe({
  row,
  field,
  taken,
  go,
}: {
  row: WalkRow;
  field: React.RefObject<HTMLInputElement | null>;
  taken(point: string): void;
  go(step: 1 | -1): void;
}) {
  const { view } = useJob();
  const reading = useTakeReading("walk");
  const { point, expected } = row;

  function take(text: string) {
    if (text === "") return void go(1);
    const refused = reading.typed({ point: point.name, text });
    if (!refused) taken(point.name);
    return refused;
  }
  const history = view.state.lines.filter(
    (l) => l.event.type === "reading" && (l.event.payload as { point: string }).point === point.name,
  ).length;

  return (
    <section
      aria-label="Next point"
      className="grid items-start gap-x-6 gap-y-2 rounded border border-base-300 bg-base-200 p-4 md:grid-cols-[minmax(0,1fr)_17rem]"
    >
      <div>
        <p className="text-4xl font-bold">
          {point.name} <span className="soft text-lg font-normal">{point.label}</span>
        </p>
        <p className="mt-1 text-lg">
          Probe on <strong>{row.probeOn}</strong>, black lead on chassis, meter on <strong>{row.range}</strong>
        </p>
        <p className="mt-1 text-lg">
          {expected ? (
            <>
              Should be <strong>{formatVolts(expected.volts)}</strong>{" "}
              <span className="soft">
                ({formatVolts(expected.low)} to {formatVolts(expected.high)}; {expected.note})
              </span>
            </>
          ) : (
            <span className="soft">No expected value: {row.noExpectation}</span>
          )}
        </p>
        {expected?.chart && (
          <p className="mt-1">
            {expected.chart.disagrees ? (
              <span className="text-warning">
                ▲ The chart says {formatVolts(expected.chart.volts)} today; the circuit cannot give that. The chart may be for another
                revision, or misprinted here.
              </span>
            ) : (
              <span className="soft">Chart, scaled: {formatVolts(expected.chart.volts)}</span>
            )}
          </p>
        )}
        <NormalHere point={point.name} today={expected?.volts} />
        {point.caution && <p className="mt-1 text-warning">▲ {point.caution}</p>}
        <PointPhoto point={point} place={row.probeOn} marking className="mt-3 max-w-56" />
      </div>
      <div className="grid gap-3">
        <ReadingField
          key={point.name}
          label="Reading, V"
          empty
          field={field}
          take={take}
          onArrow={go}
          hint={
            <p className="soft text-xs">
              <kbd>Enter</kbd> logs it, or skips the point when empty; <kbd>↑</kbd> <kbd>↓</kbd> move
              {history > 1 ? `; ${history} readings of this point on the tape` : ""}
            </p>
          }
        />
        <PointSocket point={point} />
      </div>
    </section>
  );
}

/** What other amps of the model, that went home in order, show at the point: a third figure beside circuit and chart. */
function NormalHere({ point, today }: { point: string; today?: number }) {
  const { shopHistory, conditions } = useJob();
  const seen = normalHere(shopHistory, point, conditions.mains);
  if (!seen || conditions.without?.length || conditions.limiter) return null;
  const far = today !== undefined && (today < seen.low * 0.85 || today > seen.high * 1.15) && seen.count >= 3;
  return (
    <p className={`mt-1 ${far ? "text-warning" : "soft"}`}>
      {far && "▲ "}In this shop: {formatVolts(seen.volts)}
      {seen.count > 1 && ` (${formatVolts(seen.low)} to ${formatVolts(seen.high)})`}, from {seen.count} {seen.count === 1 ? "amp" : "amps"}{" "}
      of this model:{" "}
      {seen.jobs.map((job, i) => (
        <span key={job}>
          {i > 0 && ", "}
          <a className="underline" href={`/jobs/${job}/walk`}>
            {job}
          </a>
        </span>
      ))}
    </p>
  );
}

/** The same point beside the large drawing: what should be there, and its field. */
export function ProbeBeside({ row, taken, go }: { row: WalkRow; taken(point: string): void; go(step: 1 | -1): void }) {
  const reading = useTakeReading("walk");
  const { point, expected } = row;
  return (
    <div className="rounded border border-base-300 bg-base-200 p-2">
      <p className="text-2xl font-bold">{point.name}</p>
      <p>
        Probe on <strong>{row.probeOn}</strong>, meter on {row.range}
        {expected && `; should be ${formatVolts(expected.volts)}`}
      </p>
      {point.caution && <p className="text-warning">▲ {point.caution}</p>}
      <ReadingField
        key={point.name}
        label="Reading, V"
        empty
        onArrow={go}
        take={(text) => {
          if (text === "") return void go(1);
          const refused = reading.typed({ point: point.name, text });
          if (!refused) taken(point.name);
          return refused;
        }}
      />
      {row.reading && <VerdictMark verdict={row.verdict} word size={20} />}
    </div>
  );
}

/** What the last reading came to. */
export function Outcome({ row }: { row: WalkRow }) {
  return (
    <div
      data-testid="outcome"
      data-verdict={row.verdict}
      className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-l-4 border-base-300 px-3 py-1"
    >
      <span className="text-2xl font-bold">{tellReading(row.reading!)}</span>
      <span className="text-2xl">
        <VerdictMark verdict={row.verdict} word size={20} />
      </span>
      {row.idle.map((i) => (
        <Idle key={i.tube} idle={i} />
      ))}
      {row.reason && <p className="basis-full">{row.reason}</p>}
    </div>
  );
}

/** Current and dissipation that a cathode reading stands for. */
export function Idle({ idle: i }: { idle: WalkRow["idle"][number] }) {
  return (
    <span className="text-sm">
      {i.tube}: {formatQuantity(i.cathodeAmps, "A", 3)}
      {i.plateWatts !== undefined && i.ofRating !== undefined && (
        <>
          , plate {formatQuantity(i.plateWatts, "W", 3)}, <strong>{Math.round(i.ofRating * 100)} %</strong> of {i.ratedWatts} W{" "}
          <span className="soft">({i.system})</span>
        </>
      )}
    </span>
  );
}
