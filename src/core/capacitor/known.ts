/** Every capacitor of an amp as it is known: the circuit file, what was read off it, how it tested, whether it was replaced or formed. */

import type { Circuit, Element } from "../circuit/circuit";
import { findElement } from "../circuit/circuit";
import { isIn, type JobState } from "../tape/fold";
import type { CapacitorNoted, CapacitorTest } from "../tape/events/capacitor-events";
import { is } from "../tape/events/event";
import type { NamedReservoir } from "../tape/events/power-events";
import type { CapacitorPlace, CaseLead, ReformResult } from "../tape/events/words";
import { hasBadName, type BadName } from "../shop/bad-names";
import { reformedTo, reformRuns } from "./reform-run";
import { isElectrolytic, roleOfCapacitor, roleOfPlace, roleUnseen, type RoleOf } from "./role";

export interface KnownCapacitor {
  name: string;
  /** Of the circuit; none for one that is on no drawing. */
  element?: Element;
  farads?: number;
  volts?: number;
  kind?: string;
  year?: number;
  celsius?: number;
  ripple?: number;
  marking?: string;
  section?: string;
  caseLead: CaseLead;
  lug?: string;
  electrolytic: boolean;
  role: RoleOf;
  safetyClass?: "none" | "X" | "Y";
  tests: (CapacitorTest & { seq: number })[];
  /** Line of its replacement in this job. */
  replaced?: number;
  reformed?: ReformResult;
  /** Names that it has in this shop. */
  badNames: BadName[];
}

/** What was read off one part: the last word on each field. Of what stood there before it was replaced only its place is left. */
function notedOf(state: Pick<JobState, "capacitors">, name: string, replaced = 0): CapacitorNoted | undefined {
  const own = state.capacitors.filter((c) => c.part.toUpperCase() === name.toUpperCase());
  if (own.length === 0) return undefined;
  const place = own.findLast((c) => c.place)?.place;
  const fresh = own.filter((c) => c.seq > replaced).map(({ seq: _s, at: _a, who: _w, ...rest }) => rest);
  return Object.assign({ part: name, ...(place ? { place } : {}) }, ...fresh) as CapacitorNoted;
}

type Told = Pick<JobState, "capacitors" | "capacitorTests" | "changes" | "reforms" | "inspected" | "effective">;

/** Items of the look that find a capacitor which is on no drawing, and where it lies. */
const SEEN: Record<string, CapacitorPlace> = { "line-capacitor": "line to chassis", "interference-capacitor": "across the line" };

/** Names of what the eye has found on no drawing. */
export const LOOSE_NAMES: Record<CapacitorPlace, string> = { "line to chassis": "CY", "across the line": "CX", "output to a jack": "CJ" };

const same = (a: string, b: string) => a.toUpperCase() === b.toUpperCase();

const reservoirsNamed = (state: Told): NamedReservoir[] => state.effective.filter((e) => is(e, "reservoir")).map((e) => e.payload);

/** Each name once, as it was first written. */
function namedOnTape(state: Told): string[] {
  const all = [...reservoirsNamed(state).map((r) => r.name), ...[...state.capacitors, ...state.capacitorTests].map((c) => c.part)];
  return all.filter((name, i) => all.findIndex((other) => same(other, name)) === i);
}

const looseAt = (name: string): CapacitorPlace | undefined =>
  (Object.entries(LOOSE_NAMES) as [CapacitorPlace, string][]).find(([, n]) => n === name)?.[0];

/**
 * Those of the circuit, then those that lie outside it. Where a job has no circuit: each that the tape names, by what was read off it,
 * measured of it, or named as a reservoir at Make safe.
 */
export function knownCapacitors(circuit: Circuit | undefined, state: Told, names: readonly BadName[] = []): KnownCapacitor[] {
  const runs = reformRuns(state);
  const reservoirs = circuit ? [] : reservoirsNamed(state);
  const of = (name: string, element?: Element): KnownCapacitor => {
    const replaced = state.changes.findLast(
      (c) => c.position.toUpperCase() === name.toUpperCase() && c.kind === "replacement" && isIn(c),
    )?.seq;
    const noted = notedOf(state, name, replaced);
    // What the look has found and nobody has noted more of lies where its name says.
    const place = noted?.place ?? (element ? undefined : looseAt(name));
    const kind = noted?.kind ?? element?.notes.kind;
    // What was fitted in place of a reservoir that was named is not what was named.
    const reservoir = replaced === undefined ? reservoirs.find((r) => same(r.name, name)) : undefined;
    const farads = noted?.farads ?? element?.value ?? reservoir?.farads;
    const year = noted?.year ?? element?.notes.year;
    const marking = noted?.marking;
    const reformed = reformedTo(runs, name);
    const text = [marking, kind, element?.notes.label].filter(Boolean).join(" ");
    return {
      name,
      ...(element ? { element } : {}),
      farads,
      volts: noted?.volts ?? element?.notes.volts ?? (reservoir?.volts || undefined),
      kind,
      year,
      celsius: noted?.celsius,
      ripple: noted?.ripple,
      marking,
      section: element?.notes.section,
      caseLead: noted?.caseLead ?? (element?.notes.section ? "unknown" : "insulated"),
      lug: noted?.lug,
      electrolytic: isElectrolytic({ value: farads, notes: { kind } }),
      role:
        circuit && element ? roleOfCapacitor(circuit, element, place) : place ? roleOfPlace(place) : roleUnseen(reservoir !== undefined),
      safetyClass: noted?.safetyClass,
      tests: state.capacitorTests.filter((t) => t.part.toUpperCase() === name.toUpperCase() && t.seq > (replaced ?? 0)),
      ...(replaced === undefined ? {} : { replaced }),
      ...(reformed && replaced === undefined ? { reformed } : {}),
      badNames: replaced === undefined ? names.filter((n) => hasBadName({ letter: "C", text, year }, n)) : [],
    };
  };
  const drawn = (circuit?.elements ?? []).filter((e) => e.letter === "C").map((e) => of(e.name, e));
  const loose = new Set(
    circuit ? state.capacitors.filter((c) => c.place && !findElement(circuit, c.part)).map((c) => c.part) : namedOnTape(state),
  );
  for (const [item, place] of Object.entries(SEEN))
    if (state.inspected.get(item)?.result === "found" && ![...loose].some((n) => notedOf(state, n)?.place === place))
      loose.add(LOOSE_NAMES[place]);
  return [...drawn, ...[...loose].map((name) => of(name))];
}
