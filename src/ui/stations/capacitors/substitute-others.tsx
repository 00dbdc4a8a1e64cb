"use client";
/** A control, an output transformer or a tube in place of another. */

import { useState } from "react";
import { scaleLinear } from "d3-scale";
import {
  checkOutputTransformer,
  checkPot,
  checkTube,
  potCurve,
  type OutputTransformerOffer,
  type PotOffer,
} from "@/core/capacitor/substitute-others";
import type { Element } from "@/core/circuit/circuit";
import { spiceNumber } from "@/core/circuit/write";
import { words } from "@/core/language/language";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { TUBE_TYPES, type TubeType } from "@/core/tubes/library";
import { Line, XAxis, YAxis, type Point } from "../../charts/plot";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { useBorn } from "./use-born";
import { useDrawnCapacitors } from "./use-capacitors";
import { Verdict } from "./verdict";

export function SubstituteControl({ part }: { part: Element }) {
  const { settings } = useJob();
  const { born, failed } = useBorn(part.name);
  const [offer, setOffer] = useState<PotOffer>();
  const was = { ohms: part.value!, taper: String(part.params.taper ?? "linear") };
  const { field, onSubmit, refused } = useTypedForm({ ohms: formatQuantity(was.ohms, "Ω", 2), taper: was.taper, watts: "0.25" }, (v) => {
    const ohms = parseQuantity(v.ohms, { unit: "Ω", decimal: settings.decimal });
    if (!ohms.ok || !(ohms.quantity.value > 0))
      return `Ohms: ${ohms.ok ? "above zero is wanted" : `${ohms.why}; accepted: ${ohms.accepted}`}`;
    const watts = v.watts.trim() ? parseQuantity(v.watts, { unit: "W", decimal: settings.decimal }) : undefined;
    if (watts && !watts.ok) return `Watts: ${watts.why}; accepted: ${watts.accepted}`;
    setOffer({ ohms: ohms.quantity.value, taper: v.taper, ...(watts?.ok ? { watts: watts.quantity.value } : {}) });
    return v;
  });
  return (
    <>
      <Section title={`Control ${part.name}`} hint={`${formatQuantity(was.ohms, "Ω", 2)}, ${was.taper}`}>
        {failed && <p role="alert">{failed}</p>}
        <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
          <Field label="Ohms">
            <input className="input w-28" {...field("ohms")} />
          </Field>
          <Field label="Taper">
            <select className="select w-36" {...field("taper")}>
              <option>linear</option>
              <option>audio</option>
              <option>reverse</option>
            </select>
          </Field>
          <Field label="Watts">
            <input className="input w-24" {...field("watts")} />
          </Field>
          <button className="btn btn-primary" disabled={!born}>
            Check it
          </button>
          <Refused className="basis-full">{refused}</Refused>
        </form>
      </Section>
      {offer && born && (
        <>
          <Curves was={was} by={offer} />
          <Verdict
            part={part}
            checks={checkPot(was, born.watts ?? 0, offer)}
            set={[`${part.name}.value=${spiceNumber(offer.ohms)}`, `${part.name}.taper=${offer.taper}`]}
            newPart={`${formatQuantity(offer.ohms, "Ω", 2)} ${offer.taper}`}
            done={() => setOffer(undefined)}
          />
        </>
      )}
    </>
  );
}

/** Level against rotation, old and new. */
function Curves({ was, by }: { was: { ohms: number; taper: string }; by: PotOffer }) {
  const [width, height, left] = [520, 190, 56];
  const x = scaleLinear([0, 1], [left, width - 70]);
  const y = scaleLinear([-60, 0], [height - 26, 8]);
  const line = (ohms: number, taper: string) =>
    potCurve(ohms, taper).map(({ turn, decibels }): Point => [x(turn), y(Math.max(-60, decibels))]);
  return (
    <figure>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="w-full max-w-2xl"
        role="img"
        aria-label={`Level against rotation: ${was.taper} before, ${by.taper} after`}
      >
        <YAxis x={left} width={width - left - 70} scale={y} ticks={[-60, -40, -20, 0]} format={(v) => `${v} dB`} />
        <XAxis y={height - 26} scale={x} ticks={[0, 0.25, 0.5, 0.75, 1]} format={(v) => `${v * 100} %`} />
        <Line points={line(was.ohms, was.taper)} stroke="currentColor" strokeWidth={2} strokeDasharray="6 4" />
        <Line points={line(by.ohms, by.taper)} stroke="var(--color-primary)" strokeWidth={2.5} />
      </svg>
      <figcaption className="soft text-sm">Level at the wiper against the turn, without a load. Dashed: the old one.</figcaption>
    </figure>
  );
}

