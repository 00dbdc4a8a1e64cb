"use client";
/** Bring-up of an amp that has no circuit here: the stages in general words, the instrument, what is noted. */

import { words } from "@/core/language/language";
import { Findings } from "../findings";
import { NoCircuit } from "../no-circuit";
import { MainsInstrument } from "./mains-instrument";

export function WithoutCircuit() {
  return (
    <div className="max-w-4xl space-y-4">
      <p className="text-2xl font-bold">{words("Never switch straight to full mains after work or long storage.")}</p>
      <p>
        {words(
          "No tubes first, then the rectifier alone, bias proven at each output socket, the load connected, small tubes, output tubes last. A variable transformer shows little of a tube rectifier until its heater is near full voltage; in a line-connected set no tube is pulled and an isolation transformer comes first.",
        )}
      </p>
      <NoCircuit what="What each stage should show needs a circuit." />
      <MainsInstrument />
      <Findings station="bring-up" />
    </div>
  );
}
