"use client";
/** The live-work check, one statement at a time, each to be confirmed by the key; then the power. */

import { refusedTo } from "@/core/shop/people";
import { words } from "@/core/language/language";
import { useState } from "react";
import { unmetGates } from "@/core/safety/power-gates";
import { isLineConnected, wallVolts } from "@/core/circuit/mains-connection";
import { powerOnLines } from "@/core/safety/power-on-act";
import { liveCheck } from "@/core/safety/live-check";
import { useJob } from "../job/job-context";
import { Keys } from "./keys";
import { usePedal } from "./pedal";
import type { ProbingOrder } from "@/core/walk/probe-order";
import { ORDER_WORDS } from "./use-probe-walk";

const THROUGH: Record<string, string> = {
  variable: "through the variable transformer",
  lamp: "through the series lamp",
  "lamp and variable": "through the lamp and the variable transformer",
  straight: "straight from the wall",
};
const ORDERS = Object.keys(ORDER_WORDS) as ProbingOrder[];

export function Asking({
  order,
  setOrder,
  done,
  out,
}: {
  /** Which order the points are probed in; none where there is only one. */
  order?: ProbingOrder;
  setOrder?(o: ProbingOrder): void;
  done(): void;
  out(): void;
}) {
  const { view, energyKind, say, settings, role } = useJob();
  const refused = refusedTo(role, { type: "gate-passed", payload: {} });
  const questions = liveCheck(view.circuit, view.reservoirs, view.state);
  const [at, setAt] = useState(0);
  const live = energyKind === "live";
  const through = (view.state.power?.through ?? "variable") as "variable" | "lamp" | "lamp and variable" | "straight";
  const without = view.state.power?.without ?? [];
  // Confirmed before the gates come: the statement is one of the questions.
  const isolated = isLineConnected(view.circuit);
  const wall = wallVolts(view.circuit, settings.mainsVolts);
  // Gates are no statements to be nodded through: each is passed by a long press, and that goes on the tape. The list is that of the
  // beginning: one that is passed must not move the next away under the key.
  const [gates] = useState(() => (live ? [] : unmetGates(view.circuit, view.state, { through, without, isolated }, wall)));
  // The power itself is the last thing that is confirmed.
  const steps = live
    ? questions
    : [
        ...questions,
        ...gates.map((g) => g.says),
        `Switch power on now, ${THROUGH[through]}, all ${view.state.power?.without.length ? "as before" : words("tubes fitted")}`,
      ];
  const gate = gates[at - questions.length];
  const pedal = usePedal({
    long() {
      if (!gate || refused) return;
      say({ type: "gate-passed", payload: { station: "bring-up", reason: `${gate.id}: key held in probe mode`, understood: true } });
      setAt(at + 1);
    },
    short() {
      if (gate) return;
      if (at < steps.length - 1) return setAt(at + 1);
      const checked = { type: "live-check", payload: { confirmed: questions } } as const;
      if (live) say(checked);
      else say(...powerOnLines({ through, without, isolated, unmet: [], reason: "", confirmed: questions }));
      done();
    },
    other(key) {
      if (key === "escape") out();
      else if (key === "b" || key === "arrowleft" || key === "backspace") setAt(Math.max(0, at - 1));
      else if (setOrder && /^[1-3]$/.test(key)) setOrder(ORDERS[Number(key) - 1]!);
      else return false;
      return true;
    },
  });

  return (
    <>
      <section aria-label="Live-work check" aria-live="assertive" className="flex flex-1 flex-col justify-center gap-8 px-4 md:px-12">
        <p className="soft text-3xl">{gate ? "▲ Safety condition not met" : `Safety check ${at + 1} of ${steps.length}: is this true?`}</p>
        <p className="text-7xl leading-tight font-bold">{steps[at]}</p>
        <p className="soft text-2xl">
          Local codes and licensed practice come first. If it is not true, put it right before you press the key.
          {gate && refused && ` ${refused}.`}
        </p>
      </section>
      {setOrder && (
        <fieldset className="flex flex-wrap items-center gap-3 px-4 md:px-12 pb-4 text-xl">
          <legend className="sr-only">Order of the points</legend>
          {ORDERS.map((o, i) => (
            <button
              key={o}
              tabIndex={-1}
              aria-pressed={o === order}
              className={`min-h-16 rounded border-2 px-5 ${o === order ? "border-primary font-bold" : "border-base-300"}`}
              onClick={() => setOrder(o)}
            >
              <kbd>{i + 1}</kbd> {ORDER_WORDS[o]}
            </button>
          ))}
        </fieldset>
      )}
      <Keys
        pedal={pedal}
        keys={[
          ...(gate && refused
            ? []
            : [
                (gate
                  ? ["hold", "go on without it (kept on the tape)"]
                  : ["press", at < steps.length - 1 ? "it is true" : live ? "it is true: begin" : "power is on: begin"]) as [
                  string,
                  string,
                ],
              ]),
          ["B", "back"],
          ...(setOrder ? ([["1 2 3", "order of the points"]] as [string, string][]) : []),
          ["Esc", gate && refused ? "not now: put it right first" : "not now"],
        ]}
      />
    </>
  );
}
