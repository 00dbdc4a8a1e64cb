"use client";
/** The sheet of a station, by its id. */

import dynamic from "next/dynamic";
import type { ReactNode } from "react";
import type { StationId } from "@/core/tape/stations";
import { Gate } from "../frame/gate";

// Each comes when it is opened, so that no page carries them all.
const Intake = dynamic(() => import("./intake").then((m) => m.Intake));
const MakeSafe = dynamic(() => import("./make-safe/make-safe").then((m) => m.MakeSafe));
const Look = dynamic(() => import("./look/look").then((m) => m.Look));
const ColdChecks = dynamic(() => import("./cold/cold-checks").then((m) => m.ColdChecks));
const BringUp = dynamic(() => import("./bring-up/bring-up").then((m) => m.BringUp));
const Walk = dynamic(() => import("./walk").then((m) => m.Walk));
const Suspects = dynamic(() => import("./suspects/suspects").then((m) => m.Suspects));
const Signal = dynamic(() => import("./signal/signal").then((m) => m.Signal));
const Noise = dynamic(() => import("./noise/noise").then((m) => m.Noise));
const Work = dynamic(() => import("./repair/work").then((m) => m.Work));
const OutputStage = dynamic(() => import("./output/output-stage").then((m) => m.OutputStage));
const Prove = dynamic(() => import("./prove").then((m) => m.Prove));
const ReturnStation = dynamic(() => import("./return/return").then((m) => m.ReturnStation));

const SHEETS: Record<StationId, ReactNode> = {
  intake: <Intake />,
  "make-safe": <MakeSafe />,
  look: (
    <Gate station="look">
      <Look />
    </Gate>
  ),
  "cold-checks": (
    <Gate station="cold-checks">
      <ColdChecks />
    </Gate>
  ),
  "bring-up": <BringUp />,
  walk: <Walk />,
  suspects: <Suspects />,
  signal: <Signal />,
  noise: <Noise />,
  work: <Work />,
  "output-stage": <OutputStage />,
  prove: <Prove />,
  return: <ReturnStation />,
};

export function StationSheet({ station }: { station: StationId }) {
  return SHEETS[station];
}
