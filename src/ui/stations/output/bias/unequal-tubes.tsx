"use client";
/** What it costs to bias a weak tube apart from the others, in power and distortion. */

import { figure, fixed, words } from "@/core/language/language";
import { useState } from "react";
import { formatQuantity } from "@/core/quantity/format";
import { Section } from "../../../forms/section";
import { useJob } from "../../../job/job-context";
import { useAnswer } from "../../../job/use-answer";
import { keyOf, useStage } from "../use-stage";

export function UnequalTubes() {
  const { output } = useJob();
  const { netlist, ask } = useStage();
  const [wanted, setWanted] = useState(false);
  const key = output && wanted ? keyOf("unequal", netlist, ask) : undefined;
  const { answer, failed, progress } = useAnswer(key, (told) => output!.unequal(netlist, ask, told));
  const part = (x: number) => `${figure(Number((x * 100).toPrecision(2)))} %`;
  return (
    <Section title="Unlike tubes" hint={words("one bias for all, or each tube at the same current")}>
      {!wanted && (
        <button className="btn" onClick={() => setWanted(true)}>
          What does an offset for the weak one cost?
        </button>
      )}
      {failed && <p role="alert">{failed}</p>}
      {wanted && !answer && !failed && (
        <progress className="progress w-72" value={progress ?? 0} max={1} aria-label="Working out both ways" />
      )}
      {answer && (
        <p>
          As they are: {part(answer.together.distortion)} at 1 W, {formatQuantity(answer.together.watts, "W", 2)} at clip. Each at the same
          current ({answer.offsets.map((o) => `${o.tube} ${o.volts >= 0 ? "+" : "−"}${fixed(Math.abs(o.volts), 1)} V`).join(", ")}):{" "}
          {part(answer.apart.distortion)} at 1 W, {formatQuantity(answer.apart.watts, "W", 2)} at clip.{" "}
          {answer.apart.watts < answer.together.watts * 0.97 || answer.apart.distortion > answer.together.distortion * 1.1
            ? words("The offset costs more than it gives: match the tubes instead.")
            : words("The offset costs nothing to speak of; matched tubes would still be better.")}
        </p>
      )}
    </Section>
  );
}
