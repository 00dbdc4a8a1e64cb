"use client";
/** Findings of a station: those that were made, with their photos, and a form for a new one. */

import { useState } from "react";
import type { Severity } from "@/core/tape/events/words";
import type { StationId } from "@/core/tape/stations";
import { Section } from "../forms/section";
import { Thumbnail } from "../forms/photo-field";
import { useJob } from "../job/job-context";
import { lateInBrowser } from "../forms/late";

const FindingForm = lateInBrowser(() => import("./finding-form").then((m) => m.FindingForm), "min-h-48");
const CloseForm = lateInBrowser(() => import("./close-finding").then((m) => m.CloseForm));

const SHAPE: Record<Severity, string> = { note: "○", watch: "▲", fault: "■", danger: "■■" };

export function Findings({ station }: { station: StationId }) {
  const { view } = useJob();
  const findings = view.state.findings.filter((f) => f.station === station);
  return (
    <Section title="Findings" hint="place, what is wrong, severity, action">
      {findings.length === 0 && <p className="soft mb-2">No findings yet. Enter one finding at a time; add a photo of the place.</p>}
      <ul className="mb-3 space-y-2">
        {findings.map((f) => (
          <li key={f.seq} className="flex flex-wrap items-start gap-3">
            <span
              className={`w-10 text-lg ${f.severity === "fault" || f.severity === "danger" ? "verdict-out" : f.severity === "watch" ? "verdict-watch" : "soft"}`}
              aria-hidden
            >
              {SHAPE[f.severity]}
            </span>
            <span className={`min-w-48 flex-1 ${f.closed ? "opacity-70" : ""}`}>
              <strong>{f.place}</strong> {f.text}{" "}
              <span className="soft text-sm">
                ({f.severity}
                {f.action ? `; ${f.action}, ${f.brief === "ask" ? "ask the owner" : "agreed"}` : ""})
              </span>
              {f.closed && <span className="soft block text-sm">Closed: {f.closed}</span>}
            </span>
            {f.photos?.map((h) => (
              <Thumbnail key={h} hash={h} caption={f.place} />
            ))}
            {!f.closed && <CloseFinding seq={f.seq} />}
          </li>
        ))}
      </ul>
      <FindingForm station={station} button="Add finding" />
    </Section>
  );
}

function CloseFinding({ seq }: { seq: number }) {
  const { tape } = useJob();
  const [asking, setAsking] = useState(false);
  return asking ? (
    <CloseForm seq={seq} onDone={() => setAsking(false)} />
  ) : (
    <button className="btn btn-line btn-sm" disabled={seq >= tape.pendingFrom} onClick={() => setAsking(true)}>
      Close…
    </button>
  );
}
