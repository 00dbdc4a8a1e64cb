/** What the noise's screen shows: causes and the next test, with what is to be known of the amp beside them. */

import type { Ranking } from "../suspects/rank";
import { together, type Joint } from "./together";
import type { Chain } from "./chain";
import type { JobNoise } from "./job-noise";
import type { NoiseTable } from "./noise-table";

export interface NoiseAnswer extends Joint {
  chain: Chain;
  /** Volts rms that a sound amp shows on each rail, by node. */
  soundRipple: Record<string, number>;
  /** Tests that this amp forbids. */
  refused: { what: string; why: string }[];
  /** Circuits that could not be solved, so that their causes are judged by nothing. */
  doubts: string[];
  /** By test, how it is done and what to mind. */
  how: Record<string, { how: string; caution?: string; inside?: boolean }>;
}

/** @param ranking of the readings, where there are any. */
export function answerNoise(table: NoiseTable, job: JobNoise, ranking: Ranking | undefined): NoiseAnswer {
  return {
    ...together(table, [...job.answers, ...table.answersOf(job.rails)], ranking),
    chain: table.chain,
    soundRipple: Object.fromEntries(table.soundRipple),
    refused: table.refused,
    doubts: table.doubts,
    how: Object.fromEntries(table.tests.map(({ id, how, caution, inside }) => [id, { how, caution, inside }])),
  };
}
