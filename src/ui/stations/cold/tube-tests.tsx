"use client";
/** Tube tests: shorts, emission, transconductance against new and reject, or a swap with a known good one. */

import { fixed, words } from "@/core/language/language";
import { envelopeOf } from "@/core/circuit/circuit";
import { judgeTubeTest, SWAP_RESULTS, TEST_METHODS, type SwapResult, type TestMethod } from "@/core/tubes/judge-test";
import { findTubeType, gmLimits } from "@/core/tubes/library";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { VerdictMark } from "../../forms/verdict-mark";

export function TubeTests() {
  const { view, say, settings, conditions } = useJob();
  const tubes = (view.circuit?.elements ?? []).filter((e) => e.tube ?? e.rectifierTube);
  const first = tubes.find((t) => !view.state.tubeTests.some((x) => x.tube === t.name)) ?? tubes[0];
  const usual = {
    tube: "",
    method: "transconductance" as TestMethod,
    figure: "",
    unit: "percent" as "percent" | "gm",
    shorts: "not tested",
    swap: "the same" as SwapResult,
  };
  const { field, onSubmit, refused, typed, form } = useTypedForm(usual, store);
  const name = typed.tube || (first?.name ?? "");
  const element = tubes.find((t) => t.name === name);
  const type = element?.tube ?? element?.rectifierTube ?? findTubeType(name);
  // A rectifier has no transconductance.
  const methods = TEST_METHODS.filter((m) => m !== "transconductance" || type?.kind !== "rectifier");
  const method = methods.includes(typed.method) ? typed.method : "emission";
  const limits = type && gmLimits(type);
  const wantsFigure = method === "transconductance" || method === "emission";

  function store({ figure, unit, shorts, swap, ...rest }: typeof usual): string | Partial<typeof usual> {
    if (!name.trim()) return words("Which tube?");
    let value: number | undefined;
    if (wantsFigure) {
      const parsed = parseQuantity(figure, { decimal: settings.decimal });
      if (!parsed.ok) return `${parsed.why}; accepted: ${unit === "percent" ? "85" : fixed(9.5, 1)}`;
      value = parsed.quantity.value;
      const most = unit === "percent" ? 250 : 60;
      if (value < 0 || value > most) return `Read ${figure}; accepted: 0 to ${most} ${unit === "percent" ? "%" : "mA/V"}`;
    }
    const percent = unit === "percent" || method === "emission" ? value : undefined;
    const gm = unit === "gm" && method === "transconductance" ? value : undefined;
    const test = {
      tube: name.trim().toUpperCase(),
      method,
      ...(percent === undefined ? {} : { percent }),
      ...(gm === undefined ? {} : { gm }),
      ...(shorts === "not tested" ? {} : { shorts: shorts === "none" ? "" : shorts }),
      ...(method === "substitution" ? { swap } : {}),
    };
    const judged = judgeTubeTest(test, type);
    say(
      { type: "tube-test", payload: test },
      // Transconductance is evidence for the suspects; emission is not.
      ...(method === "transconductance" && judged.percent !== undefined && element?.tube
        ? [{ type: "reading", payload: { point: element.name, kind: "gm", value: Math.round(judged.percent), conditions } } as const]
        : []),
    );
    // The next tube is likely tested in the same way.
    return { ...rest, unit, shorts, swap, tube: "" };
  }
  return (
    <Section title="Tubes" hint="power off; output tubes stay hot for minutes">
      <form onSubmit={onSubmit} className="mb-4 flex flex-wrap items-end gap-3 rounded border border-base-300 bg-base-200 p-4">
        <Field label="Tube">
          {tubes.length > 0 ? (
            <select className="select w-44" value={name} onChange={(e) => form.setValue("tube", e.target.value)}>
              {tubes.map((t) => (
                <option key={t.name} value={t.name}>
                  {t.name} {(t.tube ?? t.rectifierTube)!.type}
                </option>
              ))}
            </select>
          ) : (
            <input className="input w-32" placeholder="V1" {...field("tube")} />
          )}
        </Field>
        <Field label="How">
          <select className="select w-44" value={method} onChange={(e) => form.setValue("method", e.target.value as TestMethod)}>
            {methods.map((m) => (
              <option key={m}>{m}</option>
            ))}
          </select>
        </Field>
        {wantsFigure && (
          <Field label="Figure">
            <span className="flex gap-1">
              <input className="input h-12 w-24 text-right text-xl" inputMode="decimal" {...field("figure")} />
              {method === "transconductance" ? (
                <select className="select h-12 w-28" aria-label="Unit" {...field("unit")}>
                  <option value="percent">% of new</option>
                  <option value="gm">mA/V</option>
                </select>
              ) : (
                <span className="self-center">% of new</span>
              )}
            </span>
          </Field>
        )}
        {method === "substitution" && (
          <Field label="With a known good one the amp is">
            <select className="select w-36" {...field("swap")}>
              {SWAP_RESULTS.map((s) => (
                <option key={s}>{s}</option>
              ))}
            </select>
          </Field>
        )}
        <Field label="Shorts">
          <select className="select w-44" {...field("shorts")}>
            {["not tested", "none", "heater–cathode", "grid–cathode", "grid–screen", "plate–screen", "plate–plate"].map((s) => (
              <option key={s}>{s}</option>
            ))}
          </select>
        </Field>
        <button className="btn btn-primary h-12">Log the test</button>
        {limits && method === "transconductance" && (
          <p className="soft basis-full text-sm">
            {type!.type}: new {limits.fresh} mA/V, reject below {fixed(limits.reject, 1)} mA/V by its published data sheet
          </p>
        )}
        {method === "emission" && type?.kind !== "rectifier" && (
          <p className="soft basis-full text-sm">
            Emission alone never clears a tube: a diode test says nothing of gas, noise or transconductance.
          </p>
        )}
        <Refused className="basis-full">{refused}</Refused>
      </form>
      {view.state.tubeTests.length === 0 ? (
        <p className="soft">No tube tested yet. Shorts first: a shorted tube can take the tester and the amp with it.</p>
      ) : (
        <table className="table table-sm" aria-label="Tube tests">
          <thead>
            <tr>
              <th>Tube</th>
              <th>By</th>
              <th>Verdict</th>
            </tr>
          </thead>
          <tbody>
            {view.state.tubeTests.map((t) => {
              const at = tubes.find((x) => x.name === t.tube || envelopeOf(x.name) === t.tube);
              const { verdict, percent, why } = judgeTubeTest(t, at?.tube ?? at?.rectifierTube);
              return (
                <tr key={t.seq}>
                  <td>
                    <strong>{t.tube}</strong> <span className="soft">{(at?.tube ?? at?.rectifierTube)?.type}</span>
                  </td>
                  <td>
                    {t.method}
                    {percent !== undefined && `, ${Math.round(percent)} %`}
                    {t.gm !== undefined && ` (${t.gm} mA/V)`}
                  </td>
                  <td>
                    <VerdictMark verdict={verdict} word /> <span className="text-xs">{why}</span>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </Section>
  );
}
