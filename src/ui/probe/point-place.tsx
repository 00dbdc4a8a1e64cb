/** Where the probe goes and what should be there. */

import { formatVolts } from "@/core/quantity/format";
import { meterRange } from "@/core/expectation/expectation";
import { PointSocket } from "../drawing/point-socket";
import type { WalkRow } from "@/core/walk/walk";

export function PointPlace({ row, again }: { row: WalkRow; again: boolean }) {
  const { point, expected } = row;
  return (
    <section
      aria-label="Where the probe goes"
      className="flex min-w-0 flex-col justify-center gap-3 border-base-300 px-4 md:border-r md:px-10"
    >
      <p data-testid="probe-place" data-point={point.name} className="text-[clamp(4rem,8.6vw,9rem)] leading-none font-bold">
        {row.probeOn}
      </p>
      <div className="flex items-center gap-4">
        <div className="flex min-w-0 flex-1 flex-col gap-3">
          <p className="text-5xl leading-tight">
            {point.label}
            {again && <span className="soft"> · again</span>}
          </p>
          {expected ? (
            <p className="mt-2 text-4xl">
              <span className="soft">should be </span>
              <strong className="text-6xl whitespace-nowrap">{formatVolts(expected.volts)}</strong>
              <span className="soft mt-1 block text-3xl">
                {formatVolts(expected.low).replace(" V", "")} to {formatVolts(expected.high)}
              </span>
            </p>
          ) : (
            <p className="soft mt-2 text-3xl">No expected value: {row.noExpectation}</p>
          )}
          <p className="soft text-2xl">Black on chassis, meter on {meterRange(expected?.volts ?? point.chart ?? 1000)}</p>
          {point.caution && <p className="probe-watch text-3xl leading-snug font-bold">▲ {point.caution}</p>}
        </div>
        <PointSocket point={point} className="hidden w-[clamp(16rem,29vw,34rem)] shrink-0 lg:block" />
      </div>
    </section>
  );
}
