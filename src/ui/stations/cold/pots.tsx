"use client";
/** A control measured from its start along the turn: its law drawn, dead zones and jumps named. */

import { useState } from "react";
import { scaleLinear } from "d3-scale";
import { wiperShare } from "@/core/circuit/taper";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { judgeSweep, type Law, type PotSweep } from "@/core/walk/sweep-pot";
import { pathThrough } from "../../charts/path";
import { Field, Section } from "../../forms/section";
import { useJob } from "../../frame/job-context";
import { VerdictMark } from "../../frame/verdict-mark";

const TURNS = [0, 10, 20, 30, 40, 50, 60, 70, 80, 90, 100];

export function Pots() {
  const { view, say, settings } = useJob();
  const pots = view.circuit?.elements.filter((e) => e.type === "POT") ?? [];
  const [at, setAt] = useState(pots[0]?.name ?? "");
  const [total, setTotal] = useState("");
  const [ohms, setOhms] = useState<string[]>(TURNS.map(() => ""));
  const [refused, setRefused] = useState("");
  if (pots.length === 0) return <p className="soft">This circuit has no potentiometer.</p>;
  const pot = pots.find((p) => p.name === at) ?? pots[0]!;
  const taken = view.state.sweeps.get(pot.name.toUpperCase());
  const judged = taken && judgeSweep(taken.points, taken.total, pot.value, pot.params.taper as Law);

  function store(e: React.FormEvent) {
    e.preventDefault();
    const read = (text: string) => parseQuantity(text, { unit: "Ω", decimal: settings.decimal });
    const whole = read(total);
    if (!whole.ok) return setRefused(`End to end: ${whole.why}; accepted: ${whole.accepted}`);
    const points: { turn: number; ohms: number }[] = [];
    for (const [i, text] of ohms.entries()) {
      if (text.trim() === "") continue;
      const value = read(text);
      if (!value.ok) return setRefused(`At ${TURNS[i]} %: ${value.why}; accepted: ${value.accepted}`);
      points.push({ turn: TURNS[i]! / 100, ohms: value.quantity.value });
    }
    try {
      judgeSweep(points, whole.quantity.value);
    } catch (error) {
      return setRefused((error as Error).message);
    }
    say({ type: "pot-sweep", payload: { pot: pot.name, total: whole.quantity.value, points } });
    setOhms(TURNS.map(() => ""));
    setTotal("");
    setRefused("");
  }
  return (
    <Section title="Controls" hint="start to wiper along the turn, one end of the control lifted">
      <div className="mb-3 flex flex-wrap gap-1" role="group" aria-label="Which control">
        {pots.map((p) => (
          <button
            key={p.name}
            className={`btn btn-sm min-h-11 ${p === pot ? "btn-primary" : "btn-ghost"}`}
            aria-pressed={p === pot}
            onClick={() => {
              setAt(p.name);
              setRefused("");
            }}
          >
            {p.name}{" "}
            <span className="font-normal">
              {formatQuantity(p.value!, "Ω", 2)} {String(p.params.taper ?? "linear")}
            </span>
          </button>
        ))}
      </div>
      <div className="grid gap-6 lg:grid-cols-2">
        <form onSubmit={store} className="space-y-2">
          <Field label={`${pot.name} from end to end, Ω`}>
            <input
              className="input w-32 text-right"
              value={total}
              onChange={(e) => setTotal(e.target.value)}
              placeholder={formatQuantity(pot.value!, "Ω", 2).replace(/ ?Ω/, "")}
            />
          </Field>
          <fieldset>
            <legend className="text-sm">Start to wiper, Ω, at each tenth of the turn; three or more</legend>
            <div className="grid grid-cols-4 gap-2">
              {TURNS.map((turn, i) => (
                <label key={turn} className="text-xs">
                  <span className="soft">{turn} %</span>
                  <input
                    className="input input-sm min-h-10 w-full text-right"
                    value={ohms[i]}
                    onChange={(e) => {
                      setOhms(ohms.map((o, k) => (k === i ? e.target.value : o)));
                      setRefused("");
                    }}
                  />
                </label>
              ))}
            </div>
          </fieldset>
          <button className="btn btn-primary">Log the sweep</button>
          {refused && (
            <p role="alert" className="text-error">
              {refused}
            </p>
          )}
        </form>
        <div>
          {judged ? (
            <>
              <p className="text-2xl font-bold">
                <VerdictMark verdict={judged.verdict} word size={18} /> {judged.law ?? "no known law"}
              </p>
              {judged.says.map((s) => (
                <p key={s}>{s}</p>
              ))}
            </>
          ) : (
            <p className="soft">Not swept yet. Drawn is the law that the circuit has there.</p>
          )}
          <SweepChart sweep={judged} law={(pot.params.taper as Law) ?? "linear"} total={taken?.total ?? pot.value!} name={pot.name} />
        </div>
      </div>
    </Section>
  );
}

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP] = [420, 250, 56, 30, 10];

function SweepChart({ sweep, law, total, name }: { sweep?: PotSweep; law: Law; total: number; name: string }) {
  const x = scaleLinear([0, 1], [LEFT, WIDTH - 22]);
  const y = scaleLinear([0, total], [HEIGHT - BOTTOM, TOP]);
  const path = pathThrough(Array.from({ length: 41 }, (_, i) => [x(i / 40), y(wiperShare(law, i / 40) * total)] as const));
  const read = sweep && pathThrough(sweep.points.map((p) => [x(p.turn), y(p.ohms)] as const));
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
        {y.ticks(4).map((t) => (
          <g key={t}>
            <line x1={LEFT} x2={WIDTH - 22} y1={y(t)} y2={y(t)} stroke="currentColor" strokeOpacity={0.14} />
            <text x={LEFT - 6} y={y(t) + 4} textAnchor="end" fontSize={11} fill="var(--soft)">
              {formatQuantity(t, "Ω", 2)}
            </text>
          </g>
        ))}
        {[0, 0.25, 0.5, 0.75, 1].map((t) => (
          <text key={t} x={x(t)} y={HEIGHT - 8} textAnchor="middle" fontSize={11} fill="var(--soft)">
            {t * 100} %
          </text>
        ))}
        <path d={path} fill="none" stroke="var(--soft)" strokeDasharray="5 4" strokeWidth={1.5} />
        {read && <path d={read} fill="none" stroke="var(--color-base-content)" strokeWidth={2.5} />}
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
        dashed: the {law} law of {formatQuantity(total, "Ω", 3)}; grey: where nothing changes
      </figcaption>
    </figure>
  );
}
