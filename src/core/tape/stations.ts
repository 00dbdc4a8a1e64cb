/** The thirteen stations in the order of the work. */

import { words } from "../language/language";
import * as texts from "../texts/tape";

export interface Station {
  id: StationId;
  name: string;
  /** What is decided here, in one line. */
  purpose: string;
}

export const STATION_IDS = [
  "intake",
  "make-safe",
  "look",
  "cold-checks",
  "bring-up",
  "walk",
  "suspects",
  "signal",
  "noise",
  "work",
  "output-stage",
  "prove",
  "return",
] as const;

export type StationId = (typeof STATION_IDS)[number];

const rows: [StationId, string, string][] = [
  ["intake", "Intake", texts.whatWrongWhatOwner],
  ["make-safe", texts.makeSafe, texts.proveEveryReservoirDead],
  ["look", "Look", texts.whatEyeFindsBefore],
  ["cold-checks", texts.coldChecks, texts.resistancesPowerOff],
  ["bring-up", "Bring-up", texts.fullMainsStageTime],
  ["walk", "Walk", texts.eachVoltageAgainstWhat],
  ["suspects", "Suspects", texts.whichFaultExplainsReadings],
  ["signal", "Signal", texts.toneThroughEveryStage],
  ["noise", "Noise", texts.humHissSquealWhat],
  ["work", "Work", texts.whatWasChangedWhy],
  ["output-stage", texts.outputStage, texts.biasBalanceDissipation],
  ["prove", "Prove", texts.everyControlSafetyTests],
  ["return", "Return", texts.ownersReportOldParts],
];

export const STATIONS: Station[] = rows.map(([id, name, purpose]) => ({
  id,
  name,
  get purpose() {
    return words(purpose);
  },
}));

export function findStation(id: string): Station | undefined {
  return STATIONS.find((s) => s.id === id);
}
