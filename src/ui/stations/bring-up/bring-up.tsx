"use client";
/** Bring-up: to full mains a stage at a time; a blown fuse isolated; the load, the mains side and the settling run beside it. */

import { words } from "@/core/language/language";
import { late } from "../../forms/late";
import { useState } from "react";
import { wallVolts } from "@/core/circuit/mains-connection";
import { isolationOpen } from "@/core/bring-up/fuse-isolation-state";
import { Tabs } from "../../forms/tabs";
import { useJob } from "../../job/job-context";
import { Findings } from "../findings";
import { Stages } from "./stages";
import { useBringUp } from "./use-bring-up";

// Each comes when its tab is opened.
const FuseIsolation = late(() => import("./fuse-isolation").then((m) => m.FuseIsolation));
const Load = late(() => import("./load").then((m) => m.Load));
const MainsFrame = late(() => import("./mains-frame").then((m) => m.MainsFrame));
const WithoutCircuit = late(() => import("./without-circuit").then((m) => m.WithoutCircuit));
const Settling = late(() => import("./settling").then((m) => m.Settling));

export function BringUp() {
  const { view, settings } = useJob();
  const [lamp, setLamp] = useState(100);
  const open = isolationOpen(view.state);
  // The wall is what the dial is turned up to: not what stands at the amp half-way.
  const wall = wallVolts(view.circuit, settings.mainsVolts);
  const solved = useBringUp(wall, lamp, open);
  if (!view.circuit) return <WithoutCircuit />;
  const bench = { wall, lamp, setLamp, solved };
  return (
    <div>
      <Tabs
        label="Bring-up"
        first={open ? "fuse" : "stages"}
        tabs={[
          { id: "stages", name: "Stages", body: <Stages {...bench} /> },
          { id: "fuse", name: "Fuse and shorts", mark: open ? "▲" : undefined, body: <FuseIsolation {...bench} /> },
          { id: "load", name: "Speaker and load", body: <Load />, keep: true },
          { id: "mains", name: words("Mains side"), body: <MainsFrame {...bench} />, keep: true },
          { id: "settle", name: "Settling run", body: <Settling /> },
        ]}
      />
      <div className="max-w-4xl">
        <Findings station="bring-up" />
      </div>
    </div>
  );
}
