"use client";
/** What may replace a part and why not, checked before it is soldered: by kind of part. */

import { words } from "@/core/language/language";
import { useState } from "react";
import { fileName, findElement, type Element } from "@/core/circuit/circuit";
import { isRectifier } from "@/core/circuit/special-parts";
import { partWords } from "@/core/circuit/part-place";
import { partsNamed } from "../../drawing/parts-named";
import { Field, Section } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { SubstituteCapacitor } from "./substitute-capacitor";
import { SubstituteControl, SubstituteOutputTransformer, SubstituteTube } from "./substitute-others";
import { SubstitutePowerTransformer } from "./substitute-power";
import { SubstituteRectifier } from "./substitute-rectifier";
import { SubstituteChoke, SubstituteResistor } from "./substitute-resistor";
import { useDrawnCapacitors } from "./use-capacitors";

const canBe = (e: Element) =>
  e.letter === "C" ||
  (e.letter === "R" && e.notes.label !== "Speaker") ||
  isRectifier(e.type) ||
  e.type === "POT" ||
  e.tube !== undefined ||
  /^OPT_/.test(e.type ?? "");

export function Substitute() {
  const { circuit } = useDrawnCapacitors();
  const { inHand, setInHand } = useJob();
  const parts = circuit.elements.filter(canBe);
  const [typed, setTyped] = useState(parts[0]?.name ?? "");
  // What is pointed at on the drawing or in a list is what is asked about.
  const pointed = inHand && "part" in inHand ? parts.find((e) => fileName(e) === inHand.part) : undefined;
  const part = pointed ?? findElement(circuit, typed);
  if (!part) return <p>The circuit has no part that could be replaced.</p>;
  const choose = (name: string) => {
    setTyped(name);
    const [own] = partsNamed(circuit, name);
    setInHand(own === undefined ? undefined : { part: own });
  };
  return (
    <div className="space-y-4">
      <Section title="What may replace it" hint={words("held against what it bears with the mains up a tenth, tubes in and out")}>
        <Field label="Position">
          <select className="select w-80" value={part.name} onChange={(e) => choose(e.target.value)}>
            {parts.map((e) => (
              <option key={e.name} value={e.name}>
                {partWords(e)}
              </option>
            ))}
          </select>
        </Field>
      </Section>
      <Kind part={part} key={part.name} />
    </div>
  );
}

function Kind({ part }: { part: Element }) {
  if (part.letter === "C") return <SubstituteCapacitor part={part} />;
  if (part.letter === "R")
    return (
      <>
        <SubstituteResistor part={part} />
        <SubstituteChoke part={part} />
      </>
    );
  if (isRectifier(part.type))
    return (
      <>
        <SubstituteRectifier part={part} />
        <SubstitutePowerTransformer part={part} />
      </>
    );
  if (part.type === "POT") return <SubstituteControl part={part} />;
  if (part.tube) return <SubstituteTube part={part} tube={part.tube} />;
  if (/^OPT_/.test(part.type ?? "")) return <SubstituteOutputTransformer part={part} />;
  return <p>{words("Nothing is known of what may replace this part.")}</p>;
}
