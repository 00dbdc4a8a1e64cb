"use client";
/** The ranking of a job's suspects, worked out anew off the main thread whenever its evidence changes. */

import { useEffect, useMemo, useState } from "react";
import type { SuspectsAnswer } from "@/core/ports/solver-port";
import { historyOf, type PartHistory } from "@/core/suspects/history";
import { evidenceOf, rounded, type JobEvidence } from "@/core/suspects/job-evidence";
import { solveConditions } from "@/core/expectation/modelled";
import { wallVolts } from "@/core/circuit/mains-connection";
import { useJob } from "./job-context";

export interface SuspectsState {
  job: JobEvidence;
  history: PartHistory;
  answer?: SuspectsAnswer;
  /** Part of the fault table that is solved; undefined when nothing is under way. */
  progress?: number;
  failed: string;
}

/** @param off true where nothing is to be worked out for now. Wants a job with a circuit. */
export function useSuspects(off = false): SuspectsState {
  const { view, netlist, solver, conditions, settings, shopHistory, badNames } = useJob();
  const { circuit, state } = view;
  const job = useMemo(() => evidenceOf(state, circuit!), [state, circuit]);
  // What is to be measured next is judged at the mains as it stands, all tubes in.
  const now = useMemo(
    () =>
      rounded(
        solveConditions(circuit!, { mains: conditions.mains ?? wallVolts(circuit, settings.mainsVolts), without: conditions.without }),
      ),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the clock in conditions must not start a solve each minute
    [circuit, conditions.mains, conditions.without?.join(), settings.mainsVolts],
  );
  const history = useMemo(() => historyOf(state, circuit!, shopHistory, badNames), [state, circuit, shopHistory, badNames]);
  const key = JSON.stringify([job.evidence, now, history, job.mains]);
  const [answer, setAnswer] = useState<SuspectsAnswer>();
  const [progress, setProgress] = useState<number>();
  const [failed, setFailed] = useState("");
  useEffect(() => {
    if (off || !solver || netlist === undefined) return;
    let gone = false;
    setFailed("");
    setProgress(0);
    solver
      .suspects(netlist, job.evidence, now, history, job.mains, (part) => !gone && setProgress(part))
      .then(
        (a) => {
          if (gone) return;
          setAnswer(a);
          setProgress(undefined);
        },
        (e: Error) => {
          if (gone) return;
          setFailed(e.message);
          setProgress(undefined);
        },
      );
    return () => {
      gone = true;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- by content: the same evidence is not ranked twice
  }, [key, netlist, solver, off]);
  return { job, history, answer, progress, failed };
}