export function SubstituteOutputTransformer({ part }: { part: Element }) {
  const { settings } = useJob();
  const { all } = useBorn(part.name);
  const { circuit } = useDrawnCapacitors();
  const [offer, setOffer] = useState<OutputTransformerOffer>();
  const single = part.type === "OPT_SE";
  const primary = Number(part.params[single ? "zp" : "zpp"] ?? 0);
  const load = Number(part.params.load ?? 8);
  const watts = Number(circuit.facts.watts ?? 0);
  const plates = circuit.elements.filter((e) => e.tube && part.nodes.includes(e.nodes[0]!));
  const volts = plates.map((t) => all?.find((b) => b.part === t.name)).flatMap((b) => (b?.watts && b.volts ? [b.watts / b.volts] : []));
  const milliamps = Math.max(0, ...volts) * 1e3;
  const { field, onSubmit, refused } = useTypedForm(
    { primary: String(primary), load: String(load), watts: String(watts || ""), milliamps: "" },
    (v) => {
      const read = (text: string, unit: "Ω" | "W" | "A") =>
        text.trim() ? parseQuantity(text, { unit, decimal: settings.decimal }) : undefined;
      const [p, l, w, m] = [
        read(v.primary, "Ω"),
        read(v.load, "Ω"),
        read(v.watts, "W"),
        v.milliamps.trim() ? parseQuantity(v.milliamps, { decimal: settings.decimal }) : undefined,
      ];
      for (const [label, x] of [
        ["Primary", p],
        ["Load", l],
        ["Watts", w],
        ["Direct current", m],
      ] as const)
        if (x && !x.ok) return `${label}: ${x.why}; accepted: ${x.accepted}`;
      if (!p?.ok || !l?.ok) return "Primary and load are wanted";
      setOffer({
        primaryOhms: p.quantity.value,
        loadOhms: l.quantity.value,
        ...(w?.ok ? { watts: w.quantity.value } : {}),
        ...(m?.ok ? { milliamps: m.quantity.value } : {}),
      });
      return v;
    },
  );
  const set = offer
    ? [`${part.name}.${single ? "zp" : "zpp"}=${spiceNumber(offer.primaryOhms)}`, `${part.name}.load=${spiceNumber(offer.loadOhms)}`]
    : [];
  return (
    <>
      <Section title={`Output transformer ${part.name}`} hint={`${formatQuantity(primary, "Ω", 2)} with ${formatQuantity(load, "Ω", 2)}`}>
        <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
          <Field label="Primary, Ω">
            <input className="input w-28" {...field("primary")} />
          </Field>
          <Field label="With a load of, Ω">
            <input className="input w-24" {...field("load")} />
          </Field>
          <Field label="Watts">
            <input className="input w-24" {...field("watts")} />
          </Field>
          {single && (
            <Field label="Direct current it bears, mA">
              <input className="input w-24" {...field("milliamps")} />
            </Field>
          )}
          <button className="btn btn-primary">Check it</button>
          <Refused className="basis-full">{refused}</Refused>
        </form>
      </Section>
      {offer && (
        <Verdict
          part={part}
          checks={checkOutputTransformer({ primaryOhms: primary, loadOhms: load, single }, { watts, milliamps }, offer)}
          set={set}
          newPart={`${formatQuantity(offer.primaryOhms, "Ω", 2)} with ${formatQuantity(offer.loadOhms, "Ω", 2)}`}
          done={() => setOffer(undefined)}
        />
      )}
    </>
  );
}

export function SubstituteTube({ part, tube }: { part: Element; tube: TubeType }) {
  const { born, failed } = useBorn(part.name);
  const { circuit } = useDrawnCapacitors();
  const others = TUBE_TYPES.filter((t) => t.kind === tube.kind && t.model);
  const [type, setType] = useState("");
  const by = others.find((t) => t.type === type);
  const cathode = part.nodes.at(-1)!;
  const fixed = circuit.elements.every((e) => !(e.letter === "R" && e.nodes.includes(cathode) && (e.value ?? 0) > 50));
  return (
    <>
      <Section title={words(`Tube ${part.name}, ${tube.type}`)}>
        {failed && <p role="alert">{failed}</p>}
        <Field label="In its place">
          <select className="select w-44" value={type} onChange={(e) => setType(e.target.value)}>
            <option value="">choose</option>
            {others.map((t) => (
              <option key={t.type}>{t.type}</option>
            ))}
          </select>
        </Field>
      </Section>
      {by && born && (
        <Verdict
          part={part}
          checks={checkTube(
            tube,
            by,
            {
              plateVolts: born.volts,
              plateWatts: born.watts ?? 0,
              ...(born.screenWatts === undefined ? {} : { screenWatts: born.screenWatts }),
            },
            fixed ? "fixed" : "cathode",
          )}
          set={[`${part.name}=type:${by.type}`]}
          newPart={by.type}
          done={() => setType("")}
        />
      )}
    </>
  );
}
