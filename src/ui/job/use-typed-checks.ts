"use client";
/** A capacitor or resistor that is typed, in the ledger or at the entry line, checked in its place before it is soldered. */

import { toldChecks, worstOf, type PartCheck } from "@/core/capacitor/check";
import { knownCapacitors } from "@/core/capacitor/known";
import { checkTypedPart, readTypedPart, typedSet } from "@/core/capacitor/typed-part";
import { findElement } from "@/core/circuit/circuit";
import { wallVolts } from "@/core/circuit/mains-connection";
import * as texts from "@/core/texts/capacitor";
import { useJob } from "./job-context";
import { answerTo, useAnswer } from "./use-answer";

export interface TypedChecks {
  checks?: PartCheck[];
  /** Why a capacitor or resistor of the circuit could not be checked. */
  why?: string;
  /** For the tape. */
  told: string[];
  /** The part in the engine's words; empty where it cannot be read. */
  set: string[];
  /** It may not stand there. */
  out: boolean;
  /** What it has to bear is being worked out. */
  pending: boolean;
}

const NONE: TypedChecks = { told: [], set: [], out: false, pending: false };

/**
 * Nothing of a part that the circuit has not.
 * @param position name of the part; empty while none is typed. @param text the new one, as it is written down.
 */
export function useTypedChecks(position: string, text: string): TypedChecks {
  const { settings, capacitors, view, netlist, badNames } = useJob();
  const e = view.circuit && position ? findElement(view.circuit, position) : undefined;
  const letter = e?.letter === "C" || e?.letter === "R" ? e.letter : undefined;
  const mains = view.circuit && (view.state.mainsVolts ?? wallVolts(view.circuit, settings.mainsVolts));
  const solvable = letter && capacitors && netlist !== undefined && mains !== undefined;
  const key = solvable ? JSON.stringify([letter, netlist, mains]) : undefined;
  const stresses = useAnswer(letter === "C" ? key : undefined, () => capacitors!.stresses(netlist!, mains!));
  const borne = useAnswer(letter === "R" ? key : undefined, () => capacitors!.born(netlist!, mains!));
  if (!e || !letter || text.trim() === "") return NONE;
  const read = readTypedPart(letter, text, settings.decimal);
  if (!read.ok) return { ...NONE, why: read.why, told: [texts.notChecked(read.why)] };
  const year = new Date().getFullYear();
  const set = typedSet(e.name, read.part, year);
  const known = letter === "C" ? knownCapacitors(view.circuit!, view.state, badNames ?? []).find((k) => k.name === e.name) : undefined;
  const stress = answerTo(stresses, key)?.find((s) => s.part === e.name);
  const born = answerTo(borne, key)?.find((b) => b.part === e.name);
  const checks = checkTypedPart(view.circuit!, e, read.part, {
    ...(known ? { known, ...(stress ? { stress } : {}) } : {}),
    ...(born ? { born } : {}),
  });
  const failed = stresses.failed || borne.failed;
  const pending = key !== undefined && !failed && (letter === "C" ? stresses : borne).key !== key;
  if (!checks) {
    const why = failed || texts.notSolved();
    return { ...NONE, set, why, told: [texts.notChecked(why).slice(0, 300)], pending };
  }
  return { checks, told: toldChecks(checks), set, out: worstOf(checks) === "out", pending: false };
}
