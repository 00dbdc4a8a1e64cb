"use client";
/** Work: what was changed, what it was, what it is now, why, whether it can be reversed, where the old part went. */

import { useMemo, useState } from "react";
import { useForm } from "react-hook-form";
import { OLD_PART_PLACES, type OldPartPlace } from "@/core/tape/events/words";
import { alter } from "@/core/circuit/alter";
import { describePart } from "@/core/circuit/part-words";
import { findElement, type Circuit } from "@/core/circuit/circuit";
import { openApprovals } from "@/core/tape/fold";
import { Field, Section } from "../forms/section";
import { Gate } from "../frame/gate";
import { PartButton } from "../drawing/part-button";
import { workLayer } from "../drawing/layers";
import { openRun, reformRuns } from "@/core/capacitor/reform-run";
import { Tabs } from "../forms/tabs";
import { late, lateInBrowser } from "../frame/late";
import { CapacitorsProvider } from "./capacitors/use-capacitors";
import { useJob } from "../frame/job-context";
import { WorkList } from "./look/work-list";
import { TakeApart } from "./take-apart";

// Each comes when its tab is opened.
const CapacitorTable = late(() => import("./capacitors/capacitor-table").then((m) => m.CapacitorTable));
const Reforming = late(() => import("./capacitors/reforming").then((m) => m.Reforming));
const Substitute = late(() => import("./capacitors/substitute").then((m) => m.Substitute));
const Kit = late(() => import("./capacitors/kit").then((m) => m.Kit));
const StationDrawing = lateInBrowser(() => import("../drawing/station-drawing").then((m) => m.StationDrawing), "min-h-9");

const TABS = [
  { id: "changes", name: "Changes", body: <WorkDone />, keep: true },
  { id: "capacitors", name: "Capacitors", body: <CapacitorTable /> },
  { id: "reforming", name: "Reform", body: <Reforming /> },
  { id: "substitute", name: "Substitute", body: <Substitute /> },
  { id: "kit", name: "Kit", body: <Kit /> },
];

export function Work() {
  const { view, netlist } = useJob();
  if (!view.circuit || netlist === undefined) return <WorkDone />;
  return (
    <CapacitorsProvider circuit={view.circuit} netlist={netlist}>
      <div className="max-w-6xl">
        <Tabs tabs={TABS} label="Work" first={openRun(reformRuns(view.state)) ? "reforming" : "changes"} />
      </div>
    </CapacitorsProvider>
  );
}

function WorkDone() {
  const { view } = useJob();
  return (
    <div className="max-w-5xl">
      <WorkList />
      {view.circuit && <WorkDrawing circuit={view.circuit} />}
      <Approvals />
      {/* The owner's answer comes by telephone; only what is done inside the chassis waits for the proof. */}
      <Gate station="work">
        <Changes />
        <TakeApart />
      </Gate>
    </div>
  );
}

/** What is in the amp and not in its model. */
function WorkDrawing({ circuit }: { circuit: Circuit }) {
  const { view, jobId } = useJob();
  const layer = useMemo(() => workLayer(circuit, view.rows, view.state.changes), [circuit, view.rows, view.state]);
  return (
    <div className="mb-4">
      <StationDrawing layer={layer} />
      <a className="btn btn-outline mt-2" href={`/library/new?job=${jobId}`}>
        A model of its own from this amp
      </a>
    </div>
  );
}

