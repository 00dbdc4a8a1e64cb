"use client";
/** The sheet of a station, by its id. */

import type { ReactNode } from "react";
import type { StationId } from "@/core/job/stations";
import { Gate } from "../frame/gate";
import { BringUp } from "./bring-up";
import { ColdChecks } from "./cold-checks";
import { Findings } from "./findings";
import { Intake } from "./intake";
import { Journal } from "./journal";
import { MakeSafe } from "./make-safe";
import { OutputStage } from "./output-stage";
import { Prove } from "./prove";
import { ReturnStation } from "./return";
import { Suspects } from "./suspects";
import { TakeApart } from "./take-apart";
import { Walk } from "./walk";
import { Work } from "./work";

const SHEETS: Record<StationId, ReactNode> = {
  intake: <Intake />,
  "make-safe": <MakeSafe />,
  look: (
    <Gate station="look">
      <div className="max-w-5xl">
        <Findings station="look" />
        <TakeApart />
      </div>
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
  signal: (
    <Journal
      station="signal"
      says="Computed levels at each stage are not in this version. Write down here what the tone showed, stage by stage."
    />
  ),
  noise: (
    <Journal
      station="noise"
      says="Spectra and the isolation plan are not in this version. Write down here how the noise changes with each control, tube and lead."
    />
  ),
  work: <Work />,
  "output-stage": <OutputStage />,
  prove: <Prove />,
  return: <ReturnStation />,
};

export function StationSheet({ station }: { station: StationId }) {
  return SHEETS[station];
}
