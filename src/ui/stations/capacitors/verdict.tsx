"use client";
/** What every check of a substitute ends with: the verdict, the amp with it, fitting. */

import type { PartCheck } from "@/core/capacitor/check";
import type { Element } from "@/core/circuit/circuit";
import { Section } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { BesideTable, ChecksTable } from "./checks-table";
import { FitPart } from "./fit-part";
import { useDrawnCapacitors } from "./use-capacitors";

export function Verdict({
  part,
  checks,
  set,
  newPart,
  done,
}: {
  part: Element;
  checks: readonly PartCheck[];
  set: string[];
  newPart: string;
  done(): void;
}) {
  const { netlist, mains } = useDrawnCapacitors();
  const { capacitors } = useJob();
  const beside = useAnswer(capacitors && JSON.stringify([netlist, set, mains]), () => capacitors!.beside(netlist, set, mains));
  return (
    <Section title="Before it is soldered">
      <ChecksTable checks={checks} />
      <BesideTable part={part.name} beside={beside.answer} failed={beside.failed} />
      <FitPart fits={[{ part, newPart, set, checks, reason: "" }]} done={done} />
    </Section>
  );
}
