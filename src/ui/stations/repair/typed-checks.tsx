"use client";
/** A part that is typed into the ledger is checked in its place before it is soldered: what it does not fulfil stands beside it. */

import { toldChecks, worstOf, type PartCheck } from "@/core/capacitor/check";
import { checkTypedPart, readTypedPart, typedSet } from "@/core/capacitor/typed-part";
import { findElement } from "@/core/circuit/circuit";
import * as texts from "@/core/texts/capacitor";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { CheckMark } from "../capacitors/checks-table";
import { useCapacitorsIfAny } from "../capacitors/use-capacitors";

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
}

const NONE: TypedChecks = { told: [], set: [], out: false };

/** Of a capacitor or a resistor that the circuit has; nothing of anything else. */
export function useTypedChecks(position: string, text: string): TypedChecks {
  const { settings, capacitors, view } = useJob();
  const amp = useCapacitorsIfAny();
  const e = view.circuit && position ? findElement(view.circuit, position) : undefined;
  const letter = e?.letter === "C" || e?.letter === "R" ? e.letter : undefined;
  const asked = letter === "R" && text.trim() !== "" && amp && capacitors;
  const { answer } = useAnswer(asked ? JSON.stringify(["born", amp.netlist, amp.mains]) : undefined, () =>
    capacitors!.born(amp!.netlist, amp!.mains),
  );
  if (!e || !letter || text.trim() === "") return NONE;
  const read = readTypedPart(letter, text, settings.decimal);
  if (!read.ok) return { ...NONE, why: read.why, told: [texts.notChecked(read.why)] };
  const set = typedSet(e.name, read.part, amp?.year ?? new Date().getFullYear());
  const known = amp?.rows.find((r) => r.c.name === e.name);
  const born = answer?.find((b) => b.part === e.name);
  const checks = checkTypedPart(view.circuit!, e, read.part, {
    ...(known ? { known: known.c, stress: known.stress } : {}),
    ...(born ? { born } : {}),
  });
  if (!checks) return { ...NONE, set, why: texts.notSolved(), told: [texts.notChecked(texts.notSolved())] };
  return { checks, told: toldChecks(checks), set, out: worstOf(checks) === "out" };
}

export function TypedChecksNote({ checks: { checks, why, out } }: { checks: TypedChecks }) {
  if (why) return <p className="soft col-span-full text-sm">○ {why}</p>;
  if (!checks) return null;
  const open = checks.filter((c) => c.verdict !== "in");
  return (
    <div className="col-span-full text-sm" role="status" aria-label="Check of the new part">
      <p>
        <CheckMark verdict={worstOf(checks)} />{" "}
        {out
          ? "It may not stand there"
          : `checked: ${checks
              .filter((c) => c.verdict === "in")
              .map((c) => c.what)
              .join(", ")}`}
      </p>
      <ul>
        {open.map((c) => (
          <li key={c.what} className={c.verdict === "out" ? "text-error" : ""}>
            {c.what}: {c.has || "not known"}, wanted {c.needs}
            {c.why && ` – ${c.why}`}
          </li>
        ))}
      </ul>
    </div>
  );
}
