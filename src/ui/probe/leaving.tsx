"use client";
/** The way out: is the amp off? A slip of the foot must never log an amp as off that is on, so that answer takes a long press. */

import { useJob } from "../job/job-context";
import { Keys } from "./keys";
import { usePedal } from "./pedal";

export function Leaving({ why, out, back }: { why: string; out(): void; back?(): void }) {
  const { say, view, energyKind } = useJob();
  // Unwatched for a while the guard no longer says live: as long as nobody has said off, it may be.
  const live = energyKind === "live" || view.state.power?.state === "on";
  const off = () => {
    if (live) say({ type: "power", payload: { state: "off", plug: "out" } });
    out();
  };
  const pedal = usePedal({
    short: out,
    long: off,
    other(key) {
      if (key === "o") off();
      else if (key === "escape" && back) back();
      else return false;
      return true;
    },
  });
  return (
    <>
      <section aria-label="Power-off question" aria-live="assertive" className="flex flex-1 flex-col justify-center gap-8 px-4 md:px-12">
        {why && <p className="probe-out text-5xl leading-tight font-bold">{why}</p>}
        {live ? (
          <>
            <p className="text-7xl leading-tight font-bold">Is it off, and the plug out?</p>
            <p className="text-4xl">
              <strong>Hold</strong> the key: log power OFF and plug out. <strong>Press</strong>: the amp stays LIVE.
            </p>
            <p className="soft text-2xl">
              Off does not mean dead: the reservoirs keep their charge. Prove it dead at Make safe before you reach inside.
            </p>
          </>
        ) : (
          <p className="text-6xl font-bold">The amp is not logged as on.</p>
        )}
      </section>
      <Keys
        pedal={pedal}
        keys={[
          ...(live
            ? ([
                ["hold", "off, plug out"],
                ["press", "it stays on"],
                ["O", "off, plug out"],
              ] as [string, string][])
            : ([["press", "leave"]] as [string, string][])),
          ...(back ? ([["Esc", "back to the probe"]] as [string, string][]) : []),
        ]}
      />
    </>
  );
}
