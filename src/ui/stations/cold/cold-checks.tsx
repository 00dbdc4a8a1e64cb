"use client";
/** Cold checks: resistances in circuit, controls, tubes, leakage, heaters; each against what the circuit makes of it. */

import { words } from "@/core/language/language";
import { late } from "../../forms/late";
import { useMemo } from "react";
import { Tabs } from "../../forms/tabs";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { Findings } from "../findings";
import { NoCircuit } from "../no-circuit";
import { Resistances } from "./resistances";

// Each comes when its tab is opened.
const Heaters = late(() => import("./heaters").then((m) => m.Heaters));
const Leakage = late(() => import("./leakage").then((m) => m.Leakage));
const Pots = late(() => import("./pots").then((m) => m.Pots));
const TubeTests = late(() => import("./tube-tests").then((m) => m.TubeTests));

export function ColdChecks() {
  const { view, netlist } = useJob();
  const tabs = useMemo(
    () => [
      { id: "ohms", name: "Resistances", body: <ResistanceList /> },
      { id: "pots", name: "Controls", body: <Pots />, keep: true },
      { id: "tubes", name: words("Tubes"), body: <TubeTests />, keep: true },
      { id: "leaks", name: "Leakage", body: <Leakage />, keep: true },
      { id: "heaters", name: "Heaters", body: <Heaters /> },
    ],
    [],
  );
  if (!view.circuit || netlist === undefined)
    return (
      <>
        <NoCircuit what="Expected resistances need a circuit." />
        <div className="mt-4">
          <TubeTests />
          <Findings station="cold-checks" />
        </div>
      </>
    );
  return (
    <div className="space-y-4">
      <Tabs tabs={tabs} label="Cold checks" />
      <Findings station="cold-checks" />
    </div>
  );
}

function ResistanceList() {
  const { netlist, solver } = useJob();
  const { answer, progress, failed } = useAnswer(solver && netlist, (told) => solver!.cold(netlist!, told));
  if (failed) return <p role="alert">The expected resistances could not be computed: {failed}</p>;
  if (!answer)
    return (
      <p role="status">
        Working out what the ohmmeter should show, everything in parallel
        <progress className="progress mt-2 block w-72" value={progress ?? 0} max={1} aria-label="Solving the resistances" />
      </p>
    );
  return <Resistances checks={answer} />;
}
