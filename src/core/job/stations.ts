/** The thirteen stations in the order of the work. */

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
  ["intake", "Intake", "What is wrong, what the owner wants, which amp this is"],
  ["make-safe", "Make safe", "Prove that every reservoir is dead"],
  ["look", "Look", "What the eye finds before anything is measured"],
  ["cold-checks", "Cold checks", "Resistances with the power off"],
  ["bring-up", "Bring-up", "To full mains, a stage at a time"],
  ["walk", "Walk", "Each voltage against what it should be today"],
  ["suspects", "Suspects", "Which fault explains the readings"],
  ["signal", "Signal", "A tone through every stage"],
  ["noise", "Noise", "Hum, hiss, squeal and what comes and goes"],
  ["work", "Work", "What was changed, and why"],
  ["output-stage", "Output stage", "Bias, balance and dissipation"],
  ["prove", "Prove", "Every control, the safety tests, the complaint again"],
  ["return", "Return", "The owner's report, old parts, the bill"],
];

export const STATIONS: Station[] = rows.map(([id, name, purpose]) => ({ id, name, purpose }));

export function findStation(id: string): Station | undefined {
  return STATIONS.find((s) => s.id === id);
}
