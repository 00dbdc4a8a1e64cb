"use client";
/** The walk of a job without a circuit: readings by rail, tube and pin, and what can be said of them all the same. */

import { useState } from "react";
import Link from "next/link";
import { words } from "@/core/language/language";
import { socketOfType } from "@/core/anatomy/sockets";
import { byTube, unnamedSockets, type ByTube, type PlaceRow } from "@/core/by-tube/places";
import { saysOf, usualAt } from "@/core/by-tube/says";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { OPEN_OHMS } from "@/core/quantity/ohms";
import type { ReadingKind } from "@/core/tape/events/words";
import type { PinWords } from "@/core/walk/socket-words";
import { SocketView } from "../drawing/socket-view";
import { ReadingField } from "../forms/reading-field";
import { VerdictMark } from "../forms/verdict-mark";
import { WideTable } from "../forms/wide-table";
import { useJob } from "../job/job-context";
import { ReadingsFile } from "./readings-file";

export function WalkByTube() {
  const { view, jobId, energyKind } = useJob();
  const list = byTube(view.state);
  const says = saysOf(list);
  const unnamed = unnamedSockets(list);
  const none = list.rails.length + list.tubes.length + list.others.length === 0;
  const highest = Math.max(0, ...list.rails.map((r) => r.latest.dcv?.value ?? 0));
  return (
    <div className="space-y-4">
      {energyKind !== "live" && (
        <p className="rounded border border-warning px-3 py-2 text-sm">
          The amp is not logged as on. Voltages are taken live: use <strong>Power on…</strong> above when the bench is ready. Resistances
          are read on a dead one.
        </p>
      )}
      <section
        aria-label="Next reading"
        className="grid items-start gap-x-6 gap-y-2 rounded border border-base-300 bg-base-200 p-4 md:grid-cols-[minmax(0,1fr)_19rem]"
      >
        <div>
          <p className="text-3xl font-bold">{none ? words("Begin with the rails, then tube by tube") : "The next reading"}</p>
          <p className="mt-1">
            This job has no circuit: say the place with the value. <Example>B+ 312</Example>, <Example>V1 pin 6 182</Example>,{" "}
            <Example>cathode V4 7.2</Example>, <Example>V4.k ohm 150</Example>, <Example>V4.heater ac 6.2</Example>; several on a line with
            commas. {words("What is in a socket:")} <Example>V4 is EL84</Example>.
          </p>
          <p className="mt-2">
            {unnamed.length > 0 ? (
              <button className="btn btn-outline" disabled>
                {words("Put the circuit together from these tubes")}
              </button>
            ) : (
              <Link
                className="btn btn-outline"
                href={`/library/new?${new URLSearchParams({ for: String(jobId), tubes: list.tubes.flatMap((t) => t.typed ?? []).join(" ") })}`}
              >
                {words("Put the circuit together from these tubes")}
              </Link>
            )}{" "}
            <span className="soft text-sm">
              {unnamed.length > 0
                ? words(
                    `Say first what is in ${unnamed.join(", ")}: a circuit numbers its tubes from V1 on, and the readings have to meet their own.`,
                  )
                : "The readings are kept, and judged from then on by what the circuit gives."}
            </span>
          </p>
        </div>
        <ReadingField
          label="Place and value"
          take={(text) => ({ refused: `“${text}” names no place. Accepted: B+ 312, V1 pin 6 182, V4 is EL84` })}
        />
      </section>
      {says.length > 0 && (
        <section aria-label="What the readings say" aria-live="polite">
          <h2 className="font-bold">What the readings say</h2>
          <ul className="mt-1 space-y-1">
            {says.map((s) => (
              <li key={`${s.where} ${s.says}`} className={s.verdict === "out" ? "text-lg" : ""}>
                <VerdictMark verdict={s.verdict} /> <strong>{s.where}</strong> {s.says}
              </li>
            ))}
          </ul>
        </section>
      )}
      {list.rails.length > 0 && <Rows title="Rails" rows={list.rails} />}
      {list.tubes.map((t) => (
        <Tube key={t.tube} tube={t} highest={highest || undefined} />
      ))}
      {list.others.length > 0 && <Rows title="Other places" rows={list.others} />}
      {says.length === 0 && !none && (
        <p className="soft text-sm">
          {words(
            "Nothing stands out: no grid above its cathode, no electrode without volts, no twins that differ. Without a circuit that is no verdict.",
          )}
        </p>
      )}
      <ReadingsFile jobId={jobId} />
    </div>
  );
}

