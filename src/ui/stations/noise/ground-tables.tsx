/** The wires and the currents of a ground map, to be edited in place. */

import type { GroundMapDrawn } from "@/core/tape/events/noise-events";
import type { GroundAnswer } from "@/core/noise/grounds";
import { formatQuantity } from "@/core/quantity/format";
import { Section } from "../../forms/section";

export function GroundTables({ map, setMap, answer }: { map: GroundMapDrawn; setMap(m: GroundMapDrawn): void; answer: GroundAnswer }) {
  const points = [...new Set(map.wires.flatMap((w) => [w.from, w.to]))];
  const wire = (i: number, part: Partial<GroundMapDrawn["wires"][number]>) =>
    setMap({ ...map, wires: map.wires.map((w, k) => (k === i ? { ...w, ...part } : w)) });
  const current = (i: number, part: Partial<GroundMapDrawn["currents"][number]>) =>
    setMap({ ...map, currents: map.currents.map((c, k) => (k === i ? { ...c, ...part } : c)) });
  const number = (label: string, value: number | undefined, set: (v: number | undefined) => void) => (
    <input
      className="input input-sm w-16 px-2 text-right"
      type="number"
      min={0}
      step="any"
      aria-label={label}
      value={value ?? ""}
      onChange={(e) => set(e.target.value === "" ? undefined : Math.max(0, Number(e.target.value)))}
    />
  );
  const point = (label: string, value: string, set: (v: string) => void) => (
    <input
      className="input input-sm w-32 px-2"
      aria-label={label}
      list="ground-points"
      value={value}
      onChange={(e) => set(e.target.value)}
    />
  );
  const remove = (label: string, go: () => void) => (
    <button type="button" className="btn btn-ghost btn-sm" aria-label={label} onClick={go}>
      ✕
    </button>
  );
  return (
    <>
      <datalist id="ground-points">
        {points.map((p) => (
          <option key={p} value={p} />
        ))}
      </datalist>
      <Section title="Wires" hint="resistance from the area and length of the copper, or as measured; 0 mm² for chassis or a bolted joint">
        <table className="table table-xs" aria-label="Wires">
          <thead>
            <tr>
              <th>From</th>
              <th>To</th>
              <th>mm²</th>
              <th>m</th>
              <th>Ω measured</th>
              <th className="text-right">Ω</th>
              <th className="text-right">A</th>
              <th className="text-right">Voltage along it</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {map.wires.map((w, i) => {
              const hum = answer.wires[i]!;
              return (
                <tr key={i} className={hum.shared ? "font-bold" : ""}>
                  <td>{point(`From of wire ${i + 1}`, w.from, (from) => wire(i, { from }))}</td>
                  <td>{point(`To of wire ${i + 1}`, w.to, (to) => wire(i, { to }))}</td>
                  <td>{number(`Area of wire ${i + 1}`, w.area, (area) => wire(i, { area: area ?? 0 }))}</td>
                  <td>{number(`Length of wire ${i + 1}`, w.length, (length) => wire(i, { length: length ?? 0 }))}</td>
                  <td>{number(`Ohms of wire ${i + 1}`, w.ohms, (ohms) => wire(i, { ohms }))}</td>
                  <td className="text-right whitespace-nowrap tabular-nums">{formatQuantity(hum.ohms, "Ω", 2)}</td>
                  <td
                    className="text-right whitespace-nowrap tabular-nums"
                    title={hum.carries.map((c) => `${c.what} ${formatQuantity(c.amps, "A", 2)}`).join(", ")}
                  >
                    {hum.amps > 1e-9 ? formatQuantity(hum.amps, "A", 2) : "–"}
                  </td>
                  <td className="text-right whitespace-nowrap tabular-nums">
                    {hum.volts > 1e-9 ? formatQuantity(hum.volts, "V", 2) : "–"} {hum.shared && "▲"}
                  </td>
                  <td>{remove(`Leave wire ${i + 1} out`, () => setMap({ ...map, wires: map.wires.filter((_, k) => k !== i) }))}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
        <button
          type="button"
          className="btn btn-sm mt-1"
          onClick={() => setMap({ ...map, wires: [...map.wires, { from: points[0] ?? "input jack", to: "", area: 0.35, length: 0.1 }] })}
        >
          Another wire
        </button>
      </Section>
      <Section
        title="Currents"
        hint="currents that return through these wires; first the two ground points of the signal: the input’s and the first stage’s"
      >
        <div className="mb-2 flex flex-wrap gap-3 text-sm">
          <label>Input&apos;s ground {point("Input's ground", map.inputGround, (inputGround) => setMap({ ...map, inputGround }))}</label>
          <label>
            First stage&apos;s ground {point("First stage's ground", map.stageGround, (stageGround) => setMap({ ...map, stageGround }))}
          </label>
        </div>
        <table className="table table-xs max-w-3xl" aria-label="Currents">
          <tbody>
            {map.currents.map((c, i) => (
              <tr key={i}>
                <td>
                  <input
                    className="input input-sm w-48"
                    aria-label={`Current ${i + 1}`}
                    value={c.what}
                    onChange={(e) => current(i, { what: e.target.value })}
                  />
                </td>
                <td>{point(`From of current ${i + 1}`, c.from, (from) => current(i, { from }))}</td>
                <td>{point(`To of current ${i + 1}`, c.to, (to) => current(i, { to }))}</td>
                <td>{number(`Amperes of current ${i + 1}`, c.amps, (amps) => current(i, { amps: amps ?? 0 }))} A</td>
                <td>{remove(`Leave current ${i + 1} out`, () => setMap({ ...map, currents: map.currents.filter((_, k) => k !== i) }))}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <button
          type="button"
          className="btn btn-sm mt-1"
          onClick={() =>
            setMap({ ...map, currents: [...map.currents, { what: "", from: points[0] ?? "", to: points.at(-1) ?? "", amps: 0.1 }] })
          }
        >
          Another current
        </button>
      </Section>
    </>
  );
}
