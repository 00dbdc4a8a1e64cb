"use client";
/** A checked part goes in: the line on the tape, what it does to the circuit in use, and a piece less in the drawer. */

import { useState } from "react";
import { toldChecks, worstOf, type PartCheck } from "@/core/capacitor/check";
import { refusedAsBeyond } from "@/core/repair/covered";
import { partChanged } from "@/core/repair/part-acts";
import { describePart } from "@/core/circuit/part-words";
import type { Element } from "@/core/circuit/circuit";
import { OLD_PART_PLACES, type OldPartPlace } from "@/core/tape/events/words";
import { Field } from "../../forms/section";
import { useGateOpen } from "../../frame/gate";
import { useJob } from "../../job/job-context";

export interface ToFit {
  part: Element;
  newPart: string;
  set: string[];
  checks: readonly PartCheck[];
  reason: string;
  measured?: string;
}

/** @param stock number of the drawer's part and the pieces that it takes. */
export function FitPart({ fits, stock, done }: { fits: ToFit[]; stock?: { number: number; pieces: number }; done?(): void }) {
  const { say, view } = useJob();
  const open = useGateOpen("work");
  const [why, setWhy] = useState("");
  const [went, setWent] = useState<OldPartPlace>("bag for the owner");
  const [fixing, setFixing] = useState("");
  const [unagreed, setUnagreed] = useState("");
  const changeOf = (f: ToFit) => {
    const planned = view.state.planned.findLast((p) => p.position.toUpperCase() === f.part.name && !p.ended)?.root;
    return { position: f.part.name, kind: "replacement" as const, newPart: f.newPart, reversible: true, ...(planned ? { planned } : {}) };
  };
  const beyond = fits.flatMap((f) => refusedAsBeyond(view.state, changeOf(f)) ?? []);
  const worst = worstOf(fits.flatMap((f) => f.checks));
  const fit = () => {
    say(
      ...fits.map((f, i) =>
        partChanged({
          ...changeOf(f),
          unagreed: beyond.length > 0 ? unagreed : undefined,
          oldPart: describePart(f.part) ?? f.part.name,
          oldMeasured: f.measured?.slice(0, 300),
          // The pieces leave the drawer with the first line, by the server.
          ...(stock ? { source: "stock" as const, stock: stock.number, pieces: i === 0 ? stock.pieces : 0 } : {}),
          reason: [f.reason, why.trim()].filter(Boolean).join("; ").slice(0, 4000),
          oldWent: went,
          fixing,
          set: f.set,
          checks: toldChecks(f.checks),
        }),
      ),
    );
    done?.();
  };
  const wantsReason = worst === "out" || worst === "none";
  return (
    <div className="mt-3">
      <div className="flex flex-wrap items-end gap-3">
        <Field label="How it is fixed" className="w-64">
          <input
            className="input w-full"
            placeholder="hooked before solder, off the board"
            value={fixing}
            onChange={(e) => setFixing(e.target.value)}
          />
        </Field>
        <Field label="Old part goes to">
          <select className="select w-48" value={went} onChange={(e) => setWent(e.target.value as OldPartPlace)}>
            {OLD_PART_PLACES.map((p) => (
              <option key={p}>{p}</option>
            ))}
          </select>
        </Field>
        {wantsReason && (
          <Field
            label={worst === "out" ? "It may not stand there. Fit it all the same because" : "Not all is known. Fit it because"}
            className="w-80"
          >
            <input className="input w-full" value={why} onChange={(e) => setWhy(e.target.value)} />
          </Field>
        )}
        {beyond.length > 0 && (
          <Field label={`▲ ${beyond[0]} It cannot wait because`} className="basis-full">
            <input className="input w-full" value={unagreed} onChange={(e) => setUnagreed(e.target.value)} />
          </Field>
        )}
        <button
          className={`btn ${worst === "in" || worst === "watch" ? "btn-primary" : "btn-outline"}`}
          disabled={!open || (wantsReason && why.trim().length < 3) || (beyond.length > 0 && unagreed.trim().length < 3)}
          onClick={fit}
        >
          Log as fitted: {fits.map((f) => f.part.name).join(", ")}
        </button>
      </div>
      {!open && <p className="text-sm text-warning">▲ The amp is not proven dead: nothing is fitted before it is.</p>}
    </div>
  );
}
