/** A supply with a series resistor and a meter for each capacitor that is formed, and the capacitors themselves: good, slow, hopeless, punctured. */

import { normalDraws } from "@/core/numeric/random";
import type { TesterLine } from "@/core/instrument/protocol";
import type { JobState } from "@/core/tape/fold";
import { secondsUnder } from "@/core/capacitor/reform-run";

export const FORMS = ["good", "slow", "hopeless", "punctured"] as const;
export type Forms = (typeof FORMS)[number];

/** Of the allowed leakage: what stays for good, and what a raise to the rated volts adds at first; seconds in which that falls to a third. */
const KINDS: Record<Forms, { final: number; excess: number; tau: number; shortsAt?: number }> = {
  good: { final: 0.15, excess: 4, tau: 240 },
  slow: { final: 0.5, excess: 6, tau: 3600 },
  hopeless: { final: 3.5, excess: 4, tau: 500 },
  punctured: { final: 0.2, excess: 4, tau: 240, shortsAt: 0.55 },
};
/** Ohms of a puncture. */
const SHORT = 300;
/** Ranges of the ammeter: full scale and last digit, amperes. */
const RANGES: [number, number][] = [
  [200e-6, 0.01e-6],
  [2e-3, 0.1e-6],
  [20e-3, 1e-6],
  [200e-3, 10e-6],
];
const NOISE = 0.003;

type Begun = JobState["reforms"][number];
type Part = Begun["parts"][number];

/** Stretches of the supply in seconds under voltage: what the tape says of begin, steps and pauses. */
function stretches(begun: Begun, now: number): { supply: number; from: number; to: number }[] {
  const out: { supply: number; from: number; to: number }[] = [];
  let supply = begun.steps[0]!;
  let from = 0;
  for (const turn of begun.turns) {
    if (turn.part !== undefined) continue;
    const to = secondsUnder({ ...begun, turns: begun.turns.filter((t) => t.seq <= turn.seq) }, Date.parse(turn.at));
    if (to > from) out.push({ supply, from, to });
    from = to;
    if (turn.what === "step" || turn.what === "resumed") supply = turn.supply;
  }
  out.push({ supply, from, to: Math.max(from, secondsUnder(begun, now)) });
  return out;
}

/** Volts across a capacitor and amperes into it, by what it is and how it was formed so far. No noise. */
export function formedTo(
  part: Part,
  ohms: number,
  forms: Forms,
  begun: Begun,
  now: number,
): { volts: number; amps: number; seconds: number; supply: number } {
  const { final, excess, tau, shortsAt } = KINDS[forms];
  const full = part.limit;
  let [more, before, volts, amps] = [0, 0, 0, 0];
  const all = stretches(begun, now);
  for (const { supply, from, to } of all) {
    more += Math.max(0, (excess * full * (supply - before)) / part.target);
    before = Math.max(before, supply);
    more *= Math.exp(-(to - from) / tau);
    // What it leaks at the volts that its leak leaves across it.
    const slope = (final * full) / part.target;
    const settled = Math.max(0, (supply - ohms * more) / (1 + ohms * slope));
    const charging = Math.exp(-(to - from) / (ohms * part.farads));
    volts = settled - (settled - Math.min(volts, settled)) * charging;
    amps = (supply - volts) / ohms;
    if (shortsAt !== undefined && supply > shortsAt * part.target) {
      amps = supply / (ohms + SHORT);
      volts = amps * SHORT;
    }
  }
  return { volts, amps, seconds: all.at(-1)!.to, supply: all.at(-1)!.supply };
}

export class LeakageTester {
  private n = 0;
  private readonly noise: () => number;

  constructor(seed: number) {
    this.noise = normalDraws(seed);
  }

  /** One line for each capacitor that is on the supply. @param at of the line; @param now milliseconds since 1970 by the tape's clock. */
  lines(begun: Begun, forms: (part: string) => Forms, at: number, now: number): TesterLine[] {
    return begun.parts.map((part): TesterLine => {
      const { volts, amps, seconds, supply } = formedTo(part, begun.ohms, forms(part.part), begun, now);
      const read = Math.max(0, amps * (1 + NOISE * this.noise()));
      const [, digit] = RANGES.find(([most]) => read <= most) ?? RANGES.at(-1)!;
      const shown = Math.round(read / digit) * digit;
      return {
        tell: "tester",
        n: this.n++,
        at,
        part: part.part,
        seconds: Math.round(seconds * 10) / 10,
        supply,
        volts: Math.round(Math.max(0, volts) * 10) / 10,
        amps: Number(shown.toPrecision(8)),
        digit,
      };
    });
  }
}
