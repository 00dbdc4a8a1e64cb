"use client";
/** Each tube's current as it was read: by which way, with which resistance, the screen's part taken off, watts and rating. */

import { figure, words } from "@/core/language/language";
import { useState } from "react";
import { pointOfWay, usualWay } from "@/core/output/from-tape";
import type { BiasRow } from "@/core/output/bias-table";
import type { OutputTube } from "@/core/output/output-stage";
import { readCurrent, WAYS, type Way } from "@/core/output/read-current";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../../../forms/section";
import { Refused, useTypedForm } from "../../../forms/typed-form";
import { WideTable } from "../../../forms/wide-table";
import { PartButton } from "../../../drawing/part-button";
import { useJob } from "../../../job/job-context";
import { useMeterAt } from "../../../job/use-meter-at";
import { percent, useStage } from "../use-stage";

const WAY_WORDS: Record<Way, { name: string; how: string; unit: "V" | "A" }> = {
  "cathode resistor": {
    name: "Across the cathode resistor",
    how: "Meter on DC volts across each tube's cathode resistor. What flows there is plate and screen current together.",
    unit: "V",
  },
  "socket probe": {
    name: "Socket probe",
    how: "A probe between tube and socket, put in with the power off and the amp proven dead. It shows the cathode's milliamperes.",
    unit: "A",
  },
  "half winding": {
    name: "Drop across half of the transformer",
    how: "First measure the half's resistance, power off and proven dead. Then DC volts from the centre tap to the plate: both leads lie on the plate supply. The screens are not in it.",
    unit: "V",
  },
  shunt: {
    name: "Meter shunting the transformer",
    how: "The risky one: the meter on a current range lies across half of the transformer, and its case and leads stand at the full plate supply. A slip to chassis is a short of the supply. Use another way if there is one.",
    unit: "A",
  },
};

export function CurrentTable() {
  const { circuit, stage, read } = useStage();
  const [way, setWay] = useState<Way>(() => usualWay(stage));
  const offered = WAYS.filter((w) => stage.tubes.every((t) => pointOfWay(circuit, stage, t, w) !== undefined));
  return (
    <Section title="Currents" hint="type a reading and press Enter, or take it hands-free">
      <div className="mb-2 flex flex-wrap items-end gap-3">
        <Field label="Read by">
          <select className="select w-80" value={way} onChange={(e) => setWay(e.target.value as Way)}>
            {offered.map((w) => (
              <option key={w} value={w}>
                {WAY_WORDS[w].name}
                {w === "shunt" ? " (risky)" : ""}
              </option>
            ))}
          </select>
        </Field>
        <p className={`max-w-xl flex-1 text-sm ${way === "shunt" ? "font-bold text-warning" : "soft"}`}>
          {way === "shunt" ? "▲ " : ""}
          {words(WAY_WORDS[way].how)}
        </p>
      </div>
      <WideTable label={words("Currents of the output tubes")} className="table table-sm">
        <thead>
          <tr>
            <th>{words("Tube")}</th>
            <th>{WAY_WORDS[way].unit === "V" ? "Reading, V" : "Reading, A"}</th>
            <th className="text-right">Plate</th>
            <th className="text-right">Screen</th>
            <th className="text-right">Plate watts</th>
            <th>Of the rating</th>
            <th className="text-right">Screen watts</th>
          </tr>
        </thead>
        <tbody>
          {stage.tubes.map((t) => (
            <Row key={`${t.name} ${way}`} tube={t} way={way} row={read.table.rows.find((r) => r.tube === t.name)} />
          ))}
        </tbody>
      </WideTable>
      {read.table.refused.map((r) => (
        <p key={r.tube} role="alert" className="text-sm text-error">
          {r.why}; accepted: {r.accepted}
        </p>
      ))}
      {read.table.rows
        .flatMap((r) => r.doubts)
        .map((d) => (
          <p key={d} role="alert" className="text-sm text-warning">
            ▲ {d}
          </p>
        ))}
    </Section>
  );
}

