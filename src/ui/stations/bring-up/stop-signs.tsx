/** When to stop in this stage, and what each sign means. */

import { words } from "@/core/language/language";
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
          "a short in what is fitted now: go no further, find it",
        ]
      : ["Current that rises while the dial stands still", "something conducts more and more: switch off"],
    ["Lamp bright after the first second", "it limits a short: suspect what this stage added"],
    ...(withOutput
      ? ([
          ["A plate that glows red", words("no bias, or an open grid: switch off at once, remove the tubes")],
          [words("Blue light that fills a tube or moves"), words("gas: remove that tube")],
        ] as [string, string][])
      : []),
    ...(stage.id === "no-tubes"
      ? ([[words("Hum and heat of the transformer with no tubes fitted"), "shorted turns: the transformer is faulty"]] as [
          string,
          string,
        ][])
      : []),
    ["Smell, smoke, a tick or a hiss from a can", "an electrolytic vents or a resistor burns: switch off and stand back"],
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
