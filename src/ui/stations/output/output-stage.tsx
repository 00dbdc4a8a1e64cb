"use client";
/** Output stage: bias, resistors, load, waveform, blocking, tubes and droppers of one stage at a time. */

import { useMemo, useState } from "react";
import { words } from "@/core/language/language";
import type { Circuit } from "@/core/circuit/circuit";
import { stageRead } from "@/core/output/from-tape";
import { outputStages } from "@/core/output/output-stage";
import type { TargetFacts } from "@/core/output/targets";
import { outputLayer } from "../../drawing/layers";
import { Tabs } from "../../forms/tabs";
import { late, lateInBrowser } from "../../forms/late";
import { useJob } from "../../job/job-context";
import { answerTo, useAnswer } from "../../job/use-answer";
import { Findings } from "../findings";
import { NoCircuit } from "../no-circuit";
import { keyOf, StageContext, type StageValue } from "./use-stage";

const StationDrawing = lateInBrowser(() => import("../../drawing/station-drawing").then((m) => m.StationDrawing), "min-h-[31rem]");
const Bias = late(() => import("./bias/bias").then((m) => m.Bias));
const Resistors = late(() => import("./resistors").then((m) => m.Resistors));
const LoadLine = late(() => import("./load-line").then((m) => m.LoadLine));
const Waveform = late(() => import("./waveform").then((m) => m.Waveform));
const Blocking = late(() => import("./blocking").then((m) => m.Blocking));
const StockTubes = late(() => import("./stock-tubes").then((m) => m.StockTubes));
const Droppers = late(() => import("./droppers").then((m) => m.Droppers));
const Typed = late(() => import("./typed").then((m) => m.Typed));

export function OutputStage() {
  const { view, netlist } = useJob();
  const circuit = view.circuit;
  const stages = useMemo(() => (circuit ? outputStages(circuit) : []), [circuit]);
  if (!circuit || netlist === undefined || stages.length === 0)
    return (
      <div className="max-w-5xl space-y-4">
        <NoCircuit
          what={
            circuit
              ? words("This circuit has no output transformer with tubes on it.")
              : "Without a circuit the arithmetic works from typed figures."
          }
        />
        <Typed />
        <StockTubes />
        <Findings station="output-stage" />
      </div>
    );
  return <Stages circuit={circuit} netlist={netlist} stages={stages} />;
}

function Stages({ circuit, netlist, stages }: { circuit: Circuit; netlist: string; stages: ReturnType<typeof outputStages> }) {
  const { view, solver, conditions } = useJob();
  const [name, setName] = useState(stages[0]!.name);
  const stage = stages.find((s) => s.name === name) ?? stages[0]!;
  const mains = circuit.mains ? (conditions.mains ?? circuit.mains.volts) : undefined;
  // Volts that nobody has read yet come from the circuit.
  const key = solver && keyOf("idle", netlist, mains);
  const solved = answerTo(
    useAnswer(key, () => solver!.solve(netlist, { ...(mains === undefined ? {} : { mains }), without: [], set: [] })),
    key,
  );
  const read = useMemo(
    () =>
      stageRead(circuit, stage, view.state, (tube) => {
        const work = solved?.tubes[tube];
        return work ? { plate: work.plateVolts, ...(work.screenVolts === undefined ? {} : { screen: work.screenVolts }) } : {};
      }),
    [circuit, stage, view.state, solved],
  );
  const recorded = view.state.biasFigures.findLast((f) => f.stage === stage.name);
  const [typed, setFacts] = useState<TargetFacts>();
  const milli = (x: number | undefined) => (x === undefined ? undefined : x / 1e3);
  const facts: TargetFacts = typed ?? {
    label: milli(recorded?.labelMilliamps),
    manual: milli(recorded?.manualMilliamps),
    own: milli(recorded?.ownMilliamps),
    brief: view.state.brief?.order[0],
  };
  const value: StageValue = {
    circuit,
    netlist,
    stage,
    mains,
    read,
    ask: { stage: stage.name, ...(mains === undefined ? {} : { mains }), read: read.read, grids: read.grids },
    facts,
    setFacts,
  };
  const layer = useMemo(() => outputLayer(circuit, view.rows), [circuit, view.rows]);
  const tabs = [
    { id: "bias", name: "Bias", body: <Bias />, keep: true },
    { id: "resistor", name: "Cathode resistor", body: <Resistors /> },
    { id: "load", name: "Load line", body: <LoadLine />, keep: true },
    { id: "wave", name: "Waveform", body: <Waveform />, keep: true },
    { id: "blocking", name: "Blocking", body: <Blocking />, keep: true },
    { id: "tubes", name: words("Tubes"), body: <StockTubes />, keep: true },
    { id: "supply", name: "Supply", body: <Droppers />, keep: true },
  ];
  return (
    <StageContext value={value}>
      <div className="max-w-5xl space-y-4">
        {stages.length > 1 && (
          <label className="flex items-center gap-2">
            Output stage
            <select className="select w-64" value={stage.name} onChange={(e) => setName(e.target.value)} aria-label="Output stage">
              {stages.map((s) => (
                <option key={s.name} value={s.name}>
                  {s.name}: {s.tubes.map((t) => t.name).join(", ")}
                </option>
              ))}
            </select>
          </label>
        )}
        {/* Another stage begins anew: what was typed for one is not of the other. */}
        <Tabs key={stage.name} tabs={tabs} label="Output stage" />
        <StationDrawing layer={layer} />
        <Findings station="output-stage" />
      </div>
    </StageContext>
  );
}
