"use client";
/** The mains side in figures: tap and frequency against the wall, the fuse, a capacitor to chassis, step-down and isolation. */

import { figure, words } from "@/core/language/language";
import { isLineConnected } from "@/core/circuit/mains-connection";
import { useForm } from "react-hook-form";
import { chassisAmps, fuseFor, judgeFuse, largestToChassis, onLine, tapFor, transformerFor } from "@/core/bring-up/mains-frame";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { Figure } from "../../forms/figure";
import { Field, Section } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { VerdictMark } from "../../forms/verdict-mark";
import type { BringUpBench } from "./use-bring-up";

export function MainsFrame({ wall, solved }: BringUpBench) {
  const { view, settings } = useJob();
  const circuit = view.circuit!;
  const rated = circuit.mains;
  const direct = isLineConnected(circuit);
  const { register, watch } = useForm({
    defaultValues: {
      wall: figure(view.state.mainsVolts ?? wall),
      hertz: figure(rated?.hertz ?? 50),
      taps: "",
      capacitor: "",
      fuse: circuit.facts.fuse ?? "",
    },
  });
  const typed = watch();
  const number = (key: keyof typeof typed, unit: "V" | "F" | "A" | undefined) => {
    const parsed = parseQuantity(typed[key], { unit, decimal: settings.decimal });
    return parsed.ok && parsed.quantity.value > 0 ? parsed.quantity.value : undefined;
  };
  const field = (key: keyof typeof typed, label: string, width = "w-28") => (
    <Field label={label}>
      <input className={`input text-right ${width}`} {...register(key)} />
    </Field>
  );
  const now = number("wall", "V");
  const hertz = number("hertz", undefined);
  const taps = typed.taps
    .split(/[\s,;]+/)
    .map(Number)
    .filter((n) => n > 0);
  const judged = rated && now && hertz ? onLine(rated, { volts: now, hertz }) : undefined;
  const farads = number("capacitor", "F");
  const leak = farads && now && hertz ? chassisAmps(farads, now, hertz) : undefined;
  const limit = settings.limits.leakageAmps;
  const amps = solved.answer?.fullAmps;
  const fitted = number("fuse", "A");
  const fuse = fitted && amps ? judgeFuse(fitted, amps) : undefined;
  return (
    <div className="max-w-4xl">
      <p className="soft mb-3 text-sm">
        {words(
          "Mains wiring is subject to local codes and in many places reserved to licensed persons. Scutum computes and reminds; it approves nothing.",
        )}
      </p>
      <Section
        title="Tap and frequency"
        hint={rated ? `the circuit is for ${rated.volts} V ${rated.hertz} Hz` : words("the circuit file does not give its mains")}
      >
        <div className="flex flex-wrap items-end gap-4">
          {field("wall", "At the amp's plug, V")}
          {field("hertz", "Hertz", "w-20")}
          {!direct && field("taps", "Primary taps, V", "w-44")}
          {judged && (
            <p className="flex-1 pb-2">
              <VerdictMark verdict={judged.verdict} word /> {judged.why || "as the amp was built for"}
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
      <Section title="Fuse" hint="in the live wire, before the switch">
        <div className="flex flex-wrap items-end gap-4">
          {field("fuse", "Fitted, A", "w-24")}
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
          {field("capacitor", "Capacitance, F (47n)", "w-24")}
          <p className="flex-1 pb-2">
            {leak === undefined ? (
              <span className="soft">
                {now && hertz
                  ? `${formatQuantity(largestToChassis(limit, now, hertz), "F", 2)} is the largest that the limit allows.`
                  : "Enter the volts and hertz above"}
              </span>
            ) : (
              <>
                <VerdictMark verdict={leak <= limit ? "in" : "out"} word /> {formatQuantity(leak, "A", 2)} through a person who touches the
                chassis
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
            name="Transformer, with a third to spare"
            value={solved.answer?.fullVoltAmperes ? `${transformerFor(solved.answer.fullVoltAmperes)} VA` : "–"}
          />
          <Figure name="Line" value={rated ? `${rated.volts} V ${rated.hertz} Hz` : "–"} />
        </dl>
      </Section>
    </div>
  );
}
