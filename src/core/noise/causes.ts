/** What can make an amp hum, buzz, squeal, crackle or hiss: each cause with where it enters, what it changes, what it sounds like. */

import type { Circuit } from "../circuit/circuit";
import { groundCauses, outsideCauses, pickupCauses } from "./causes-around";
import { oscillationCauses } from "./causes-oscillation";
import { boardLeaks, lostSignal, partCauses, tubeCauses } from "./causes-parts";
import { heaterCauses, pairCauses, supplyCauses } from "./causes-supply";
import type { NoiseCause } from "./cause";
import { channelsOf, type Chain } from "./chain";
import * as texts from "../texts/noise";

/** All causes of a circuit, with the weights that they have before any test. Scutum's own figures. */
export function noiseCauses(circuit: Circuit, chain: Chain): NoiseCause[] {
  const channels = channelsOf(chain);
  return [
    ...supplyCauses(circuit, chain),
    ...heaterCauses(circuit, chain),
    ...channels.flatMap((channel) => {
      const own = channelCauses(circuit, channel);
      const side = channels.length > 1 && chain.speakers.find((s) => s.node === channel.speaker)?.name;
      return side ? own.map((c) => ({ ...c, id: `${c.id} ${side}`, says: texts.sChannel(side, c.says) })) : own;
    }),
    ...boardLeaks(circuit),
  ];
}

function channelCauses(circuit: Circuit, channel: Chain): NoiseCause[] {
  return [
    ...pairCauses(channel),
    ...pickupCauses(channel),
    ...groundCauses(channel),
    ...tubeCauses(channel),
    ...partCauses(circuit, channel),
    ...oscillationCauses(circuit, channel),
    ...outsideCauses(channel),
    ...lostSignal(circuit, channel),
  ];
}
