/** When to stop in this stage, and what each sign means. */

import type { StagePrediction } from "@/core/bring-up/corridor";
import type { BringUpStage } from "@/core/bring-up/stages";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { NotLive } from "../not-live";

export function StopSigns({ stage, prediction, wall }: { stage: BringUpStage; prediction?: StagePrediction; wall: number }) {
  const half = prediction?.steps.find((s) => s.mains >= 0.45 * wall);
  const withOutput = /^output|full|settle/.test(stage.id);
  const signs: [sign: string, means: string][] = [
    half
      ? [
          `More than ${formatQuantity(half.high, "A", 2)} at ${formatVolts(half.mains)}`,
          "a short in what is in now: go no further, isolate it",
        ]
      : ["A current that climbs while the dial stands", "something conducts more and more: off"],
    ["Lamp bright after the first second", "it limits a short: all that this stage added is suspect"],
    ...(withOutput
      ? ([
          ["A plate that reddens", "no bias, or an open grid: off at once, tubes out"],
          ["Blue light that fills a tube, or moves", "gas: that tube out"],
        ] as [string, string][])
      : []),
    ...(stage.id === "no-tubes"
      ? ([["Hum and heat of the transformer with nothing in", "shorted turns: no fuse will mend that"]] as [string, string][])
      : []),
    ["Smell, smoke, a tick or a hiss from a can", "an electrolytic vents, a resistor goes: off, and stand back"],
  ];
  return (
    <section aria-label="Stop when" className="text-sm">
      <h2 className="text-base font-bold">Stop when</h2>
      <dl>
        {signs.map(([sign, means]) => (
          <div key={sign} className="mt-1">
            <dt className="inline font-bold">{sign}:</dt> <dd className="inline">{means}.</dd>
          </div>
        ))}
      </dl>
      {withOutput && (
        <div className="mt-3">
          <NotLive wall={wall} />
        </div>
      )}
    </section>
  );
}
