"use client";
/** Probe mode: standing, one hand on the probe, the amp live. From the live check to the question whether it is off, by one key. */

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { useJob } from "../job/job-context";
import { OtherCircuit } from "../frame/lost";
import { NotLogged } from "../frame/not-logged";
import { Others } from "../frame/others";
import { useSound } from "./sound";
import { BiasProbe } from "./bias-probe";
import { ColdProbe } from "./cold-probe";
import { Asking } from "./asking";
import { Leaving } from "./leaving";
import { Probing } from "./probing";
import { SafeProbe } from "./safe-probe";
import { Summary } from "./summary";
import { startProbeWalk, type ProbeWalk } from "@/core/walk/probe-walk";
import type { ProbingOrder } from "@/core/walk/probe-order";

export type Phase = "asking" | "probing" | "summary" | "leaving";

export interface ProbeModeProps {
  /** "safe" for the steps of the proof, "cold" for the resistances of the dead amp, "bias:T1" for the idle of an output stage, else the order of the live walk. */
  order: ProbingOrder | "cold" | "safe" | `bias:${string}`;
}

export function ProbeMode({ order }: ProbeModeProps) {
  if (order === "safe")
    return (
      <Screen>
        <SafeProbe />
      </Screen>
    );
  if (order === "cold")
    return (
      <Screen>
        <ColdProbe />
      </Screen>
    );
  if (order.startsWith("bias:"))
    return (
      <Screen>
        <BiasProbe stageName={order.slice(5)} />
      </Screen>
    );
  return <LiveProbe order={order as ProbingOrder} />;
}

function LiveProbe({ order: first }: { order: ProbingOrder }) {
  const { view, energyKind, jobId } = useJob();
  const router = useRouter();
  const sound = useSound();
  // Asked once for each power-on: who comes back finds the walk as it was.
  const [phase, setPhase] = useState<Phase>(energyKind === "live" && view.state.liveChecked ? "probing" : "asking");
  const [order, setOrder] = useState(first);
  const [walk, setWalk] = useState<ProbeWalk>(() => startProbeWalk([]));
  const [stop, setStop] = useState("");
  const out = () => router.push(`/jobs/${jobId}/${order === "suspects" ? "suspects" : "walk"}`);

  if (!view.circuit || view.rows.length === 0)
    return (
      <Screen>
        <p className="m-auto max-w-3xl text-center text-4xl">
          Probe mode wants a circuit with test points. Give the job one at{" "}
          <a href={`/jobs/${jobId}/intake`} className="underline">
            Intake
          </a>
          .
        </p>
      </Screen>
    );
  return (
    <Screen>
      {phase === "asking" && <Asking order={order} setOrder={setOrder} done={() => setPhase("probing")} out={out} />}
      {phase === "probing" && (
        <Probing
          order={order}
          sound={sound}
          resume={walk}
          leave={(w) => {
            setWalk(w);
            setPhase("leaving");
          }}
          ended={(w, why) => {
            setWalk(w);
            setStop(why);
            setPhase(why ? "leaving" : "summary");
          }}
        />
      )}
      {phase === "summary" && <Summary order={order} walk={walk} done={() => setPhase("leaving")} again={() => setPhase("probing")} />}
      {phase === "leaving" && <Leaving why={stop} out={out} back={stop ? undefined : () => setPhase("probing")} />}
    </Screen>
  );
}

function Screen({ children }: { children: React.ReactNode }) {
  // Says that the page answers to keys by now: for scripts that drive it.
  const [ready, setReady] = useState(false);
  useEffect(() => setReady(true), []);
  return (
    <main
      data-ready={ready || undefined}
      aria-label="Probe mode"
      className="probe fixed inset-0 flex flex-col overflow-x-hidden overflow-y-auto bg-base-100 md:overflow-hidden"
    >
      <Others large />
      <OtherCircuit large />
      <NotLogged large />
      {children}
    </main>
  );
}
