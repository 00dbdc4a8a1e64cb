/** Readings of an amp whose circuit nobody has, sorted by where they were taken: rails, tubes by electrode and pin, the rest. */

import { findTubeType, type TubeType } from "../tubes/library";
import type { ReadingKind } from "../tape/events/words";
import type { Reading } from "../tape/events/measuring-events";
import type { JobState, Line } from "../tape/fold";

/** An electrode, or what a pin has where the type is not known: "pin 6". */
export interface TubePlace {
  tube: string;
  /** "A" or "B" of a twin tube. */
  half?: string;
  electrode?: string;
  pin?: number;
}

export type Place = { at: "rail" } | ({ at: "tube" } & TubePlace) | { at: "other" };

const ELECTRODE: Record<string, string> = {
  p: "plate",
  a: "plate",
  plate: "plate",
  anode: "plate",
  s: "screen",
  g2: "screen",
  screen: "screen",
  g: "grid",
  g1: "grid",
  grid: "grid",
  k: "cathode",
  c: "cathode",
  cathode: "cathode",
  heater: "heater",
  h: "heater",
};
const TUBE = /^(V\d+)([A-D])?\.(\w+)$/i;
const RAIL = /^(B\d*|B\+\d*|HT\d*|BIAS|C−|C-)$/i;

/** @param types of the tubes that somebody has named, by tube in upper case. */
export function placeOf(name: string, types: ReadonlyMap<string, TubeType>): Place {
  if (RAIL.test(name)) return { at: "rail" };
  const [, socket, half, what] = TUBE.exec(name) ?? [];
  if (!socket) return { at: "other" };
  const tube = socket.toUpperCase();
  const sections = types.get(tube)?.pins ?? [];
  const pin = /^(?:pin)?(\d+)$/i.exec(what!)?.[1];
  if (pin !== undefined) {
    const number = Number(pin);
    const ends = types.get(tube)?.heaterPins;
    if (ends && (ends.ends.includes(number) || ends.centre === number)) return { at: "tube", tube, electrode: "heater", pin: number };
    for (const [i, section] of sections.entries())
      for (const [electrode, at] of Object.entries(section))
        if (at === number) return { at: "tube", tube, ...(sections.length > 1 ? { half: "ABCD"[i] } : {}), electrode, pin: number };
    return { at: "tube", tube, pin: number };
  }
  const electrode = ELECTRODE[what!.toLowerCase()];
  if (!electrode) return { at: "other" };
  const section = sections[Math.max(0, "ABCD".indexOf((half ?? "A").toUpperCase()))];
  const at = section?.[electrode];
  return { at: "tube", tube, ...(half ? { half: half.toUpperCase() } : {}), electrode, ...(at === undefined ? {} : { pin: at }) };
}

const SUFFIX: Record<string, string> = { plate: "p", screen: "s", grid: "g", cathode: "k", heater: "heater" };

/** A tube's place as a circuit file names its point, "V1B.p"; undefined where the electrode is not known. */
export function nameOfPlace(place: Place): string | undefined {
  const suffix = place.at === "tube" && place.electrode ? SUFFIX[place.electrode] : undefined;
  return place.at === "tube" && suffix ? `${place.tube}${suffix === "heater" ? "" : (place.half ?? "")}.${suffix}` : undefined;
}

/** The latest reading of each kind at one place, and the one before the first change. */
export interface PlaceRow {
  /** By the electrode where it is known, else as it was logged. */
  name: string;
  place: Place;
  latest: Partial<Record<ReadingKind, Line<Reading>>>;
  /** The last one before anything was changed, where another has been taken since. */
  before: Partial<Record<ReadingKind, Line<Reading>>>;
}

export interface ByTube {
  rails: PlaceRow[];
  tubes: { tube: string; type?: TubeType; typed?: string; rows: PlaceRow[] }[];
  others: PlaceRow[];
}

/** The types that somebody has named, a fitted one before one that was seen. */
export function tubeTypes(state: Pick<JobState, "tubesSeen" | "tubesFitted">): Map<string, string> {
  const named = [...state.tubesSeen, ...state.tubesFitted].sort((a, b) => a.seq - b.seq);
  return new Map(named.map((t) => [t.tube.toUpperCase(), t.type]));
}

/** The same as the library has them; those that it does not know are left out. */
export const knownTypes = (state: Pick<JobState, "tubesSeen" | "tubesFitted">): Map<string, TubeType> =>
  new Map(
    [...tubeTypes(state)].flatMap(([tube, name]) => {
      const type = findTubeType(name);
      return type ? [[tube, type] as const] : [];
    }),
  );

const ELECTRODES = ["plate", "screen", "grid", "cathode", "heater"];
const orderOf = ({ place }: PlaceRow): number =>
  place.at === "tube"
    ? "ABCD".indexOf(place.half ?? "A") * 100 + (ELECTRODES.indexOf(place.electrode ?? "") + 1 || 50 + (place.pin ?? 0))
    : 0;
const numbered = (a: string, b: string) => a.localeCompare(b, "en", { numeric: true });

/**
 * Sockets below the last one that nobody has named. A circuit that is put together numbers its tubes from V1 on: as long as one is missing,
 * readings would be held against another tube.
 */
export function unnamedSockets({ tubes }: Pick<ByTube, "tubes">): string[] {
  const numbers = tubes.map(({ tube }) => Number(/^V(\d+)$/.exec(tube)?.[1] ?? 0));
  const named = new Set(tubes.flatMap((t) => (t.typed ? [t.tube] : [])));
  return Array.from({ length: Math.max(0, ...numbers) }, (_, i) => `V${i + 1}`).filter((t) => !named.has(t));
}

/** Rails first, then tube by tube in the order of their numbers, each by electrode and pin. */
export function byTube(state: Pick<JobState, "readings" | "changes" | "tubesSeen" | "tubesFitted">): ByTube {
  const typed = tubeTypes(state);
  const types = knownTypes(state);
  const changed = state.changes[0]?.seq ?? Infinity;
  const rows = new Map<string, PlaceRow>();
  for (const r of state.readings) {
    const place = placeOf(r.point, types);
    // "V4.3" and "V4.k" are one place, once it is known what is in the socket.
    const name = nameOfPlace(place) ?? r.point;
    const key = name.toLowerCase();
    const row = rows.get(key) ?? { name, place, latest: {}, before: {} };
    row.latest[r.kind] = r;
    if (r.seq < changed) row.before[r.kind] = r;
    rows.set(key, row);
  }
  const all = [...rows.values()];
  const tubes = new Set([...typed.keys(), ...all.flatMap(({ place }) => (place.at === "tube" ? [place.tube] : []))]);
  return {
    rails: all.filter((r) => r.place.at === "rail").sort((a, b) => numbered(a.name, b.name)),
    tubes: [...tubes].sort(numbered).map((tube) => ({
      tube,
      ...(types.has(tube) ? { type: types.get(tube) } : {}),
      ...(typed.has(tube) ? { typed: typed.get(tube) } : {}),
      rows: all.filter(({ place }) => place.at === "tube" && place.tube === tube).sort((a, b) => orderOf(a) - orderOf(b)),
    })),
    others: all.filter((r) => r.place.at === "other").sort((a, b) => numbered(a.name, b.name)),
  };
}