function Changes() {
  const { view, say } = useJob();
  const { register, handleSubmit, reset, watch, formState } = useForm({
    defaultValues: {
      kind: "replacement",
      position: "",
      oldPart: "",
      oldMeasured: "",
      newPart: "",
      reason: "",
      reversible: true,
      oldWent: "bag for the owner",
      fixing: "",
      hypothesis: "",
      set: "",
      before: "",
    },
  });
  const [refused, setRefused] = useState("");
  const kind = watch("kind");
  const position = watch("position").trim();
  const known = view.circuit && position ? describePart(findElement(view.circuit, position)) : undefined;
  const store = handleSubmit((v) => {
    const text = (t: string, key: string) => (t.trim() ? { [key]: t.trim() } : {});
    const part = view.circuit && findElement(view.circuit, v.position.trim());
    const set = v.kind === "experiment" ? v.set.split(/[,;\s]+/).filter(Boolean) : [];
    try {
      // What is changed goes into the circuit in use: it must be one that can be made.
      if (view.circuit) alter(view.circuit, set);
    } catch (error) {
      return setRefused((error as Error).message);
    }
    setRefused("");
    say({
      type: "change",
      payload: {
        position: part?.name ?? v.position.trim(),
        kind: v.kind as "replacement",
        newPart: v.newPart.trim(),
        reversible: v.reversible,
        ...text(v.oldPart.trim() || known || "", "oldPart"),
        ...text(v.oldMeasured, "oldMeasured"),
        ...text(v.reason, "reason"),
        ...text(v.fixing, "fixing"),
        ...(v.kind === "experiment"
          ? {
              outcome: "open" as const,
              ...text(v.hypothesis, "hypothesis"),
              ...text(v.before, "before"),
              ...(set.length > 0 ? { set } : {}),
            }
          : v.kind === "replacement"
            ? { oldWent: v.oldWent as OldPartPlace }
            : {}),
      },
    });
    reset({ kind: v.kind, oldWent: v.oldWent, reversible: true });
  });
  return (
    <Section title="Changes" hint="replacements, repairs and experiments">
      {view.state.changes.length === 0 ? (
        <p className="soft mb-3">Nothing changed yet. What is fitted here goes into the owner&apos;s report.</p>
      ) : (
        <table className="table table-sm mb-3">
          <thead>
            <tr>
              <th>Where</th>
              <th>Was</th>
              <th>Now</th>
              <th>Why</th>
              <th>Reversible</th>
              <th>Old part</th>
            </tr>
          </thead>
          <tbody>
            {view.state.changes.map((c) => (
              <tr key={c.seq}>
                <td>
                  <PartButton name={c.position}>
                    <strong>{c.position}</strong>
                  </PartButton>{" "}
                  <span className="soft">{c.kind === "replacement" ? "" : c.kind}</span>
                </td>
                <td>
                  {c.oldPart} {c.oldMeasured && <span className="soft">measured {c.oldMeasured}</span>}
                </td>
                <td>
                  {c.hypothesis && <span className="soft block text-xs">to test: {c.hypothesis}</span>}
                  {c.newPart}{" "}
                  {c.kind === "experiment" && c.set && c.set.length > 0 && <code className="font-mono text-xs">{c.set.join(" ")}</code>}{" "}
                  {c.fixing && <span className="soft">{c.fixing}</span>}
                  {c.checks?.map((check) => (
                    <span key={check} className="soft block text-xs">
                      {check}
                    </span>
                  ))}
                </td>
                <td>{c.reason}</td>
                <td>{c.reversible ? "yes" : "cannot"}</td>
                <td>
                  {c.kind === "experiment" ? (
                    (c.outcome ?? "open") === "open" ? (
                      <Outcome seq={c.seq} />
                    ) : (
                      `${c.outcome === "reverted" ? "put back" : c.outcome}${c.before ? `; before: ${c.before}` : ""}${c.after ? `; after: ${c.after}` : ""}${c.result ? `: ${c.result}` : ""}`
                    )
                  ) : (
                    c.oldWent
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <form className="grid grid-cols-2 gap-3 lg:grid-cols-6" onSubmit={store}>
        <Field label="This is a">
          <select className="select w-full" {...register("kind")}>
            <option value="replacement">replacement</option>
            <option value="repair">repair</option>
            <option value="experiment">experiment</option>
          </select>
        </Field>
        <Field label="Position" error={formState.errors.position && "Which position?"}>
          <input
            className="input w-full font-mono"
            placeholder="C6"
            list="positions"
            {...register("position", { validate: (v) => v.trim() !== "" })}
          />
        </Field>
        <datalist id="positions">
          {view.circuit?.elements.map((e) => (
            <option key={e.name} value={e.name}>
              {describePart(e)}
            </option>
          ))}
        </datalist>
        <Field label="Old part" className="lg:col-span-2">
          <input className="input w-full" placeholder={known ?? "22 nF 400 V paper"} {...register("oldPart")} />
        </Field>
        <Field label="It measured" className="lg:col-span-2">
          <input className="input w-full" placeholder="4 µA at 300 V" {...register("oldMeasured")} />
        </Field>
        <Field
          label={kind === "experiment" ? "What is changed" : "New part and its ratings"}
          className="lg:col-span-3"
          error={formState.errors.newPart && "What was fitted?"}
        >
          <input
            className="input w-full"
            placeholder="22 nF 630 V polypropylene"
            {...register("newPart", { validate: (v) => v.trim() !== "" })}
          />
        </Field>
        <Field label="Why" className="lg:col-span-3">
          <input className="input w-full" {...register("reason")} />
        </Field>
        {kind === "experiment" && (
          <>
            <Field label="Hypothesis" className="lg:col-span-3">
              <input className="input w-full" placeholder="less feedback cures the ringing" {...register("hypothesis")} />
            </Field>
            <Field label="Change in the circuit" error={refused || undefined}>
              <input className="input w-full font-mono" placeholder="R17=22k" {...register("set")} />
            </Field>
            <Field label="Before" className="lg:col-span-2">
              <input className="input w-full" placeholder="rings at 14 kHz" {...register("before")} />
            </Field>
          </>
        )}
        {kind === "replacement" && (
          <Field label="Old part went" className="lg:col-span-2">
            <select className="select w-full" {...register("oldWent")}>
              {OLD_PART_PLACES.map((p) => (
                <option key={p}>{p}</option>
              ))}
            </select>
          </Field>
        )}
        <Field label="How it is fixed and soldered" className="lg:col-span-3">
          <input className="input w-full" placeholder="hooked before solder, off the board" {...register("fixing")} />
        </Field>
        <label className="flex min-h-11 items-center gap-2 self-end text-sm">
          <input type="checkbox" className="checkbox" {...register("reversible")} /> can be reversed
        </label>
        <div className="col-span-full">
          <button className="btn btn-primary">Log the change</button>
        </div>
      </form>
    </Section>
  );
}

/** How an experiment ended: a line that supersedes it, so that the tape keeps both. */
function Outcome({ seq }: { seq: number }) {
  const { view, say, tape } = useJob();
  const { register, getValues } = useForm({ defaultValues: { result: "" } });
  const end = (outcome: "kept" | "reverted") => {
    const { seq: _s, at: _a, who: _w, ...payload } = view.state.changes.find((c) => c.seq === seq)!;
    const result = getValues("result").trim();
    say({
      type: "change",
      supersedes: seq,
      reason: outcome,
      payload: { ...payload, outcome, ...(result ? { after: result } : {}) },
    });
  };
  const waiting = seq >= tape.pendingFrom;
  return (
    <span className="flex flex-wrap gap-1">
      <input className="input input-sm min-h-9 w-32" placeholder="result" aria-label="After the experiment" {...register("result")} />
      <button className="btn btn-line btn-sm" disabled={waiting} onClick={() => end("kept")}>
        Kept
      </button>
      <button className="btn btn-line btn-sm" disabled={waiting} onClick={() => end("reverted")}>
        Put back
      </button>
    </span>
  );
}

function Approvals() {
  const { view, say, tape } = useJob();
  const { register, handleSubmit, reset } = useForm({ defaultValues: { what: "" } });
  const open = openApprovals(view.state);
  const settled = view.state.approvals.filter((a) => a.answer !== "asked");
  return (
    <Section title="Owner's approval" hint="needed before work that the agreement does not cover">
      <ul className="mb-2 space-y-1">
        {open.map((a) => (
          <li key={a.seq} className="flex flex-wrap items-center gap-3">
            <span className="flex-1">▲ {a.what}</span>
            {(["yes", "no"] as const).map((answer) => (
              <button
                key={answer}
                className="btn btn-line btn-sm"
                disabled={a.seq >= tape.pendingFrom}
                onClick={() => say({ type: "approval", payload: { what: a.what, answer, asks: a.seq } })}
              >
                Owner says {answer}
              </button>
            ))}
          </li>
        ))}
        {settled.map((a) => (
          <li key={a.seq} className="soft">
            {a.answer === "yes" ? "Yes" : "No"}: {a.what}
          </li>
        ))}
      </ul>
      <form
        className="flex items-end gap-3"
        onSubmit={handleSubmit(({ what }) => {
          if (what.trim()) {
            say({ type: "approval", payload: { what: what.trim(), answer: "asked" } });
            reset();
          }
        })}
      >
        <Field label="Ask the owner" className="flex-1">
          <input className="input w-full" placeholder="a new output transformer, about 90" {...register("what")} />
        </Field>
        <button className="btn">Ask</button>
      </form>
    </Section>
  );
}
