"use client";
/** Plate curves at the actual screen, the dissipation limit, the load's line, idle now and on target, and where it clips. */

import { fixed, words } from "@/core/language/language";
import { useMemo, useState } from "react";
import { scaleLinear } from "d3-scale";
import { plateCurves, type PlateCurves } from "@/core/output/load-line";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { Line, XAxis, YAxis, type Point } from "../../charts/plot";
import { Field } from "../../forms/section";
import { RatioForm } from "./ratio-form";
import { useStage } from "./use-stage";

export function LoadLine() {
  const { stage, read, facts } = useStage();
  const [load, setLoad] = useState(stage.load?.ohms ?? stage.ratedLoad);
  const volts = Object.values(read.volts)[0];
  const own = Object.values(read.read);
  const now = own.length > 0 ? own.reduce((a, b) => a + b, 0) / own.length : undefined;
  const rated = stage.tubes[0]!.type.ratings?.plateWatts;
  const target = facts.own ?? facts.label ?? (rated && volts?.plate ? (0.675 * rated) / volts.plate : undefined);
  const supply = volts?.plate;
  const primary = stage.ratedLoad > 0 ? (stage.primaryOhms * load) / stage.ratedLoad : stage.primaryOhms;
  const parallel = stage.single ? stage.tubes.length : stage.tubes.filter((t) => t.half === 0).length;
  const made = useMemo((): PlateCurves | string | undefined => {
    if (supply === undefined) return undefined;
    try {
      return plateCurves({
        type: stage.tubes[0]!.type,
        single: stage.single,
        tubes: Math.max(1, parallel),
        supply,
        screen: volts?.screen,
        ...(stage.ultralinear === undefined ? {} : { ultralinear: stage.ultralinear }),
        idle: now ?? target ?? 0.03,
        primary,
      });
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      return error.message;
    }
  }, [stage, supply, volts?.screen, now, target, primary, parallel]);
  const loads = [...new Set([0.5, 1, 2].map((f) => f * stage.ratedLoad).filter((l) => l > 0))];
  const wrong = stage.load && stage.ratedLoad > 0 && Math.abs(stage.load.ohms / stage.ratedLoad - 1) > 0.3;
  return (
    <div className="space-y-4">
      {wrong && (
        <p className="text-xl font-bold text-warning">
          ▲ {stage.load!.name} is {formatQuantity(stage.load!.ohms, "Ω", 2)} on a transformer made for{" "}
          {formatQuantity(stage.ratedLoad, "Ω", 2)}.
        </p>
      )}
      <Field label="Load on the secondary">
        <select className="select w-56" value={load} onChange={(e) => setLoad(Number(e.target.value))}>
          {[...new Set([...loads, load])]
            .sort((a, b) => a - b)
            .map((l) => (
              <option key={l} value={l}>
                {formatQuantity(l, "Ω", 3)}
                {l === stage.ratedLoad ? " (rated)" : ""}
              </option>
            ))}
        </select>
      </Field>
      {made === undefined && <p role="status">Working out the volts…</p>}
      {typeof made === "string" && <p role="alert">{made}</p>}
      {made && typeof made !== "string" && (
        <>
          <p className="text-2xl font-bold" data-testid="load-says">
            {formatQuantity(primary, "Ω", 3)} {stage.single ? "" : "plate to plate "}clips at {formatQuantity(made.clip.amps, "A", 3)} and{" "}
            {formatVolts(made.clip.volts)}: about {formatQuantity(made.clip.watts, "W", 2)}.
          </p>
          <CurvesChart made={made} now={now} target={target} supply={supply!} type={stage.tubes[0]!.type.type} single={stage.single} />
        </>
      )}
      <RatioForm wanted={stage.primaryOhms || undefined} load={stage.load?.ohms} />
    </div>
  );
}

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP, RIGHT] = [760, 400, 52, 30, 12, 60];

function CurvesChart({
  made,
  now,
  target,
  supply,
  type,
  single,
}: {
  made: PlateCurves;
  now?: number;
  target?: number;
  supply: number;
  type: string;
  single: boolean;
}) {
  const most = 1.1 * Math.max(made.clip.amps, made.curves[0]!.points.at(-1)![1] * 0.8);
  const wide = Math.max(made.load[1]![0], 1.6 * supply);
  const x = scaleLinear([0, wide], [LEFT, WIDTH - RIGHT]);
  const y = scaleLinear([0, most * 1e3], [HEIGHT - BOTTOM, TOP]);
  const at = ([v, i]: readonly [number, number]): Point => [x(v), y(i * 1e3)];
  const inside = (points: readonly (readonly [number, number])[]) => points.filter(([v, i]) => v <= wide && i <= most);
  return (
    <figure>
      <figcaption className="soft text-sm">
        {words(`Plate current of one ${type}, mA, against plate volts, at its actual screen.`)} ▬{" "}
        {single ? "load line" : "composite load line of the pair"}, ┄ plate rating, ● idle now, ○ target, ◆ where it clips
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full"
        role="img"
        aria-label={`Plate curves of ${type} with the load line; it clips at ${formatVolts(made.clip.volts)} and ${formatQuantity(made.clip.amps, "A", 3)}`}
      >
        <YAxis x={LEFT} width={WIDTH - LEFT - RIGHT} scale={y} ticks={6} />
        <XAxis y={HEIGHT - BOTTOM} scale={x} ticks={8} />
        {made.curves.map((c) => {
          const points = inside(c.points);
          const end = points.at(-1);
          return (
            <g key={c.grid}>
              <Line points={points.map(at)} stroke="var(--soft)" strokeWidth={1.3} />
              {end && (
                <text x={Math.min(WIDTH - 46, x(end[0]) + 4)} y={y(end[1] * 1e3) + 3} fontSize={11} fill="var(--soft)">
                  {fixed(c.grid, 0)} V
                </text>
              )}
            </g>
          );
        })}
        <Line points={inside(made.limit).map(at)} stroke="var(--color-warning)" strokeWidth={2} strokeDasharray="6 4" />
        <Line
          points={inside(made.load).length === 2 ? made.load.map(at) : clipped(made.load, most).map(at)}
          stroke="var(--color-primary)"
          strokeWidth={2.5}
        />
        {now !== undefined && <circle cx={x(supply)} cy={y(now * 1e3)} r={7} fill="currentColor" />}
        {target !== undefined && <circle cx={x(supply)} cy={y(target * 1e3)} r={7} fill="none" stroke="currentColor" strokeWidth={2.5} />}
        <rect
          x={x(made.clip.volts) - 6}
          y={y(made.clip.amps * 1e3) - 6}
          width={12}
          height={12}
          fill="var(--color-primary)"
          transform={`rotate(45 ${x(made.clip.volts)} ${y(made.clip.amps * 1e3)})`}
        />
      </svg>
    </figure>
  );
}

/** The line's part below the top of the picture. */
function clipped([a, b]: readonly (readonly [number, number])[], most: number): [number, number][] {
  const [[v0, i0], [v1, i1]] = [a!, b!];
  const part = i0 > most ? (most - i0) / (i1 - i0) : 0;
  return [
    [v0 + (v1 - v0) * part, Math.min(i0, most)],
    [v1, i1],
  ];
}