function Row({ tube, way, row }: { tube: OutputTube; way: Way; row?: BiasRow }) {
  const { read } = useStage();
  const volts = read.volts[tube.name]?.plate;
  return (
    <tr>
      <td>
        <PartButton name={tube.name}>
          <strong>{tube.name}</strong>
        </PartButton>{" "}
        <span className="soft">{tube.type.type}</span>
        {tube.sharedBy > 1 && way === "cathode resistor" && <span className="soft block text-xs">shares its resistor</span>}
      </td>
      <td>
        <Reading tube={tube} way={way} row={row} />
      </td>
      <td className="text-right font-bold tabular-nums">{row ? formatQuantity(row.plate, "A", 3) : "–"}</td>
      <td className="text-right tabular-nums">
        {row ? formatQuantity(row.screen, "A", 2) : "–"}
        {row && (
          <span className="soft block text-xs">
            {row.screenBy === "measured" ? "measured" : row.screenBy === "type" ? "by the type" : ""}
          </span>
        )}
      </td>
      <td className="text-right tabular-nums">
        {row?.plateWatts === undefined ? "–" : formatQuantity(row.plateWatts, "W", 3)}
        {volts !== undefined && (
          <span className="soft block text-xs">
            at {formatVolts(volts)}
            {read.platesRead.includes(tube.name) ? "" : ", computed"}
          </span>
        )}
      </td>
      <td>
        {row?.ofRating === undefined ? (
          "–"
        ) : (
          <div>
            <Bar part={row.ofRating} />
            <span>
              <strong className="tabular-nums">{percent(row.ofRating)}</strong>
              <span className="soft block text-xs">
                of {row.ratedWatts} W, {row.system}
              </span>
            </span>
          </div>
        )}
      </td>
      <td className="text-right tabular-nums">
        {row?.screenWatts === undefined ? "–" : formatQuantity(row.screenWatts, "W", 2)}
        {row?.ofScreenRating !== undefined && <span className="soft block text-xs">{percent(row.ofScreenRating)}</span>}
      </td>
    </tr>
  );
}

/** The part of a rating: the mark stands at 100 %. */
function Bar({ part }: { part: number }) {
  const [width, most] = [120, 1.5];
  return (
    <svg width={width} height={16} className="block shrink-0" aria-hidden>
      <rect x={0} y={3} width={width} height={10} className="fill-base-300" />
      <rect x={0} y={3} width={(width * Math.min(part, most)) / most} height={10} className={part > 1 ? "fill-warning" : "fill-primary"} />
      <line x1={width / most} x2={width / most} y1={0} y2={16} stroke="currentColor" strokeWidth={2} />
    </svg>
  );
}

