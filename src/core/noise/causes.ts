/** What can make an amp hum, buzz, squeal, crackle or hiss: each cause with where it enters, what it changes, what it sounds like. */

import type { Circuit } from "../circuit/circuit";
import { groundCauses, outsideCauses, pickupCauses } from "./causes-around";
import { oscillationCauses } from "./causes-oscillation";
import { lostSignal, partCauses, tubeCauses } from "./causes-parts";
import { heaterCauses, supplyCauses } from "./causes-supply";
import type { NoiseCause } from "./cause";
import type { Chain } from "./chain";

/** All causes of a circuit, with the weights that they have before any test. Scutum's own figures. */
export function noiseCauses(circuit: Circuit, chain: Chain): NoiseCause[] {
  return [
    ...supplyCauses(circuit, chain),
    ...heaterCauses(circuit, chain),
    ...pickupCauses(chain),
    ...groundCauses(chain),
    ...tubeCauses(chain),
    ...partCauses(circuit, chain),
    ...oscillationCauses(circuit, chain),
    ...outsideCauses(chain),
    ...lostSignal(circuit, chain),
  ];
}
