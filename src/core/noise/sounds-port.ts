/** What screens ask about recordings and noise, wherever it is worked out. No engine code is imported here. */

import type { GroundMapDrawn } from "../job/events/noise";
import type { SolveConditions } from "../walk/modelled";
import type { Evidence } from "../suspects/evidence";
import type { Joint } from "../suspects/together";
import type { PartHistory } from "../suspects/history";
import type { Chain } from "./chain";
import type { JobNoise } from "./job-noise";
import type { Response } from "./response";
import type { Sounds } from "./sounds";

export interface Analysed extends Omit<Sounds, "spectrum"> {
  curve: number[];
}

export interface NoiseAnswer extends Joint {
  chain: Pick<Chain, "stages" | "controls" | "rails" | "bias" | "speaker" | "others" | "lineConnected">;
  /** Volts rms that a sound amp shows on each rail, by node. */
  soundRipple: Record<string, number>;
  refused: { what: string; why: string }[];
  /** By test, how it is done and what to mind. */
  how: Record<string, { how: string; caution?: string; inside?: boolean }>;
}

/** What the readings say, so that both count as one. */
export interface ReadToo {
  evidence: Evidence[];
  conditions: SolveConditions;
  history?: PartHistory;
}

/** Every call rejects with an Error whose message can be shown. */
export interface NoisePort {
  /** Reads and names a recording; one too long is looked at in its first ten minutes. */
  analyse(file: Blob, mains: number | undefined, progress?: (part: number) => void): Promise<Analysed>;
  /** Where a noise enters, by what was answered; solved at the first call for a circuit and kept. */
  enters(
    netlist: string,
    mains: number,
    speaker: string | undefined,
    noise: JobNoise,
    read: ReadToo | undefined,
    progress?: (part: number) => void,
  ): Promise<NoiseAnswer>;
  /** Response, feedback, hum and hiss as the circuit stands and with changes. */
  response(netlist: string, mains: number | undefined, changes: string[]): Promise<Response>;
  /** A ground map to begin with. */
  grounds(netlist: string | undefined, mains: number | undefined): Promise<GroundMapDrawn>;
  cancel(): void;
}