/** One reading, and under it the resistance and the screen's drop where they were measured. */
function Reading({ tube, way, row }: { tube: OutputTube; way: Way; row?: BiasRow }) {
  const { say, settings, conditions, energyKind } = useJob();
  const { circuit, stage, read } = useStage();
  const { unit } = WAY_WORDS[way];
  const where = pointOfWay(circuit, stage, tube, way);
  const own = read.readings.find((r) => r.tube === tube.name);
  const [active, setActive] = useState(false);
  const live = energyKind === "live";
  const meter = useMeterAt(where?.point ?? tube.name, where?.kind ?? "ma", undefined, undefined, !active || !live);
  const { field, onSubmit, refused } = useTypedForm({ value: "", ohms: "", screen: "" }, (typed) => {
    const drafts: Parameters<typeof say> = [];
    const numbers: { value?: number; ohms?: number; screen?: number } = {};
    // Enter on an empty row takes what the meter holds there.
    const held = live && active ? meter.toTake()?.value : undefined;
    if (held !== undefined && where && [typed.value, typed.ohms, typed.screen].every((t) => t.trim() === ""))
      numbers.value = Number((where.kind === "ma" ? held / 1e3 : held).toPrecision(4));
    for (const [name, u] of [
      ["value", unit],
      ["ohms", "Ω"],
      ["screen", "V"],
    ] as const) {
      if (typed[name].trim() === "") continue;
      const parsed = parseQuantity(typed[name], { unit: u, decimal: settings.decimal });
      if (!parsed.ok) return `${parsed.why}; accepted: ${u === "V" ? `${figure("0.45")}, 450m` : u === "A" ? "38m" : "10"}`;
      numbers[name] = parsed.quantity.value;
    }
    if (Object.keys(numbers).length === 0 || !where) return "Type a reading, or wait until the meter stands still";
    if (numbers.value !== undefined) {
      const judged = readCurrent(
        stage,
        {
          tube: tube.name,
          way,
          value: numbers.value,
          ...(numbers.ohms ? { ohms: numbers.ohms } : {}),
          ...(numbers.screen === undefined ? {} : { screenVolts: numbers.screen }),
        },
        read.volts[tube.name]?.plate,
      );
      if (!judged.ok) return `${judged.why}; accepted: ${judged.accepted}`;
      if (judged.doubts.length > 1) return judged.doubts.join(". ");
      drafts.push({
        type: "reading",
        payload: { point: where.point, kind: where.kind, value: where.kind === "ma" ? numbers.value * 1e3 : numbers.value, conditions },
      });
    }
    if (numbers.ohms !== undefined)
      drafts.push({
        type: "reading",
        payload: {
          point: way === "cathode resistor" ? `${tube.cathode}:0` : `${stage.supply}:${tube.plate}`,
          kind: "ohm",
          value: numbers.ohms,
          conditions: {},
        },
      });
    if (numbers.screen !== undefined && tube.screenResistor)
      drafts.push({ type: "reading", payload: { point: tube.screenResistor.name, kind: "dcv", value: numbers.screen, conditions } });
    say(...drafts);
  });
  const usual = way === "cathode resistor" ? tube.cathodeOhms : stage.halfOhms[tube.half];
  return (
    <form data-onward="currents" onSubmit={onSubmit} className="space-y-1" onFocus={() => setActive(true)} onBlur={() => setActive(false)}>
      <div className="flex items-center gap-1">
        <input
          className="input input-sm min-h-10 w-24 text-right"
          inputMode="decimal"
          aria-label={`Reading of ${tube.name}, ${unit}`}
          placeholder={own?.way === way ? figure(Number(own.value.toPrecision(3))) : ""}
          {...field("value")}
        />
        {/* Enter in any field logs the row. */}
        <button className="btn btn-sm min-h-10" aria-label={`Log the reading of ${tube.name}`}>
          Log
        </button>
      </div>
      <div className="flex items-center gap-2">
        {way !== "socket probe" && (
          <label className="soft flex items-center gap-1 text-xs">
            over
            <input
              className="input input-sm min-h-10 w-16 text-right"
              inputMode="decimal"
              aria-label={`Ohms measured for ${tube.name}`}
              placeholder={usual === undefined ? "Ω" : figure(Number((own?.ohms ?? usual).toPrecision(3)))}
              {...field("ohms")}
            />
            Ω
          </label>
        )}
        {tube.screenResistor && (
          <label className="soft flex items-center gap-1 text-xs">
            {tube.screenResistor.name}
            <input
              className="input input-sm min-h-10 w-16 text-right"
              inputMode="decimal"
              aria-label={`Volts across ${tube.screenResistor.name}`}
              placeholder={own?.screenVolts === undefined ? "V" : figure(own.screenVolts)}
              {...field("screen")}
            />
            V
          </label>
        )}
      </div>
      {active && live && meter.shows && (
        <p className={`text-xs ${meter.steady ? "" : "soft"}`}>
          {meter.steady ? "●" : "○"} Meter {meter.shows}
          {meter.steady ? ": Enter takes it" : ""}
        </p>
      )}
      {row && own?.way !== way && <p className="soft text-xs">read by {WAY_WORDS[row.way].name.toLowerCase()}</p>}
      <Refused>{refused}</Refused>
    </form>
  );
}
