"use client";
/** The drawing of the circuit in use in a station of a job, with that station's layer; one state with the station's lists. */

import { useMemo, useState, type ReactNode } from "react";
import { tellEvent } from "@/core/tape/tell";
import type { Solution } from "@/core/expectation/solution";
import { useJob, type InHand } from "../job/job-context";
import { useConditions } from "../job/use-conditions";
import { answerTo, useAnswer } from "../job/use-answer";
import { Drawn } from "./drawn";
import { DrawingSheet } from "./drawing-sheet";
import type { Layer } from "./layer";
import { ownPoint } from "./own-point";
import { partsNamed } from "./parts-named";
import { seenOf } from "./seen-of";
import { useDrawing } from "./use-drawing";

/** Lines of the tape that are shown of one part. */
const MOST_SEEN = 6;

interface StationDrawingProps {
  /** What the station lays on it, given the solved circuit once it is there. */
  layer: Layer | ((solution: Solution | undefined) => Layer);
  /** Told what was clicked, or taken by Enter, on the drawing itself. */
  picked?(at: InHand): void;
  /** Shown with what is known of the thing in hand while the drawing is large, and the station itself is out of sight. */
  beside?: ReactNode;
}

export function StationDrawing({ layer: given, picked, beside }: StationDrawingProps) {
  const { view, netlist, drawings, settings, solver, inHand, setInHand, say } = useJob();
  const [shown, setShown] = useState(true);
  const circuit = view.circuit!;
  const drawn = useDrawing(drawings, shown ? netlist : undefined);
  const conditions = useConditions();
  const question = solver && drawings && netlist && shown ? `${netlist}\n${JSON.stringify(conditions)}` : undefined;
  const solution = answerTo(
    useAnswer(question, () => solver!.solve(netlist!, conditions)),
    question,
  );
  const seen = useMemo(() => (inHand ? seenOf(view.state, circuit, inHand) : []), [view.state, circuit, inHand]);
  // Tubes that are out are so on every station's sheet.
  const layer = useMemo((): Layer => {
    const laid = typeof given === "function" ? given(solution) : given;
    const parts = { ...laid.parts };
    for (const tube of view.state.power?.without ?? [])
      for (const part of partsNamed(circuit, tube)) parts[part] = { text: "out", look: "out" };
    return { ...laid, parts };
  }, [given, circuit, view.state.power, solution]);

  const node = inHand && "node" in inHand ? inHand.node : undefined;
  const canBePoint =
    node !== undefined &&
    node !== "0" &&
    circuit.elements.some((e) => e.nodes.includes(node)) &&
    !circuit.points.some((p) => p.node === node);
  const action = canBePoint && (
    <button className="btn btn-outline" onClick={() => say({ type: "point", payload: ownPoint(circuit, node) })}>
      Make it a test point of this job
    </button>
  );
  const history = seen.length > 0 && (
    <section aria-label="In this job">
      <p className="soft">In this job</p>
      <ul>
        {seen.slice(0, MOST_SEEN).map((l) => (
          <li key={l.event.seq}>
            <span className="soft">{l.event.seq}</span> {tellEvent(l.event)}
          </li>
        ))}
      </ul>
      {seen.length > MOST_SEEN && <p className="soft">and {seen.length - MOST_SEEN} more on the tape</p>}
    </section>
  );

  return (
    <section aria-label="Drawing">
      <details open={shown} onToggle={(e) => setShown(e.currentTarget.open)}>
        <summary className="mb-2 min-h-9 cursor-pointer font-bold">Drawing</summary>
        {shown && (
          <Drawn
            drawing={answerTo(drawn, netlist)}
            failed={drawings ? drawn.failed : "this page has no drawing"}
            circuit={circuit}
            layer={layer}
            solution={solution}
            inHand={inHand}
            setInHand={setInHand}
          >
            {(drawing, large, setLarge) => (
              <DrawingSheet
                drawing={drawing}
                circuit={circuit}
                school={settings.symbols}
                layer={layer}
                solution={solution}
                inHand={inHand}
                setInHand={setInHand}
                large={large}
                setLarge={setLarge}
                picked={picked}
                history={history}
                action={
                  (large && beside) || action ? (
                    <>
                      {large && beside}
                      {action}
                    </>
                  ) : undefined
                }
              />
            )}
          </Drawn>
        )}
      </details>
    </section>
  );
}
