"use client";
/** The adjuster of the simulated amp: a hand that turns it from the screen. A real one is turned with a screwdriver and logged. */

import { useState } from "react";
import { adjusterTurned } from "@/core/output/bias-taken";
import { useJob } from "../../../job/job-context";
import { useInstruments } from "../../../job/use-instruments";
import { percent, useStage } from "../use-stage";

export function TurnHere({ control, from, target }: { control: string; from: number; target: number }) {
  const { instruments, energyKind, say } = useJob();
  const { stage } = useStage();
  const { send, heard } = useInstruments();
  const [at, setAt] = useState(from);
  const simulated = instruments && heard === "heard" && energyKind === "live";
  const turn = (to: number) => {
    setAt(to);
    void send({ tell: "set", turn: control, pos: to });
  };
  const log = () => say(adjusterTurned(stage.name, control, at, target));
  return (
    <div className="mb-3 flex flex-wrap items-center gap-3">
      <label className="flex items-center gap-2">
        <span>
          {control} {simulated ? "of the simulated amp" : "was turned to about"}
        </span>
        <input
          type="range"
          className="h-11 accent-primary w-56"
          min={0}
          max={1}
          step={simulated ? 0.005 : 0.01}
          value={at}
          aria-valuetext={percent(at)}
          onChange={(e) => (simulated ? turn : setAt)(Number(e.target.value))}
        />
        <strong className="w-12 tabular-nums">{percent(at)}</strong>
      </label>
      <button className="btn btn-sm min-h-11" disabled={Math.abs(at - from) < 0.004} onClick={log}>
        Log that it stands there
      </button>
    </div>
  );
}
