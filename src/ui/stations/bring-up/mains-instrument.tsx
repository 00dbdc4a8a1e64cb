"use client";
/** The mains at the amp as its instrument shows it, the dial of a variable transformer that listens, and the lamp in series. */

import { words } from "@/core/language/language";
import { wallVolts } from "@/core/circuit/mains-connection";
import { parseQuantity } from "@/core/quantity/parse";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { Section } from "../../forms/section";
import { useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { useInstruments } from "../../job/use-instruments";

const STEPS = [0.25, 0.5, 0.75, 1];
/** Below this part of its power a lamp is dark to the eye, above the other it is bright. */
const DARK = 0.05;
const BRIGHT = 0.5;

export function MainsInstrument() {
  const { view, settings, say } = useJob();
  const { mains, trouble, send } = useInstruments();
  const wall = wallVolts(view.circuit, settings.mainsVolts);
  const { field, onSubmit, refused } = useTypedForm({ text: "" }, ({ text }) => {
    const parsed = parseQuantity(text, { unit: "V", decimal: settings.decimal });
    if (!parsed.ok) return `${parsed.why}; accepted: 115`;
    const { value, echo } = parsed.quantity;
    if (value < 0 || value > 1.1 * wall) return `${echo}: accepted 0 to ${formatVolts(1.1 * wall)}`;
    void send({ tell: "set", mains: value });
  });

  if (!mains)
    return (
      <Section title={words("Mains instrument")}>
        <p className="soft">
          None is connected. A variable transformer or wattmeter can be connected through the bridge program; without one, type the volts
          into the field at the top.
        </p>
      </Section>
    );
  const lamp = mains.lamp
    ? `${mains.lamp} W lamp ${(mains.glow ?? 0) < DARK ? "dark" : (mains.glow ?? 0) > BRIGHT ? "BRIGHT" : "glowing"}`
    : "no lamp";
  return (
    <Section title={words("Mains instrument")}>
      <p className="text-3xl font-bold tabular-nums" data-testid="mains-shows" data-at={mains.at}>
        {formatVolts(mains.volts)}, {formatQuantity(mains.amps, "A", 3)}
        <span className="soft text-lg font-normal"> at the amp; {lamp}</span>
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-2">
        <form onSubmit={onSubmit} className="flex items-end gap-2">
          <label className="flex items-center gap-2 text-sm">
            Turn the dial to, V
            <input className="input w-28 text-right tabular-nums" inputMode="decimal" aria-invalid={refused !== ""} {...field("text")} />
          </label>
          <button className="btn">Turn</button>
        </form>
        {STEPS.map((part) => (
          <button key={part} className="btn btn-ghost" onClick={() => send({ tell: "set", mains: Math.round(part * wall) })}>
            {Math.round(part * wall)} V
          </button>
        ))}
        <button
          className="btn btn-outline"
          disabled={view.state.mainsVolts !== undefined && Math.abs(view.state.mainsVolts - mains.volts) < 0.5}
          onClick={() => say({ type: "mains", payload: { volts: Math.round(mains.volts * 2) / 2 } })}
        >
          Log these volts
        </button>
      </div>
      {(refused || trouble) && (
        <p role="alert" className="text-sm text-error">
          {refused || `The instrument was not reached (${trouble}): turn the dial by hand.`}
        </p>
      )}
    </Section>
  );
}
