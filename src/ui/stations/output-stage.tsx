"use client";
/** Output stage: what each output tube dissipates, from the readings of the walk, as part of its rating. */

import { words } from "@/core/language/language";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { isOutputTube } from "@/core/anatomy/cathode-current";
import { tubesOf } from "@/core/anatomy/points";
import { useMemo } from "react";
import type { Circuit } from "@/core/circuit/circuit";
import { PartButton } from "../drawing/part-button";
import { outputLayer } from "../drawing/layers";
import { lateInBrowser } from "../frame/late";
import { Section } from "../forms/section";
import { useJob } from "../frame/job-context";
import { Findings } from "./findings";
import { NoCircuit } from "./no-circuit";
import { NotLive } from "./not-live";

const StationDrawing = lateInBrowser(() => import("../drawing/station-drawing").then((m) => m.StationDrawing), "min-h-[31rem]");

export function OutputStage() {
  const { view } = useJob();
  if (!view.circuit)
    return (
      <>
        <NoCircuit what="Dissipation needs a circuit." />
        <div className="mt-4">
          <Findings station="output-stage" />
        </div>
      </>
    );
  return <OutputSheet circuit={view.circuit} />;
}

function OutputSheet({ circuit }: { circuit: Circuit }) {
  const { view } = useJob();
  const layer = useMemo(() => outputLayer(circuit, view.rows), [circuit, view.rows]);
  const output = tubesOf(circuit).filter(isOutputTube);
  const idle = view.rows.flatMap((r) => r.idle.map((i) => ({ ...i, volts: r.reading!.value, point: r.point.name })));
  const found = output.map((t) => ({ tube: t, idle: idle.find((i) => i.tube === t.name) }));
  const amps = found.flatMap((f) => (f.idle ? [f.idle.cathodeAmps] : []));
  const spread = amps.length > 1 ? (Math.max(...amps) - Math.min(...amps)) / (amps.reduce((a, b) => a + b, 0) / amps.length) : undefined;
  const hot = found.filter((f) => (f.idle?.ofRating ?? 0) > 1);
  return (
    <div className="max-w-4xl">
      <section className="mb-4 rounded border border-base-300 bg-base-200 p-4">
        <p className="text-2xl font-bold">
          {found.every((f) => !f.idle)
            ? words("Measure the output tubes' cathodes at Walk: the cathode resistors show the current.")
            : hot.length > 0
              ? `▲ ${hot.map((h) => h.tube.name).join(", ")} above the rating at idle: this shortens their life, whether it is meant or a fault.`
              : words("Every output tube that was read idles within its rating.")}
        </p>
        {spread !== undefined && (
          <p className="mt-1">
            {words("Spread between the tubes:")} {formatQuantity(spread * 100, "%", 2)}
            {found[0]?.idle && found[0].idle.sharedBy > 1 ? " (they share a resistor, so this cannot show)" : ""}.
          </p>
        )}
      </section>
      <div className="mb-4">
        <NotLive />
      </div>
      <Section title="Idle" hint="cathode current less the screen's typical share">
        <table className="table table-sm">
          <thead>
            <tr>
              <th>{words("Tube")}</th>
              <th className="text-right">Cathode</th>
              <th className="text-right">Across</th>
              <th className="text-right">Cathode current</th>
              <th className="text-right">Plate current</th>
              <th className="text-right">Plate</th>
              <th className="text-right">Of rating</th>
            </tr>
          </thead>
          <tbody>
            {found.map(({ tube, idle: i }) => (
              <tr key={tube.name}>
                <td>
                  <PartButton name={tube.name}>
                    <strong>{tube.name}</strong>
                  </PartButton>{" "}
                  <span className="soft">{tube.type}</span>
                </td>
                {i ? (
                  <>
                    <td className="text-right tabular-nums">{formatVolts(i.volts)}</td>
                    <td className="text-right tabular-nums">
                      {formatQuantity(i.ohms, "Ω", 3)}
                      {i.sharedBy > 1 ? ` / ${i.sharedBy}` : ""}
                    </td>
                    <td className="text-right tabular-nums">{formatQuantity(i.cathodeAmps, "A", 3)}</td>
                    <td className="text-right tabular-nums">{formatQuantity(i.plateAmps, "A", 3)}</td>
                    <td className="text-right tabular-nums">
                      {i.plateWatts === undefined ? "plate not read" : formatQuantity(i.plateWatts, "W", 3)}
                    </td>
                    <td className="text-right tabular-nums font-bold">
                      {i.ofRating === undefined ? "–" : `${Math.round(i.ofRating * 100)} % of ${i.ratedWatts} W`}{" "}
                      <span className="soft block text-xs font-normal">{i.system}</span>
                    </td>
                  </>
                ) : (
                  <td colSpan={6} className="soft">
                    cathode not read
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </Section>
      <StationDrawing layer={layer} />
      <Findings station="output-stage" />
    </div>
  );
}
