"use client";
/** A control measured from its start along the turn: its law drawn, dead zones and jumps named. */

import { useState } from "react";
import { scaleLinear } from "d3-scale";
import type { Element } from "@/core/circuit/circuit";
import { wiperShare } from "@/core/circuit/taper";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { judgeSweep, type Law, type PotSweep } from "@/core/cold/sweep-pot";
import { Line, XAxis, YAxis, type Point } from "../../charts/plot";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { VerdictMark } from "../../forms/verdict-mark";

const TURNS = [0, 10, 20, 30, 40, 50, 60, 70, 80, 90, 100];

export function Pots() {
  const { view } = useJob();
  const pots = view.circuit?.elements.filter((e) => e.type === "POT") ?? [];
  const [at, setAt] = useState(pots[0]?.name ?? "");
  if (pots.length === 0) return <p className="soft">This circuit has no potentiometer.</p>;
  const pot = pots.find((p) => p.name === at) ?? pots[0]!;
  const taken = view.state.sweeps.get(pot.name.toUpperCase());
  const judged = taken && judgeSweep(taken.points, taken.total, pot.value, pot.params.taper as Law);

  return (
    <Section title="Controls" hint="measure from start to wiper at several positions, one end of the control lifted">
      <div className="mb-3 flex flex-wrap gap-1" role="group" aria-label="Which control">
        {pots.map((p) => (
          <button
            key={p.name}
            className={`btn btn-sm min-h-11 ${p === pot ? "btn-primary" : "btn-ghost"}`}
            aria-pressed={p === pot}
            onClick={() => setAt(p.name)}
          >
            {p.name}{" "}
            <span className="font-normal">
              {formatQuantity(p.value!, "Ω", 2)} {String(p.params.taper ?? "linear")}
            </span>
          </button>
        ))}
      </div>
      <div className="grid gap-6 lg:grid-cols-2">
        <SweepForm key={pot.name} pot={pot} />
        <div>
          {judged ? (
            <>
              <p className="text-2xl font-bold">
                <VerdictMark verdict={judged.verdict} word size={18} /> {judged.law ?? "law unknown"}
              </p>
              {judged.says.map((s) => (
                <p key={s}>{s}</p>
              ))}
            </>
          ) : (
            <p className="soft">Not measured yet. The line shows the law that the circuit gives.</p>
          )}
          <SweepChart sweep={judged} law={(pot.params.taper as Law) ?? "linear"} total={taken?.total ?? pot.value!} name={pot.name} />
        </div>
      </div>
    </Section>
  );
}

/** The track from end to end and the wiper at each tenth of the turn. */
function SweepForm({ pot }: { pot: Element }) {
  const { say, settings } = useJob();
  const { field, onSubmit, refused } = useTypedForm({ total: "", ohms: TURNS.map(() => "") }, ({ total, ohms }) => {
    const read = (text: string) => parseQuantity(text, { unit: "Ω", decimal: settings.decimal });
    const whole = read(total);
    if (!whole.ok) return `End to end: ${whole.why}; accepted: ${whole.accepted}`;
    const points: { turn: number; ohms: number }[] = [];
    for (const [i, text] of ohms.entries()) {
      if (text.trim() === "") continue;
      const value = read(text);
      if (!value.ok) return `At ${TURNS[i]} %: ${value.why}; accepted: ${value.accepted}`;
      points.push({ turn: TURNS[i]! / 100, ohms: value.quantity.value });
    }
    try {
      judgeSweep(points, whole.quantity.value);
    } catch (error) {
      return (error as Error).message;
    }
    say({ type: "pot-sweep", payload: { pot: pot.name, total: whole.quantity.value, points } });
  });
  return (
    <form onSubmit={onSubmit} className="space-y-2">
      <Field label={`${pot.name} from end to end, Ω`}>
        <input className="input w-32 text-right" placeholder={formatQuantity(pot.value!, "Ω", 2).replace(/ ?Ω/, "")} {...field("total")} />
      </Field>
      <fieldset>
        <legend className="text-sm">Start to wiper, Ω, at each tenth of the turn; three or more</legend>
        <div className="grid grid-cols-4 gap-2">
          {TURNS.map((turn, i) => (
            <label key={turn} className="text-xs">
              <span className="soft">{turn} %</span>
              <input className="input input-sm min-h-10 w-full text-right" {...field(`ohms.${i}`)} />
            </label>
          ))}
        </div>
      </fieldset>
      <button className="btn btn-primary">Log the sweep</button>
      <Refused>{refused}</Refused>
    </form>
  );
}

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP] = [420, 250, 56, 30, 10];

function SweepChart({ sweep, law, total, name }: { sweep?: PotSweep; law: Law; total: number; name: string }) {
  const x = scaleLinear([0, 1], [LEFT, WIDTH - 22]);
  const y = scaleLinear([0, total], [HEIGHT - BOTTOM, TOP]);
  const drawn = Array.from({ length: 41 }, (_, i): Point => [x(i / 40), y(wiperShare(law, i / 40) * total)]);
  const read = sweep?.points.map((p): Point => [x(p.turn), y(p.ohms)]);
  return (
    <figure className="mt-2">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full max-w-lg"
        role="img"
        aria-label={`${name}: resistance against rotation, ${sweep ? `${sweep.points.length} readings` : "no readings"}, beside the ${law} law`}
      >
        {sweep?.dead.map(([a, b]) => (
          <rect key={a} x={x(a)} width={x(b) - x(a)} y={TOP} height={HEIGHT - BOTTOM - TOP} fill="var(--color-base-300)" />
        ))}
        <YAxis x={LEFT} width={WIDTH - 22 - LEFT} scale={y} ticks={4} format={(o) => formatQuantity(o, "Ω", 2)} />
        <XAxis y={HEIGHT - BOTTOM} scale={x} ticks={[0, 0.25, 0.5, 0.75, 1]} format={(t) => `${t * 100} %`} />
        <Line points={drawn} stroke="var(--soft)" strokeDasharray="5 4" strokeWidth={1.5} />
        {read && <Line points={read} stroke="var(--color-base-content)" strokeWidth={2.5} />}
        {sweep?.points.map((p) => (
          <circle key={p.turn} cx={x(p.turn)} cy={y(p.ohms)} r={4} fill="var(--color-base-content)" />
        ))}
        {sweep?.jumps.map((j) => (
          <text
            key={j.from}
            x={x((j.from + j.to) / 2)}
            y={TOP + 12}
            textAnchor="middle"
            fontSize={12}
            fontWeight={700}
            fill="var(--color-error)"
          >
            jump
          </text>
        ))}
      </svg>
      <figcaption className="soft text-xs">
        dashed: the {law} law of {formatQuantity(total, "Ω", 3)}; grey: dead zone
      </figcaption>
    </figure>
  );
}
