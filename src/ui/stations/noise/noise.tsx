"use client";
/** Noise: what it sounds like, where it enters, what it depends on, the grounds, and what comes and goes. */

import { late } from "../../forms/late";
import { useMemo } from "react";
import { Tabs } from "../../forms/tabs";
import { useJob } from "../../job/job-context";
import { Findings } from "../findings";
import { Sound } from "./sound";

// Each comes when its tab is opened.
const Enters = late(() => import("./enters").then((m) => m.Enters));
const Matrix = late(() => import("./matrix").then((m) => m.Matrix));
const Grounds = late(() => import("./grounds").then((m) => m.Grounds));
const ComesAndGoes = late(() => import("./comes-and-goes").then((m) => m.ComesAndGoes));

export function Noise() {
  const { view } = useJob();
  const running = view.state.soaks.some((s) => !s.ended);
  const tabs = useMemo(
    () => [
      { id: "sound", name: "Sound", body: <Sound />, keep: true },
      { id: "enters", name: "Where it enters", body: <Enters /> },
      { id: "conditions", name: "Conditions", body: <Matrix />, keep: true },
      { id: "grounds", name: "Grounds", body: <Grounds />, keep: true },
      { id: "fitful", name: "Comes and goes", mark: running ? "○" : undefined, body: <ComesAndGoes />, keep: true },
    ],
    [running],
  );
  return (
    <div className="space-y-4">
      <Tabs tabs={tabs} label="Noise" first={running ? "fitful" : undefined} />
      <Findings station="noise" />
    </div>
  );
}
