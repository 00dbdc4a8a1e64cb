"use client";
/** The mains at the amp as its instrument shows it, the dial of a variable transformer that listens, and the lamp in series. */

import { useState } from "react";
import { wallVolts } from "@/core/circuit/line";
import { parseQuantity } from "@/core/quantity/parse";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { Section } from "../../forms/section";
import { useJob } from "../../frame/job-context";
import { useInstruments } from "../../frame/use-instruments";

const STEPS = [0.25, 0.5, 0.75, 1];
/** Below this part of its power a lamp is dark to the eye, above the other it is bright. */
const DARK = 0.05;
const BRIGHT = 0.5;

export function MainsInstrument() {
  const { view, settings, say } = useJob();
  const { mains, send } = useInstruments();
  const wall = wallVolts(view.circuit, settings.mainsVolts);
  const [text, setText] = useState("");
  const [refused, setRefused] = useState("");

  function turn(e: React.FormEvent) {
    e.preventDefault();
    const parsed = parseQuantity(text, { unit: "V", decimal: settings.decimal });
    if (!parsed.ok) return setRefused(`${parsed.why}; accepted: 115`);
    const { value, echo } = parsed.quantity;
    if (value < 0 || value > 1.1 * wall) return setRefused(`${echo}: accepted 0 to ${formatVolts(1.1 * wall)}`);
    send({ tell: "set", mains: value });
    setText("");
    setRefused("");
  }

  if (!mains)
    return (
      <Section title="Mains instrument">
        <p className="soft">
          None is heard. A variable transformer or a wattmeter that speaks the line protocol joins by the bridge; without one the volts are
          typed into the guard.
        </p>
      </Section>
    );
  const lamp = mains.lamp
    ? `${mains.lamp} W lamp ${(mains.glow ?? 0) < DARK ? "dark" : (mains.glow ?? 0) > BRIGHT ? "BRIGHT" : "glowing"}`
    : "no lamp";
  return (
    <Section title="Mains instrument">
      <p className="text-3xl font-bold tabular-nums" data-testid="mains-shows">
        {formatVolts(mains.volts)}, {formatQuantity(mains.amps, "A", 3)}
        <span className="soft text-lg font-normal"> at the amp; {lamp}</span>
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-2">
        <form onSubmit={turn} className="flex items-end gap-2">
          <label className="flex items-center gap-2 text-sm">
            Turn the dial to, V
            <input
              className="input w-28 text-right tabular-nums"
              inputMode="decimal"
              value={text}
              aria-invalid={refused !== ""}
              onChange={(e) => {
                setText(e.target.value);
                setRefused("");
              }}
            />
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
      {refused && (
        <p role="alert" className="text-sm text-error">
          {refused}
        </p>
      )}
    </Section>
  );
}
