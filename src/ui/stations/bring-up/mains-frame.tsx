"use client";
/** The mains side in figures: tap and frequency against the wall, the fuse, a capacitor to chassis, step-down and isolation. */

import { isLineConnected } from "@/core/circuit/line";
import { useState } from "react";
import { chassisAmps, fuseFor, judgeFuse, largestToChassis, onLine, tapFor, transformerFor } from "@/core/bring-up/mains-frame";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { Figure } from "../../forms/figure";
import { Field, Section } from "../../forms/section";
import { useJob } from "../../frame/job-context";
import { VerdictMark } from "../../frame/verdict-mark";
import type { BringUpBench } from "./use-bring-up";

export function MainsFrame({ wall, solved }: BringUpBench) {
  const { view, settings } = useJob();
  const circuit = view.circuit!;
  const rated = circuit.mains;
  const direct = isLineConnected(circuit);
  const [form, setForm] = useState<Record<string, string>>({});
  const text = (key: string, usual = "") => form[key] ?? usual;
  const number = (key: string, unit: "V" | "F" | "A" | undefined, usual?: string) => {
    const parsed = parseQuantity(text(key, usual), { unit, decimal: settings.decimal });
    return parsed.ok && parsed.quantity.value > 0 ? parsed.quantity.value : undefined;
  };
  const field = (key: string, label: string, usual = "", width = "w-28") => (
    <Field label={label}>
      <input
        className={`input text-right ${width}`}
        value={text(key, usual)}
        onChange={(e) => setForm({ ...form, [key]: e.target.value })}
      />
    </Field>
  );
  const now = number("wall", "V", String(view.state.mainsVolts ?? wall));
  const hertz = number("hertz", undefined, String(rated?.hertz ?? 50));
  const taps = text("taps")
    .split(/[\s,;]+/)
    .map(Number)
    .filter((n) => n > 0);
  const judged = rated && now && hertz ? onLine(rated, { volts: now, hertz }) : undefined;
  const farads = number("capacitor", "F");
  const leak = farads && now && hertz ? chassisAmps(farads, now, hertz) : undefined;
  const limit = settings.limits.leakageAmps;
  const amps = solved.answer?.fullAmps;
  const fitted = number("fuse", "A", circuit.facts.fuse ?? "");
  const fuse = fitted && amps ? judgeFuse(fitted, amps) : undefined;
  return (
    <div className="max-w-4xl">
      <p className="soft mb-3 text-sm">
        Wiring of the mains side is under local codes and, in many places, the work of a licensed person. Scutum computes and reminds; it
        does not release anything.
      </p>
      <Section
        title="Tap and frequency"
        hint={rated ? `the circuit is for ${rated.volts} V ${rated.hertz} Hz` : "the circuit file says nothing of its mains"}
      >
        <div className="flex flex-wrap items-end gap-4">
          {field("wall", "At the amp's plug, V", String(view.state.mainsVolts ?? wall))}
          {field("hertz", "Hertz", String(rated?.hertz ?? 50), "w-20")}
          {!direct && field("taps", "Taps it has, V", "", "w-44")}
          {judged && (
            <p className="flex-1 pb-2">
              <VerdictMark verdict={judged.verdict} word /> {judged.why || "as it was made for"}
            </p>
          )}
        </div>
        {now && taps.length > 0 && (
          <p className="mt-1">
            The <strong>{tapFor(taps, now)} V</strong> tap fits {formatVolts(now)}.
          </p>
        )}
        {direct && (
          <p className="mt-1">
            Line-connected: no tap to change. On another line it runs on a step-down transformer; the frequency matters to the clock or
            motor only. The step-down does not isolate unless it says so.
          </p>
        )}
      </Section>
      <Section title="Fuse" hint="in the live, before the switch">
        <div className="flex flex-wrap items-end gap-4">
          {field("fuse", "Fitted, A", circuit.facts.fuse ?? "", "w-24")}
          <p className="flex-1 pb-2">
            {amps === undefined ? (
              <span className="soft">the working current is being solved</span>
            ) : (
              <>
                Working current {formatQuantity(amps, "A", 2)}: <strong>{fuseFor(amps)} A slow</strong> fits.{" "}
                {fuse && (
                  <>
                    <VerdictMark verdict={fuse.verdict} word /> {fuse.why}
                  </>
                )}
              </>
            )}
          </p>
        </div>
      </Section>
      <Section title="Capacitor from line to chassis" hint={`limit of this shop ${formatQuantity(limit, "A", 2)}`}>
        <div className="flex flex-wrap items-end gap-4">
          {field("capacitor", "Its size", "", "w-24")}
          <p className="flex-1 pb-2">
            {leak === undefined ? (
              <span className="soft">
                {now && hertz
                  ? `${formatQuantity(largestToChassis(limit, now, hertz), "F", 2)} passes as much as the limit.`
                  : "volts and hertz are wanted"}
              </span>
            ) : (
              <>
                <VerdictMark verdict={leak <= limit ? "in" : "out"} word /> {formatQuantity(leak, "A", 2)} to whoever touches the chassis
                {leak > limit && ": remove it, or fit a safety type where the chassis is earthed"}
              </>
            )}
          </p>
        </div>
      </Section>
      <Section
        title={direct ? "Isolation transformer" : "Step-down and isolation"}
        hint={direct ? "before any instrument is clipped on" : "where this amp is used on another line, or probed with earthed instruments"}
      >
        <dl className="grid grid-cols-2 gap-4 lg:grid-cols-3">
          <Figure
            name="Draws"
            value={solved.answer?.fullVoltAmperes ? `${formatQuantity(solved.answer.fullVoltAmperes, undefined, 2)} VA` : "–"}
          />
          <Figure
            name="Transformer, a third in hand"
            value={solved.answer?.fullVoltAmperes ? `${transformerFor(solved.answer.fullVoltAmperes)} VA` : "–"}
          />
          <Figure name="Line" value={rated ? `${rated.volts} V ${rated.hertz} Hz` : "–"} />
        </dl>
      </Section>
    </div>
  );
}
