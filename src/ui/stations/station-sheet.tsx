"use client";
/** The sheet of a station, by its id. */

import dynamic from "next/dynamic";
import type { ReactNode } from "react";
import type { StationId } from "@/core/job/stations";
import { Gate } from "../frame/gate";
import { Intake } from "./intake";
import { OutputStage } from "./output-stage";
import { Prove } from "./prove";
import { ReturnStation } from "./return";
import { Suspects } from "./suspects";
import { Walk } from "./walk";
import { Work } from "./work";

// The stations with the most figures come when they are opened, so that no page carries them all.
const MakeSafe = dynamic(() => import("./make-safe/make-safe").then((m) => m.MakeSafe));
const Look = dynamic(() => import("./look/look").then((m) => m.Look));
const ColdChecks = dynamic(() => import("./cold/cold-checks").then((m) => m.ColdChecks));
const BringUp = dynamic(() => import("./bring-up/bring-up").then((m) => m.BringUp));

const Noise = dynamic(() => import("./noise/noise").then((m) => m.Noise));
const Signal = dynamic(() => import("./signal/signal").then((m) => m.Signal));

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
