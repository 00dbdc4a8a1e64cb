"use client";
/** Speaker, cable and dummy load against the tap of the output transformer. */

import { fixed } from "@/core/language/language";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { cableLoss, judgeCoil, judgeDummy, lineLoad, type LoadVerdict } from "@/core/bring-up/load";
import { formatQuantity } from "@/core/quantity/format";
import { isOverload, OPEN_OHMS } from "@/core/quantity/ohms";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { VerdictMark } from "../../forms/verdict-mark";

export function Load() {
  const { view, settings, say } = useJob();
  const transformer = view.circuit?.elements.find((e) => e.type === "OPT_PP" || e.type === "OPT_SE");
  const taps = ["load", "load2", "load3", "load4"].flatMap((k) =>
    typeof transformer?.params[k] === "number" ? [transformer.params[k]] : [],
  );
  const ampWatts = Number(view.circuit?.facts.watts) || 15;
  const { register, watch } = useForm({ defaultValues: { coil: "", dummy: "", watts: "", metres: "", square: "" } });
  const typed = watch();
  const [tap, setTap] = useState(taps[0] ?? 8);
  const number = (key: keyof typeof typed, unit: "Ω" | "W" | undefined) => {
    const text = typed[key];
    if (!text.trim()) return {};
    if (key === "coil" && isOverload(text)) return { value: OPEN_OHMS };
    const parsed = parseQuantity(text, { unit, decimal: settings.decimal });
    if (!parsed.ok) return { bad: `${parsed.why}; accepted: ${parsed.accepted}` };
    return parsed.quantity.value > 0 ? { value: parsed.quantity.value } : { bad: "above zero is wanted" };
  };
  const field = (key: keyof typeof typed, label: string, unit: "Ω" | "W" | undefined, width = "w-24") => (
    <Field label={label} error={number(key, unit).bad}>
      <input className={`input text-right ${width}`} {...register(key)} />
    </Field>
  );
  const coil = number("coil", "Ω").value;
  const [dummyOhms, dummyWatts] = [number("dummy", "Ω").value, number("watts", "W").value];
  const [metres, square] = [number("metres", undefined).value, number("square", undefined).value];
  const judgedCoil = coil === undefined ? undefined : judgeCoil(coil, tap);
  const judgedDummy = dummyOhms === undefined || dummyWatts === undefined ? undefined : judgeDummy(dummyOhms, dummyWatts, tap, ampWatts);
  const cable = metres === undefined || square === undefined ? undefined : cableLoss(metres, square, tap);
  const note = (text: string) => say({ type: "note", payload: { text, station: "bring-up" } });
  return (
    <div className="max-w-4xl">
      <Section title="Tap" hint={`${ampWatts} W by the circuit file`}>
        <div className="flex flex-wrap gap-1" role="group" aria-label="Impedance tap">
          {(taps.length > 0 ? taps : [4, 8, 16]).map((t) => (
            <button
              key={t}
              className={`btn min-h-11 ${t === tap ? "btn-primary" : "btn-ghost"}`}
              aria-pressed={t === tap}
              onClick={() => setTap(t)}
            >
              {formatQuantity(t, "Ω", 3)}
            </button>
          ))}
        </div>
        {tap > 40 && (
          <p className="soft mt-1 text-sm">
            A constant-voltage line: {formatQuantity(lineLoad(100, ampWatts), "Ω", 3)} takes {ampWatts} W at 100 V. All speakers together
            must not be lower.
          </p>
        )}
      </Section>
      <Section title="Speaker" hint="voice coil through its own lead, plug out of the amp">
        <div className="flex flex-wrap items-end gap-4">
          {field("coil", "Reads, Ω (OL when open)", "Ω")}
          {judgedCoil && (
            <p className="flex-1 pb-2">
              <Says v={judgedCoil} />{" "}
              {Number.isFinite(judgedCoil.nominal) &&
                judgedCoil.nominal < 1e4 &&
                `About ${formatQuantity(judgedCoil.nominal, "Ω", 2)} nominal. `}
              {judgedCoil.why}
            </p>
          )}
          {judgedCoil && (
            <button
              className="btn btn-outline"
              onClick={() =>
                note(
                  `Speaker reads ${coil! >= OPEN_OHMS ? "open" : formatQuantity(coil!, "Ω", 3)} on the ${formatQuantity(tap, "Ω", 3)} tap${judgedCoil.why ? `: ${judgedCoil.why}` : ""}`,
                )
              }
            >
              Log it
            </button>
          )}
        </div>
      </Section>
      <Section title="Dummy load" hint={`a ${ampWatts} W amp driven into hard clipping gives up to ${2 * ampWatts} W`}>
        <div className="flex flex-wrap items-end gap-4">
          {field("dummy", "Resistance, Ω", "Ω")}
          {field("watts", "Rating, W", "W")}
          {judgedDummy && (
            <p className="flex-1 pb-2">
              <Says v={judgedDummy} /> {judgedDummy.why || "large enough"}
            </p>
          )}
        </div>
      </Section>
      <Section title="Cable" hint="a speaker lead; an instrument lead is too thin and can open the load">
        <div className="flex flex-wrap items-end gap-4">
          {field("metres", "Length, m", undefined)}
          {field("square", "Conductor, mm²", undefined)}
          {cable && (
            <p className="pb-2">
              {formatQuantity(cable.ohms, "Ω", 2)}, {fixed(100 * cable.share, 1)} % of the power is lost in it
              {cable.share > 0.1 && <span className="text-warning"> ▲ too thin for this length</span>}
            </p>
          )}
        </div>
      </Section>
    </div>
  );
}

const Says = ({ v }: { v: LoadVerdict }) => <VerdictMark verdict={v.verdict} word />;
