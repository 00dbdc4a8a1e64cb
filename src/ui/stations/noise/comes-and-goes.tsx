"use client";
/** A fault that comes and goes: what provokes it and where, when it showed itself, and the soak that says whether it is cured. */

import { words } from "@/core/language/language";
import { useRef, useState } from "react";
import { PROVOKED_BY, PROVOKED_RESPONSES, type ProvokedBy, type ProvokedResponse } from "@/core/tape/events/words";
import { strongestOf, warmthOf } from "@/core/intermittent/occurrences";
import { formatQuantity } from "@/core/quantity/format";
import { readOhms } from "@/core/quantity/ohms";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { dayTime } from "../../job/words";
import { Soak } from "./soak";

const MARK: Record<ProvokedResponse, string> = { nothing: "○", "a little": "▲", strong: "■", "starts it": "■", "stops it": "■" };
const TOOL: Record<ProvokedBy, string> = { tap: "a pencil's rubber end", flex: "a dry stick", heat: "hot air", cold: "freezing spray" };

export function ComesAndGoes() {
  return (
    <div className="max-w-5xl">
      <Soak />
      <Showed />
      <Provoke />
    </div>
  );
}

/** It showed itself: with what there was of warmth, mains and activity. */
function Showed() {
  const { view, say, conditions } = useJob();
  const { field, onSubmit, typed } = useTypedForm({ what: "", activity: "" }, ({ what, activity }) => {
    if (what.trim() === "") return;
    say({
      type: "occurrence",
      payload: {
        what: what.trim(),
        ...(conditions.warmMinutes === undefined ? {} : { warmMinutes: conditions.warmMinutes }),
        ...(conditions.mains === undefined ? {} : { mains: conditions.mains }),
        ...(activity.trim() ? { activity: activity.trim() } : {}),
      },
    });
    return { activity };
  });
  const shown = view.state.occurrences;
  return (
    <Section title="Occurrences" hint={words("log each as it happens: its time since power-on and the mains are kept with it")}>
      <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
        <Field label="What it did">
          <input className="input w-72" placeholder="lost half its level" {...field("what")} />
        </Field>
        <Field label="While">
          <input className="input w-56" placeholder="a tone, untouched" {...field("activity")} />
        </Field>
        <button className="btn btn-primary" disabled={typed.what.trim() === ""}>
          It happens now
        </button>
      </form>
      {shown.length > 0 && (
        <>
          <Timeline />
          <table className="table table-sm" aria-label="Occurrences">
            <tbody>
              {shown.map((o) => (
                <tr key={o.seq}>
                  <td className="whitespace-nowrap">{dayTime(o.at)}</td>
                  <td className="font-bold">{o.what}</td>
                  <td>{o.warmMinutes === undefined ? "" : `${Math.round(o.warmMinutes)} min after power-on`}</td>
                  <td>{o.mains === undefined ? "" : `${o.mains} V`}</td>
                  <td>{o.activity}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </Section>
  );
}

/** Minutes after power-on of each occurrence on one line: what clusters there has to do with warmth. */
function Timeline() {
  const { view } = useJob();
  const { minutes, low, high, together } = warmthOf(view.state.occurrences);
  if (minutes.length === 0) return null;
  const most = Math.max(60, ...minutes) * 1.05;
  const x = (m: number) => 20 + (m / most) * 660;
  return (
    <figure className="my-2">
      <svg
        viewBox="0 0 700 54"
        className="w-full max-w-3xl"
        role="img"
        aria-label={`Minutes after power-on: ${minutes.map((m) => Math.round(m)).join(", ")}`}
      >
        <line x1={20} x2={680} y1={30} y2={30} stroke="currentColor" strokeOpacity={0.4} />
        {[0, 15, 30, 45, 60, 90, 120, 180, 240]
          .filter((t) => t < most)
          .map((t) => (
            <text key={t} x={x(t)} y={50} fontSize={12} textAnchor="middle" fill="var(--soft)">
              {t}
            </text>
          ))}
        {minutes.map((m, i) => (
          <rect key={i} x={x(m) - 5} y={20} width={10} height={20} fill="var(--color-primary)" fillOpacity={0.7} />
        ))}
      </svg>
      <figcaption className="text-sm">
        Minutes after power-on.{" "}
        {together
          ? `All between ${Math.round(low)} and ${Math.round(high)} min: it has to do with warmth.`
          : minutes.length > 1
            ? "Spread out: warmth alone does not bring it."
            : ""}
      </figcaption>
    </figure>
  );
}

/** Tap map: places on a photo, or by name, with what was done and what came of it. */
function Provoke() {
  const { view, say, settings } = useJob();
  const [spot, setSpot] = useState<{ x: number; y: number }>();
  const { photos, provoked } = view.state;
  const [photo, setPhoto] = useState<string>();
  const picture = photo ?? photos.findLast((p) => /inside|under|chassis/i.test(p.caption))?.hash ?? photos.at(-1)?.hash;
  const response = useRef<ProvokedResponse>("nothing");
  const usual = { place: "", by: "tap" as ProvokedBy, before: "", during: "" };
  const { field, submit, refused } = useTypedForm(usual, ({ place, by, before, during }) => {
    if (place.trim() === "" && !spot) return "Where? Name the part or place, or point at it in the picture.";
    const read = (text: string) => (text.trim() === "" ? undefined : readOhms(text, settings.decimal));
    const [from, to] = [read(before), read(during)];
    if (typeof from === "string") return from;
    if (typeof to === "string") return to;
    say({
      type: "provoked",
      payload: {
        place: place.trim() || `spot ${Math.round(100 * spot!.x)}/${Math.round(100 * spot!.y)}`,
        by,
        tool: TOOL[by],
        response: response.current,
        ...(from === undefined ? {} : { ohmsFrom: from }),
        ...(to === undefined ? {} : { ohmsTo: to }),
        ...(spot && picture ? { ...spot, photo: picture } : {}),
      },
    });
    setSpot(undefined);
    return { place, by };
  });
  const log = (answer: ProvokedResponse) => {
    response.current = answer;
    submit();
  };
  const worst = strongestOf(provoked);
  return (
    <Section title="Tap map" hint="tap, flex, heat or cool one place after the other; the fault is near the place that reacts most">
      {worst && (
        <p className="mb-2 text-xl font-bold">
          Strongest so far: {worst.place} ({worst.by}, {worst.response})
        </p>
      )}
      <p className="mb-2 text-warning">
        ▲ With the amp on: one hand, an insulated tool, nothing metal. Freezing spray and hot air only where no live point is bare.
      </p>
      <div className="grid gap-4 md:grid-cols-[minmax(0,1fr)_18rem]">
        <div>
          {picture ? (
            <>
              <button
                type="button"
                aria-label="Point at the place in the picture"
                className="relative block w-full"
                onClick={(e) => {
                  const box = e.currentTarget.getBoundingClientRect();
                  // By keyboard there is no place in the picture: the name is used.
                  if (e.detail > 0) setSpot({ x: (e.clientX - box.left) / box.width, y: (e.clientY - box.top) / box.height });
                }}
              >
                <img src={`/api/v1/photos/${picture}`} alt="" className="w-full rounded border border-base-300" />
                {provoked
                  .filter((p) => p.photo === picture && p.x !== undefined)
                  .map((p) => (
                    <span
                      key={p.seq}
                      title={`${p.place}: ${p.response}`}
                      className="absolute -translate-x-1/2 -translate-y-1/2 rounded-full bg-base-100 px-1.5 text-lg leading-7"
                      style={{ left: `${100 * p.x!}%`, top: `${100 * p.y!}%` }}
                    >
                      {MARK[p.response]}
                    </span>
                  ))}
                {spot && (
                  <span
                    className="absolute size-6 -translate-x-1/2 -translate-y-1/2 rounded-full border-4 border-primary"
                    style={{ left: `${100 * spot.x}%`, top: `${100 * spot.y}%` }}
                  />
                )}
              </button>
              {photos.length > 1 && (
                <select className="select mt-1 w-full" aria-label="Picture" value={picture} onChange={(e) => setPhoto(e.target.value)}>
                  {photos.map((p) => (
                    <option key={p.hash} value={p.hash}>
                      {p.caption || p.hash.slice(0, 8)}
                    </option>
                  ))}
                </select>
              )}
            </>
          ) : (
            <p className="soft">No photo in this job: places go by name. One taken at Look makes a map of it.</p>
          )}
        </div>
        <div className="space-y-2">
          <Field label="Place">
            <input className="input w-full" list="provoked-places" placeholder="V2 socket" {...field("place")} />
          </Field>
          <datalist id="provoked-places">
            {view.circuit?.elements.map((e) => (
              <option key={e.name} value={e.name} />
            ))}
          </datalist>
          <Field label="By">
            <select className="select w-full" {...field("by")}>
              {PROVOKED_BY.map((p) => (
                <option key={p} value={p}>
                  {p} ({TOOL[p]})
                </option>
              ))}
            </select>
          </Field>
          <div className="grid grid-cols-2 gap-2">
            <Field label="Ohms before">
              <input className="input w-full text-right" {...field("before")} />
            </Field>
            <Field label="Ohms while">
              <input className="input w-full text-right" {...field("during")} />
            </Field>
          </div>
          <div className="flex flex-wrap gap-1">
            {PROVOKED_RESPONSES.map((r) => (
              <button key={r} className="btn btn-line" onClick={() => log(r)}>
                {MARK[r]} {r}
              </button>
            ))}
          </div>
          <Refused>{refused}</Refused>
        </div>
      </div>
      {provoked.length > 0 && (
        <table className="table table-sm mt-2" aria-label="Provoked">
          <tbody>
            {[...provoked].reverse().map((p) => (
              <tr key={p.seq}>
                <td className="font-bold">{p.place}</td>
                <td>
                  {p.by}, {p.tool}
                </td>
                <td>
                  {MARK[p.response]} {p.response}
                </td>
                <td>
                  {p.ohmsFrom !== undefined &&
                    p.ohmsTo !== undefined &&
                    `${formatQuantity(p.ohmsFrom, "Ω", 3)} → ${formatQuantity(p.ohmsTo, "Ω", 3)}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Section>
  );
}
