"use client";
/** Help of a station: opened by its button, or by `?` from anywhere that is not a field. */

import { lateInBrowser } from "../forms/late";
import { useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { CircleQuestionMark } from "lucide-react";
import type { Station } from "@/core/tape/stations";

const HelpDialog = lateInBrowser(() => import("./help-dialog").then((m) => m.HelpDialog));

export function Help({ station }: { station: Station }) {
  const [open, setOpen] = useState(false);
  // By what is typed and not by where the key is: "?" lies elsewhere on other keyboards.
  useHotkeys("*", (e) => {
    if (e.key === "?") setOpen(true);
  });
  return (
    <>
      <button className="btn btn-ghost btn-sm min-h-9 px-2" aria-label="Help" title="Help: ?" onClick={() => setOpen(true)}>
        <CircleQuestionMark aria-hidden className="size-5" />
      </button>
      {open && <HelpDialog station={station} close={() => setOpen(false)} />}
    </>
  );
}
