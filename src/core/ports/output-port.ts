/** What screens ask about an output stage, wherever it is computed. No solver code is imported here. */

import type { Balance, BalanceBy } from "../output/adjusters";
import type { AimAnswer, AskedOf, BiasAnswer, BlockingAnswer, ClipAnswer } from "../output/answers";
import type { Remedy } from "../output/remedies";
import type { Mode, ModeFigures, ResistorChoice } from "../output/cathode-resistor";
import type { ChokeOrResistor, DropperAnswer } from "../output/droppers";
import type { Frames } from "../output/idle-frames";
import type { ScreenChoice } from "../output/screen-resistor";
import type { SignalStep, WalkTone } from "../output/signal-walk";
import type { TargetFacts } from "../output/targets";
import type { Unequal } from "../output/unequal";

export interface CathodeAnswer {
  part: string;
  modes: Mode[];
  now: ModeFigures[];
  choices: ResistorChoice[];
  /** How many values were refused because a mode would pass the limit. */
  refused: number;
}

export interface ScreensAnswer {
  parts: string[];
  choices: ScreenChoice[];
  refused: number;
}

type Progress = (part: number) => void;

/** Every call rejects with an Error whose message can be shown. */
export interface OutputPort {
  bias(netlist: string, ask: AskedOf & { facts: TargetFacts }): Promise<BiasAnswer>;
  aim(netlist: string, ask: AskedOf & { adjuster: string; amps: number }): Promise<AimAnswer>;
  balance(netlist: string, ask: AskedOf & { adjuster: string; by: BalanceBy }): Promise<Balance>;
  unequal(netlist: string, ask: AskedOf, progress?: Progress): Promise<Unequal>;
  cathodeResistor(netlist: string, ask: AskedOf & { aim: number; limit: number }, progress?: Progress): Promise<CathodeAnswer>;
  screenResistor(netlist: string, ask: AskedOf & { limit: number }, progress?: Progress): Promise<ScreensAnswer>;
  frames(netlist: string, ask: AskedOf & { low: number; high: number; count: number; watts: number }, progress?: Progress): Promise<Frames>;
  clip(netlist: string, ask: AskedOf, progress?: Progress): Promise<ClipAnswer>;
  blocking(netlist: string, ask: AskedOf & { times?: number }, progress?: Progress): Promise<BlockingAnswer>;
  /** The drive at which the model's grid shifts as far as the one that was read; undefined where none does. */
  drive(
    netlist: string,
    ask: AskedOf & { tube: string; shift: number },
    progress?: Progress,
  ): Promise<{ times: number; shift: number } | undefined>;
  remedies(netlist: string, ask: AskedOf & { peak: number }, progress?: Progress): Promise<Remedy[]>;
  signal(netlist: string, tone: WalkTone, where: { mains?: number; set?: string[]; speaker?: string }): Promise<SignalStep[]>;
  dropper(netlist: string, point: string, window: { low: number; high: number }, mains?: number): Promise<DropperAnswer>;
  choke(netlist: string, point: string, parts: { henries: number; dcr: number; ohms: number; mains?: number }): Promise<ChokeOrResistor[]>;
  /** Gives up what is under way; its promises reject with SolverCancelled. */
  cancel(): void;
}
