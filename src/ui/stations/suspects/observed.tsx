/** What was seen, heard or felt, as evidence by one press. */

import { useState } from "react";
import { envelopeOf } from "@/core/circuit/circuit";
import { OBSERVATIONS } from "@/core/diagnosis/observation-names";
import { words } from "@/core/language/language";
import { useJob } from "../../job/job-context";

export function Observed() {
  const { view, say, conditions } = useJob();
  const tubes = [...new Set(view.circuit!.elements.filter((e) => e.tube).map((e) => envelopeOf(e.name)))];
  const [tube, setTube] = useState(tubes[0] ?? "");
  const seen = new Set(view.state.observations.map((o) => o.name));
  return (
    <section aria-label="Seen, heard, felt">
      <h2 className="font-bold">
        Seen, heard, felt <span className="soft text-sm font-normal">each counts as evidence; or type: saw V4 cold</span>
      </h2>
      <div className="mt-1 flex flex-wrap items-center gap-1">
        <select className="select select-sm min-h-9 w-24" value={tube} onChange={(e) => setTube(e.target.value)} aria-label={words("Tube")}>
          {tubes.map((t) => (
            <option key={t}>{t}</option>
          ))}
        </select>
        {OBSERVATIONS.map((o) => {
          const name = o.about === "tube" ? `${tube} ${o.name}` : o.name;
          return (
            <button
              key={o.name}
              className="btn btn-sm min-h-9"
              title={o.says}
              disabled={seen.has(name)}
              onClick={() => say({ type: "observation", payload: { name, conditions } })}
            >
              {seen.has(name) ? `● ${name}` : name}
            </button>
          );
        })}
      </div>
    </section>
  );
}
