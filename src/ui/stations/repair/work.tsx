"use client";
/** Work: the plan, what was changed, what was tried, what the owner says and what it costs; capacitors, substitutes and the kit. */

import { useMemo } from "react";
import { openRun, reformRuns } from "@/core/capacitor/reform-run";
import type { Circuit } from "@/core/circuit/circuit";
import { Tabs } from "../../forms/tabs";
import { workLayer } from "../../drawing/layers";
import { Gate } from "../../frame/gate";
import { useJob } from "../../job/job-context";
import { late, lateInBrowser } from "../../forms/late";
import { CapacitorsProvider } from "../capacitors/use-capacitors";
import { TakeApart } from "../take-apart";
import { ChangeForm } from "./change-form";
import { Ledger } from "./ledger";
import { TaskToLogProvider } from "./task-to-log";

// Each comes when its tab is opened.
const Plan = late(() => import("./plan").then((m) => m.Plan));
const Cure = late(() => import("./cure").then((m) => m.Cure));
const Approvals = late(() => import("./approvals").then((m) => m.Approvals));
const QuoteTab = late(() => import("./quote").then((m) => m.QuoteTab));
const CapacitorTable = late(() => import("../capacitors/capacitor-table").then((m) => m.CapacitorTable));
const Reforming = late(() => import("../capacitors/reforming").then((m) => m.Reforming));
const Substitute = late(() => import("../capacitors/substitute").then((m) => m.Substitute));
const Kit = late(() => import("../capacitors/kit").then((m) => m.Kit));
const StationDrawing = lateInBrowser(() => import("../../drawing/station-drawing").then((m) => m.StationDrawing), "min-h-9");

const ALWAYS = [
  { id: "changes", name: "Changes", body: <WorkDone />, keep: true },
  { id: "plan", name: "Plan", body: <Plan />, keep: true },
  {
    id: "cure",
    name: "Cure",
    body: (
      <Gate station="work">
        <Cure />
      </Gate>
    ),
  },
  { id: "approvals", name: "Approvals", body: <Approvals />, keep: true },
  { id: "quote", name: "Quote", body: <QuoteTab />, keep: true },
];
const CAPACITORS = [
  { id: "capacitors", name: "Capacitors", body: <CapacitorTable /> },
  { id: "reforming", name: "Reform", body: <Reforming /> },
];
const WITH_CIRCUIT = [
  { id: "substitute", name: "Substitute", body: <Substitute /> },
  { id: "kit", name: "Kit", body: <Kit /> },
];

export function Work() {
  const { view, netlist } = useJob();
  const drawn = view.circuit !== undefined && netlist !== undefined;
  return (
    <CapacitorsProvider {...(drawn ? { circuit: view.circuit, netlist } : {})}>
      <TaskToLogProvider>
        <div className="max-w-6xl">
          <Tabs
            tabs={[...ALWAYS, ...CAPACITORS, ...(drawn ? WITH_CIRCUIT : [])]}
            label="Work"
            first={openRun(reformRuns(view.state)) ? "reforming" : "changes"}
          />
        </div>
      </TaskToLogProvider>
    </CapacitorsProvider>
  );
}

function WorkDone() {
  const { view } = useJob();
  return (
    <div className="max-w-5xl">
      {/* Only what is done inside the chassis waits for the proof. */}
      <Gate station="work">
        <Ledger />
        <ChangeForm />
        <TakeApart />
      </Gate>
      {view.circuit && <WorkDrawing circuit={view.circuit} />}
    </div>
  );
}

/** What is in the amp and not in its model. */
function WorkDrawing({ circuit }: { circuit: Circuit }) {
  const { view, jobId } = useJob();
  const layer = useMemo(() => workLayer(circuit, view.rows, view.state.changes), [circuit, view.rows, view.state]);
  return (
    <div className="mt-4 mb-4">
      <StationDrawing layer={layer} />
      <a className="btn btn-outline mt-2" href={`/library/new?job=${jobId}`}>
        A model of its own from this amp
      </a>
    </div>
  );
}
