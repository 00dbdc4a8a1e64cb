"use client";
/** Heaters: a series string with its ballast and where it is open; parallel heaters and the winding that feeds them. */

import { figure, fixed, words } from "@/core/language/language";
import { useForm } from "react-hook-form";
import type { HeaterWinding } from "@/core/circuit/circuit";
import { latestReading } from "@/core/tape/fold";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { findOpen, heaterLoad, heaterString, judgeHeaterVolts, type HeaterString } from "@/core/supply/heaters";
import { ReadingField } from "../../forms/reading-field";
import { Figure } from "../../forms/figure";
import { Field, Section } from "../../forms/section";
import { Stays } from "../../forms/stays";
import { useJob } from "../../job/job-context";
import { useTakeReading } from "../../forms/use-take-reading";
import { VerdictMark } from "../../forms/verdict-mark";

export function Heaters() {
  const { view } = useJob();
  const windings = view.circuit?.heaters ?? [];
  if (windings.length === 0) return <p className="soft">The circuit file names no heaters: a line *@heater would.</p>;
  return windings.map((h) => (h.string ? <Series key={h.name} winding={h} /> : <Parallel key={h.name} winding={h} />));
}

function Series({ winding }: { winding: HeaterWinding }) {
  const { view, settings } = useJob();
  const lineVolts = view.state.mainsVolts ?? view.circuit!.mains?.volts ?? settings.mainsVolts;
  let string: HeaterString;
  try {
    string = heaterString(view.circuit!, winding, lineVolts);
  } catch (error) {
    return <p role="alert">{(error as Error).message}</p>;
  }
  const read = new Map<string, number>();
  for (const name of [...string.elements.map((e) => e.tube), "ballast"]) {
    const value = latestReading(view.state, name === "ballast" ? ballastPoint(winding) : `${name}.heater`, "ohm")?.value;
    if (value !== undefined) read.set(name, value >= 1e9 ? Infinity : value);
  }
  const whole = latestReading(view.state, `${winding.name}.string`, "ohm")?.value;
  const open = findOpen(string, read);
  const next = open.open ? undefined : (open.next ?? undefined);
  return (
    <Section
      title={`Series string ${winding.name}`}
      hint={`${string.elements.map((e) => `${e.tube} ${e.type}`).join(" – ")} at ${lineVolts} V`}
    >
      <div className="rounded border border-base-300 bg-base-200 p-4">
        <p className="text-3xl font-bold" data-testid="string-verdict">
          {open.open
            ? `${open.open} is open`
            : next
              ? `Read ${next === "ballast" ? "the ballast" : `${next}'s heater`}`
              : "No element is open"}
        </p>
        <p className="mt-1">{open.says}</p>
        {open.open && open.open !== "ballast" && (
          <p className="soft text-sm">
            Live, the whole {Math.round(lineVolts)} V are across its pins and nothing across the others: do not look for it with the power
            on.
          </p>
        )}
        {next && (
          <Stays of={next} name={next}>
            {(at) => (
              <OhmField key={at} point={at === "ballast" ? ballastPoint(winding) : `${at}.heater`} expected={expectedOf(string, at)} />
            )}
          </Stays>
        )}
      </div>
      <dl className="mt-3 grid grid-cols-2 gap-x-6 gap-y-1 lg:grid-cols-4">
        <Figure name="Sum of the heaters" value={`${fixed(string.sum, 1)} V`} />
        <Figure name="Voltage for the ballast" value={`${fixed(string.dropVolts, 1)} V`} />
        <Figure
          name="Ballast wanted"
          value={`${formatQuantity(string.ballastOhms, "Ω", 3)} (fit ${formatQuantity(string.ballastFits, "Ω", 2)})`}
        />
        <Figure name="Ballast power" value={`${fixed(string.ballastWatts, 1)} W: fit ${figure(string.ballastRating)} W`} />
        <Figure name="Ballast fitted" value={string.fitted === undefined ? "not in the file" : formatQuantity(string.fitted, "Ω", 3)} />
        <Figure
          name="String current"
          value={`${fixed(string.stringAmps * 1000, 0)} mA, heaters at ${Math.round(string.heaterShare * 100)} %`}
        />
        <Figure
          name="Cold, whole string"
          value={`${formatQuantity(string.coldOhms, "Ω", 3)}${whole === undefined ? "" : `, read ${formatQuantity(whole, "Ω", 3)}`}`}
        />
        <Figure name="Surge at switch-on" value={formatQuantity(string.surgeAmps, "A", 2)} />
      </dl>
      {string.doubts.map((d) => (
        <p key={d} className="mt-1 text-warning">
          ▲ {d}
        </p>
      ))}
      <table className="table table-sm mt-2" aria-label={`Elements of ${winding.name}`}>
        <thead>
          <tr>
            <th>Element</th>
            <th className="text-right">Volts</th>
            <th className="text-right">Cold, about</th>
            <th className="text-right">Read</th>
          </tr>
        </thead>
        <tbody>
          {string.elements.map((e) => (
            <tr key={e.tube} className={open.open === e.tube ? "verdict-out font-bold" : ""}>
              <td>
                {e.tube} {e.type}
              </td>
              <td className="text-right">{figure(e.volts)}</td>
              <td className="text-right">{formatQuantity(e.coldOhms, "Ω", 2)}</td>
              <td className="text-right">{read.has(e.tube) ? formatQuantity(read.get(e.tube)!, "Ω", 3) : ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Section>
  );
}

const ballastPoint = (h: HeaterWinding) => `${h.name}.ballast`;
const expectedOf = (s: HeaterString, name: string) => s.elements.find((e) => e.tube === name)?.coldOhms ?? s.fitted ?? 0;

/** One resistance, typed. */
function OhmField({ point, expected }: { point: string; expected: number }) {
  const reading = useTakeReading("cold-checks");
  return (
    <ReadingField
      button="Log it"
      label={`${point}, Ω`}
      hint={`about ${formatQuantity(expected, "Ω", 2)} cold; OL when the meter shows overload`}
      take={(text) => reading.typed({ point, kind: "ohm", text })}
    />
  );
}

function Parallel({ winding }: { winding: HeaterWinding }) {
  const { view, settings } = useJob();
  const { register, watch } = useForm({ defaultValues: { rated: "", volts: "" } });
  const { rated, volts } = watch();
  const amps = parseQuantity(rated, { unit: "A", decimal: settings.decimal });
  const load = heaterLoad(view.circuit!, winding, rated.trim() && amps.ok && amps.quantity.value > 0 ? amps.quantity.value : undefined);
  const typed = parseQuantity(volts, { unit: "V", decimal: settings.decimal });
  const logged = latestReading(view.state, winding.name, "acv")?.value;
  const at = volts.trim() && typed.ok ? typed.quantity.value : logged;
  const judged = at === undefined ? undefined : judgeHeaterVolts(load.volts, at);
  return (
    <Section title={`Winding ${winding.name}`} hint={`${figure(load.volts)} V, ${winding.tubes.join(", ")}`}>
      <div className="flex flex-wrap items-end gap-6">
        <p className="text-2xl font-bold">
          {fixed(load.amps, 2)} A{" "}
          <span className="soft text-base font-normal">
            {fixed(load.watts, 1)} {words("W, all tubes in")}
          </span>
        </p>
        <Field label="Winding rated, A" error={rated.trim() && !amps.ok ? amps.why : undefined}>
          <input className="input w-24 text-right" {...register("rated")} />
        </Field>
        <Field label="Heater volts read" error={volts.trim() && !typed.ok ? typed.why : undefined}>
          <input className="input w-24 text-right" placeholder={logged === undefined ? "" : figure(logged)} {...register("volts")} />
        </Field>
        {judged && (
          <p>
            <VerdictMark verdict={judged.verdict} word /> <span className="text-sm">{judged.why}</span>
          </p>
        )}
      </div>
      {load.share !== undefined && load.doubts.length === 0 && (
        <p className="soft mt-1 text-sm">{Math.round(load.share * 100)} % of the winding&apos;s rating</p>
      )}
      {load.doubts.map((d) => (
        <p key={d} className="mt-1 text-warning">
          ▲ {d}
        </p>
      ))}
      <p className="soft mt-1 text-sm">
        {load.elements.map((e) => `${e.tube} ${e.type} ${figure(e.amps)} A`).join(", ")}. A heater cannot be measured in its socket: the
        winding in parallel has less than an ohm.
      </p>
    </Section>
  );
}
