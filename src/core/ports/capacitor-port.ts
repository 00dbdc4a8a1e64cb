/** What screens ask about capacitors and substitutes, wherever it is computed. No solver code is imported here. */

import type { Born } from "../capacitor/born";
import type { Beside } from "../capacitor/figures-beside";
import type { CapacitorStress } from "../capacitor/stress";
import type { RectifierAnswer } from "../capacitor/substitute-rectifier";

/** Every call rejects with an Error whose message can be shown. */
export interface CapacitorPort {
  /** Of every capacitor of the circuit, with `set` done to it first. */
  stresses(netlist: string, mains: number, set?: string[]): Promise<CapacitorStress[]>;
  born(netlist: string, mains: number): Promise<Born[]>;
  beside(netlist: string, set: string[], mains: number): Promise<Beside>;
  silicon(netlist: string, part: string, mains: number, offer: { surge?: number; inverse?: number }): Promise<RectifierAnswer>;
  /** Gives up what is under way; its promises reject with SolverCancelled. */
  cancel(): void;
}
