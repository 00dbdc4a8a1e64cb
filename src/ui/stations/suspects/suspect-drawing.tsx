"use client";
/** The suspects on the drawing: each part with its probability, and what the chosen one makes of every point beside what was read. */

import { useMemo } from "react";
import { alter } from "@/core/circuit/alter";
import { writeCircuit } from "@/core/circuit/write";
import { solveConditions } from "@/core/expectation/modelled";
import type { SuspectsAnswer } from "@/core/ports/solver-port";
import { faultsOf } from "@/core/suspects/faults";
import type { Suspect } from "@/core/suspects/rank";
import { StationDrawing } from "../../drawing/station-drawing";
import { suspectLayer } from "../../drawing/layers";
import { partsNamed } from "../../drawing/parts-named";
import { useJob, type InHand } from "../../frame/job-context";
import { useAnswer } from "../../frame/use-answer";

interface SuspectDrawingProps {
  answer: SuspectsAnswer;
  picked?: Suspect;
  choose(fault: string): void;
}

export function SuspectDrawing({ answer, picked, choose }: SuspectDrawingProps) {
  const { view, solver, drawings, settings } = useJob();
  const circuit = view.circuit!;
  // What the fault would show everywhere, and not only where it was measured: its circuit, solved.
  const faulty = useMemo(() => {
    const fault = picked && faultsOf(circuit).find((f) => f.name === picked.fault);
    if (!fault) return undefined;
    const severity = picked.fitted ?? fault.grid[Math.floor(fault.grid.length / 2)]!;
    return writeCircuit(alter(circuit, fault.changes(severity)));
  }, [circuit, picked]);
  const conditions = useMemo(
    () => solveConditions(circuit, { mains: view.state.mainsVolts ?? settings.mainsVolts, without: view.state.power?.without }),
    [circuit, view.state.mainsVolts, view.state.power, settings.mainsVolts],
  );
  const shows = useAnswer(drawings && faulty && solver && `${faulty}\n${JSON.stringify(conditions)}`, () =>
    solver!.solve(faulty!, conditions),
  );
  const next = answer.next.find((n) => n.kind === "dcv")?.point;
  const layer = useMemo(
    () =>
      suspectLayer(
        circuit,
        view.rows,
        answer.suspects.filter((s) => s.probability >= 0.01).slice(0, 8),
        picked && { refs: picked.refs, predicted: shows.answer?.points ?? {} },
        circuit.points.find((p) => p.name === next)?.node,
      ),
    [circuit, view.rows, answer, picked, shows.answer, next],
  );
  const taken = (at: InHand) => {
    if (!("part" in at)) return;
    const suspect = answer.suspects.find((s) => s.refs.some((ref) => partsNamed(circuit, ref).includes(at.part)));
    if (suspect) choose(suspect.fault);
  };
  return <StationDrawing layer={layer} picked={taken} />;
}
