"use client";
/** A netlist of a general SPICE: which of its subcircuits is which tube. What is answered is kept for the next file of the same origin. */

import { useMemo, useState } from "react";
import { foreignKinds, rewriteForeign, wrongMeaning, type ForeignMeaning, type ForeignPin } from "@/core/circuit/foreign";
import { words } from "@/core/language/language";
import { findTubeType, TUBE_TYPES } from "@/core/tubes/library";

const PLACE = "scutum-foreign-tubes";
const PINS: ForeignPin[] = ["plate", "screen", "grid", "cathode", "unused"];

function kept(): Record<string, ForeignMeaning> {
  try {
    return JSON.parse(localStorage.getItem(PLACE) ?? "{}") as Record<string, ForeignMeaning>;
  } catch {
    // What cannot be read there is asked again.
    return {};
  }
}

export function ForeignTypes({ text, setText }: { text: string; setText(text: string): void }) {
  const [known] = useState(kept);
  const kinds = useMemo(() => foreignKinds(text, known), [text, known]);
  const [answers, setAnswers] = useState<Record<string, ForeignMeaning>>({});
  const [notKept, setNotKept] = useState("");
  if (kinds.length === 0) return null;
  const meaningOf = (name: string): ForeignMeaning =>
    answers[name.toUpperCase()] ??
    kinds.find((k) => k.name === name)!.guess ?? { type: "", pins: kinds.find((k) => k.name === name)!.nodes.map(() => "unused") };
  const wrong = kinds.map((k) => wrongMeaning(meaningOf(k.name)));
  const change = (name: string, meaning: ForeignMeaning) => setAnswers({ ...answers, [name.toUpperCase()]: meaning });
  const use = () => {
    const meanings = Object.fromEntries(kinds.map((k) => [k.name.toUpperCase(), meaningOf(k.name)]));
    try {
      localStorage.setItem(PLACE, JSON.stringify({ ...known, ...meanings }));
    } catch (error) {
      setNotKept((error as Error).message);
    }
    setText(rewriteForeign(text, meanings).text);
  };
  return (
    <section aria-label="Which of these is which tube" className="rounded border border-primary p-3">
      <h2 className="text-lg font-bold">{words("Which of these is which tube?")}</h2>
      <p className="soft mb-2 text-sm">
        A netlist of a general SPICE. Its calls are rewritten; what belongs to a run of the simulation is left out as a comment.
      </p>
      <table className="table table-sm">
        <thead>
          <tr>
            <th>In the file</th>
            <th>Used for</th>
            <th>{words("Tube")}</th>
            <th>Its nodes, in order</th>
          </tr>
        </thead>
        <tbody>
          {kinds.map((k, i) => {
            const meaning = meaningOf(k.name);
            return (
              <tr key={k.name}>
                <td className="font-mono">{k.name}</td>
                <td className="soft">{k.calls.slice(0, 6).join(", ")}</td>
                <td>
                  <input
                    className="input w-32"
                    list="foreign-tubes"
                    aria-label={`${k.name} is`}
                    value={meaning.type}
                    onChange={(e) => change(k.name, { ...meaning, type: e.target.value.toUpperCase() })}
                  />
                </td>
                <td>
                  <span className="flex flex-wrap gap-1">
                    {k.nodes.map((node, at) => (
                      <select
                        key={at}
                        className="select w-auto pr-8"
                        aria-label={`${k.name}, node ${node}`}
                        value={meaning.pins[at] ?? "unused"}
                        onChange={(e) =>
                          change(k.name, {
                            ...meaning,
                            pins: k.nodes.map((_, n) => (n === at ? (e.target.value as ForeignPin) : (meaning.pins[n] ?? "unused"))),
                          })
                        }
                      >
                        {PINS.map((p) => (
                          <option key={p} value={p}>
                            {node}: {p}
                          </option>
                        ))}
                      </select>
                    ))}
                  </span>
                  {wrong[i] && <span className="text-error block text-sm">{wrong[i]}</span>}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <datalist id="foreign-tubes">
        {TUBE_TYPES.filter((t) => t.kind !== "rectifier").map((t) => (
          <option key={t.type} value={findTubeType(t.type)!.type} />
        ))}
      </datalist>
      <button className="btn btn-primary mt-2 h-11" disabled={wrong.some((w) => w !== undefined)} onClick={use}>
        Rewrite the file
      </button>
      {notKept && <span className="text-warning ml-3">▲ Not kept for the next file: {notKept}</span>}
    </section>
  );
}
