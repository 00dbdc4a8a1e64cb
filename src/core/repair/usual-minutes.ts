/** How long a task usually takes, where nobody has said: by what the shop needed before, else by Scutum's own figures. */

import type { Planned } from "../tape/events/plan-events";

/** Minutes that the shop's jobs took, by kind of task. */
export interface TimeTaken {
  /** Median, whole minutes. */
  minutes: number;
  /** Tasks that it is made from. */
  count: number;
}

/** From so many on the shop's own times count. */
const ENOUGH = 3;

/** Scutum's own, for the work alone: taking apart and proving dead are tasks of their own. */
const USUAL = {
  "can capacitor": 60,
  capacitor: 20,
  resistor: 15,
  tube: 5,
  control: 40,
  jack: 25,
  socket: 60,
  transformer: 120,
  "mains cord": 40,
  cleaning: 15,
  bias: 25,
  "safety tests": 30,
  measuring: 15,
  "other work": 30,
} as const;

export type TaskKind = keyof typeof USUAL;

/** The kind of a task by its words and its position. */
export function taskKind({ position, what, phase, from }: Pick<Planned, "position" | "what" | "phase" | "from">): TaskKind {
  const text = `${position} ${what}`.toLowerCase();
  if (phase === "final tests") return "safety tests";
  if (from === "bias" || /\bbias\b/.test(text)) return "bias";
  if (/\bclean/.test(text)) return "cleaning";
  if (/\bcord\b/.test(text)) return "mains cord";
  if (/transformer|\bchoke\b/.test(text)) return "transformer";
  if (/socket/.test(text)) return "socket";
  if (/\bcan\b/.test(text)) return "can capacitor";
  if (/\bjack\b/.test(text)) return "jack";
  if (/potentiometer|\bpot\b|control/.test(text) || /^vr\d/i.test(position)) return "control";
  if (/^c\d/i.test(position)) return "capacitor";
  if (/^r\d/i.test(position)) return "resistor";
  if (/^(x?v)\d/i.test(position)) return "tube";
  if (phase === "power on") return "measuring";
  return "other work";
}

export function usualMinutes(task: Parameters<typeof taskKind>[0], shop: Partial<Record<TaskKind, TimeTaken>> = {}): number {
  const kind = taskKind(task);
  const own = shop[kind];
  return own && own.count >= ENOUGH ? own.minutes : USUAL[kind];
}
