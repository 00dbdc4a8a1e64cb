"use client";
/** The suspects on the drawing: each part with its probability, and what the chosen one makes of every point beside what was read. */

import { useMemo } from "react";
import type { SuspectsAnswer } from "@/core/ports/solver-port";
import { changesOf } from "@/core/suspects/changes-of";
import type { Suspect } from "@/core/suspects/rank";
import { StationDrawing } from "../../drawing/station-drawing";
import { suspectLayer } from "../../drawing/layers";
import { partsNamed } from "../../drawing/parts-named";
import { useJob, type InHand } from "../../job/job-context";
import { useConditions } from "../../job/use-conditions";
import { answerTo, useAnswer } from "../../job/use-answer";

interface SuspectDrawingProps {
  answer: SuspectsAnswer;
  picked?: Suspect;
  choose(fault: string): void;
}

export function SuspectDrawing({ answer, picked, choose }: SuspectDrawingProps) {
  const { view, netlist, solver, drawings } = useJob();
  const circuit = view.circuit!;
  const here = useConditions();
  // What the fault would show everywhere, and not only where it was measured: the amp with it, solved.
  const set = useMemo(() => picked && changesOf(circuit, picked), [circuit, picked]);
  const question = drawings && solver && netlist && set && JSON.stringify([netlist, here, set]);
  const asked = useAnswer(question, () => solver!.solve(netlist!, { ...here, set: [...here.set, ...set!] }));
  const shows = answerTo(asked, question);
  const next = answer.next.find((n) => n.kind === "dcv")?.point;
  const layer = useMemo(
    () =>
      suspectLayer(
        circuit,
        view.rows,
        answer.suspects,
        picked && { refs: picked.refs, predicted: shows?.points ?? {} },
        circuit.points.find((p) => p.name === next)?.node,
      ),
    [circuit, view.rows, answer, picked, shows, next],
  );
  const taken = (at: InHand) => {
    if (!("part" in at)) return;
    const suspect = answer.suspects.find((s) => s.refs.some((ref) => partsNamed(circuit, ref).includes(at.part)));
    if (suspect) choose(suspect.fault);
  };
  return (
    <>
      {asked.failed && picked && (
        <p role="status" className="text-sm">
          ▲ What {picked.fault} would show at the other points could not be solved: {asked.failed}
        </p>
      )}
      <StationDrawing layer={layer} picked={taken} />
    </>
  );
}
