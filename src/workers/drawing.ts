/** The drawing's port over a web worker; what was laid out is kept in this browser by its circuit file. */

import { clear, createStore, del, entries, get, set, type UseStore } from "idb-keyval";
import { language } from "@/core/language/language";
import type { Drawing } from "@/core/drawing/geometry";
import type { DrawingPort } from "@/core/ports/drawing-port";
import type { DrawingApi } from "./drawing.worker";
import { workerHandle } from "./handle";

/** Drawings of another number were laid out by another program: they are laid out anew. */
const PROGRAM = 1;
/** The newest so many are kept. */
const MOST_KEPT = 40;
/** A layout that takes longer is given up. */
const GIVE_UP_MS = 20_000;

interface Kept {
  at: number;
  program: number;
  drawing: Drawing;
}

// Made at the first use: on the server there is no such database.
let store: UseStore | undefined;
const drawings = () => (store ??= createStore("scutum-drawings", "drawings"));

export function workerDrawings(): DrawingPort {
  const { ask, giveUp } = workerHandle<DrawingApi>(() => new Worker(new URL("./drawing.worker.ts", import.meta.url)), "the drawing");
  const known = new Map<string, Promise<Drawing>>();

  async function drawn(netlist: string): Promise<Drawing> {
    const key = keyOf(netlist);
    const kept = await unlessForbidden(() => get<Kept>(key, drawings()));
    if (kept?.program === PROGRAM) return kept.drawing;
    const late = setTimeout(() => giveUp(new Error("the layout took longer than 20 seconds")), GIVE_UP_MS);
    try {
      const { drawing, ms } = await ask((to) => to.draw(netlist));
      // Stands in the browser's own timeline; the bench reads it.
      performance.measure("drawing laid out", { end: performance.now(), duration: ms });
      void unlessForbidden(() => keep(key, drawing));
      return drawing;
    } finally {
      clearTimeout(late);
    }
  }

  return {
    draw(netlist) {
      let answer = known.get(netlist);
      if (!answer) {
        answer = drawn(netlist);
        // One that failed is asked for anew the next time.
        answer.catch(() => known.delete(netlist));
        known.set(netlist, answer);
        if (known.size > MOST_KEPT) known.delete(known.keys().next().value!);
      }
      return answer;
    },
  };
}

/** Its figures are written with the shop's decimal sign: another one is another drawing. */
const keyOf = (netlist: string): string => `${JSON.stringify(language())}\n${netlist}`;

async function keep(key: string, drawing: Drawing): Promise<void> {
  await set(key, { at: Date.now(), program: PROGRAM, drawing } satisfies Kept, drawings());
  const all = await entries<string, Kept>(drawings());
  const old = all.sort(([, a], [, b]) => b.at - a.at).slice(MOST_KEPT);
  for (const [each] of old) await del(each, drawings());
}

/** A browser that keeps nothing lays out at each visit. */
async function unlessForbidden<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    return await work();
  } catch (error) {
    console.warn("scutum: the drawing is not kept in this browser:", error);
    return undefined;
  }
}

/** No drawing stays here when whoever used the browser goes. */
export async function forgetDrawings(): Promise<void> {
  await clear(drawings());
}
