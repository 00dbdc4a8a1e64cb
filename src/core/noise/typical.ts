/** What the causes share: typical sounds, the first stage, the stages before the output. */

import type { NoiseCause } from "./cause";
import type { Chain, ChainStage } from "./chain";

export const GONE = -40;
/** Outside the amp's own circuit: what a lead, the outlet, the ground or the cabinet changes of most causes is nothing. */
export const HUM: NoiseCause["sounds"] = { "hum-mains": 0.85, buzz: 0.1, "hum-double": 0.05 };
export const RIPPLE: NoiseCause["sounds"] = { "hum-double": 0.75, buzz: 0.2, "hum-mains": 0.05 };
export const BUZZ: NoiseCause["sounds"] = { buzz: 0.7, "hum-double": 0.15, "hum-mains": 0.15 };
export const SQUEAL: NoiseCause["sounds"] = { squeal: 0.85, "bursts on peaks": 0.1, motorboating: 0.05 };
export const CRACKLE: NoiseCause["sounds"] = { crackle: 0.8, hiss: 0.15, "hum-mains": 0.05 };

export const first = (chain: Chain) => chain.stages[0];
export const signal = (chain: Chain) => chain.stages.filter((s) => !s.output);
export const grid = (s: ChainStage) => s.grid ?? s.in;