const Example = ({ children }: { children: string }) => <code className="font-mono whitespace-nowrap">{children}</code>;

function Tube({ tube: { tube, type, typed, rows }, highest }: { tube: ByTube["tubes"][number]; highest?: number }) {
  const socket = type && socketOfType(tube, type);
  const [pin, setPin] = useState<number>();
  const at = new Map(
    (socket?.pins ?? []).flatMap((p): [number, PinWords][] => {
      if (!p.electrode) return [];
      const volts = rows.find(({ place }) => place.at === "tube" && place.pin === p.pin)?.latest.dcv?.value;
      return [
        [
          p.pin,
          {
            what: p.half ? `${p.half} ${p.electrode}` : p.electrode,
            volts: volts === undefined ? undefined : formatVolts(volts),
            expected: false,
          },
        ],
      ];
    }),
  );
  return (
    <section aria-label={tube} className="grid gap-4 border-t border-base-300 pt-2 lg:grid-cols-[minmax(0,1fr)_16rem]">
      <div>
        <h2 className="font-bold">
          {tube} <span className="soft font-normal">{typed ?? words("type not said: what is printed on the tube?")}</span>
        </h2>
        {rows.length > 0 ? (
          <Table rows={rows} usual={(r) => usualAt(r.place.at === "tube" ? r.place.electrode : undefined, type, highest)} look={setPin} />
        ) : (
          <p className="soft text-sm">Nothing read yet.</p>
        )}
      </div>
      {socket && <SocketView socket={socket} pin={pin ?? 0} words={at} />}
    </section>
  );
}

function Rows({ title, rows }: { title: string; rows: PlaceRow[] }) {
  return (
    <section aria-label={title}>
      <h2 className="font-bold">{title}</h2>
      <Table rows={rows} />
    </section>
  );
}

const KINDS: [ReadingKind, string][] = [
  ["dcv", "DC"],
  ["acv", "AC"],
  ["ohm", "Resistance"],
];

function Table({
  rows,
  usual,
  look,
}: {
  rows: PlaceRow[];
  usual?(row: PlaceRow): string | undefined;
  look?(pin: number | undefined): void;
}) {
  return (
    <WideTable label="Readings" className="table table-sm">
      <thead>
        <tr>
          <th>Place</th>
          {KINDS.map(([kind, name]) => (
            <th key={kind} className="text-right">
              {name}
            </th>
          ))}
          {usual && <th>Usual</th>}
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.name} onMouseEnter={() => look?.(r.place.at === "tube" ? r.place.pin : undefined)}>
            <td className="whitespace-nowrap">
              <strong>{r.name}</strong> <span className="soft">{placeWords(r)}</span>
            </td>
            {KINDS.map(([kind]) => (
              <td key={kind} className="text-right whitespace-nowrap tabular-nums">
                <Value row={r} kind={kind} />
              </td>
            ))}
            {usual && <td className="soft text-xs">{usual(r)}</td>}
          </tr>
        ))}
      </tbody>
    </WideTable>
  );
}

/** As it is; before it, where something was changed since, as it was. */
function Value({ row, kind }: { row: PlaceRow; kind: ReadingKind }) {
  const [now, then] = [row.latest[kind], row.before[kind]];
  if (!now) return null;
  return (
    <>
      {then && then.seq !== now.seq && <span className="soft text-xs">{shown(kind, then.value)} before, </span>}
      <span className="font-bold">{shown(kind, now.value)}</span>
    </>
  );
}

const shown = (kind: ReadingKind, value: number) =>
  kind === "ohm" ? (value >= OPEN_OHMS ? "open" : formatQuantity(value, "Ω", 3)) : formatVolts(value);

function placeWords({ place }: PlaceRow): string {
  if (place.at !== "tube") return "";
  return [place.electrode, place.pin === undefined ? "" : `pin ${place.pin}`].filter(Boolean).join(", ");
}
