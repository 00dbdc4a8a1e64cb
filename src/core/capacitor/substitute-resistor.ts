/** Whether a resistor may take another's place: watts at what it dissipates, its volts, what it does when it fails, how far it sits off the board. */

import { figure } from "../language/language";
import { formatQuantity } from "../quantity/format";
import type { Circuit, Element } from "../circuit/circuit";
import { isRectifier } from "../circuit/special-parts";
import { ratingFor, STANDARD_WATTS } from "../quantity/ratings";
import { railsOf } from "../anatomy/rails";
import type { PartCheck } from "./check";
import * as texts from "../texts/capacitor";

export const RESISTOR_KINDS = ["carbon", "carbon-film", "metal-film", "metal-oxide", "wirewound", "fusible"] as const;

export interface ResistorOffer {
  ohms: number;
  watts: number;
  kind: string;
  /** Limiting element voltage of its sheet; the usual one of its watts unless given. */
  volts?: number;
  /** Part, 0.05 for 5 %. */
  tol?: number;
}

export interface ResistorNeeds {
  name: string;
  ohms: number;
  tol: number;
  /** Watts in it and volts across it at the worst of the mains. */
  watts: number;
  volts: number;
  /** It should go open and not burn when what is behind it shorts. */
  failOpen: boolean;
}

/** Twice what it dissipates: half its rating keeps a resistor near eighty degrees. */
const MARGIN = 2;
/** Limiting element voltage by watts of film and carbon resistors; published data sheets agree within a step. */
const VOLTS_OF: [watts: number, volts: number][] = [
  [0.125, 150],
  [0.25, 250],
  [0.5, 350],
  [1, 500],
  [2, 500],
  [Infinity, 750],
];
/** From so many watts in it a resistor chars the board that it lies on. */
const HOT_WATTS = 0.5;
const FLAMEPROOF = /metal-oxide|wirewound|fusible|flameproof/i;

export const usualVolts = (watts: number): number => VOLTS_OF.find(([most]) => watts <= most)![1];

/** Screen resistors, droppers and what feeds a rail: a short behind one of them would burn it. */
export function shouldFailOpen(circuit: Circuit, r: Element): boolean {
  const rails = railsOf(circuit);
  const screens = circuit.elements.filter((e) => e.tube?.kind === "pentode").map((e) => e.nodes[1]!);
  const rectified = circuit.elements.filter((e) => isRectifier(e.type)).flatMap((e) => e.nodes.slice(0, 2));
  return (
    r.nodes.some((n) => screens.includes(n) && r.nodes.some((o) => rails.has(o))) ||
    r.nodes.every((n) => rails.has(n)) ||
    r.nodes.some((n) => n !== "0" && rectified.includes(n) && r.nodes.every((o) => o !== "0"))
  );
}

/** Millimetres that a resistor is kept off the board: 1 for each fifth of a watt, from half a watt. Scutum's own. */
export const standOff = (watts: number): number => (watts < HOT_WATTS ? 0 : Math.min(25, Math.ceil(5 * watts)));

export function checkResistor(needs: ResistorNeeds, offer: ResistorOffer): PartCheck[] {
  const out: PartCheck[] = [];
  const add = (what: string, wants: string, has: string, verdict: PartCheck["verdict"], why = "") =>
    out.push({ what, needs: wants, has, verdict, why });
  const share = Math.abs(offer.ohms / needs.ohms - 1);
  const shown = (x: number) => formatQuantity(x, "Ω", 3);
  const within = Math.max(needs.tol, 0.01);
  add(
    "ohms",
    `${shown(needs.ohms)} ± ${figure(Math.round(within * 100))} %`,
    shown(offer.ohms),
    share <= within ? "in" : share <= 2 * within ? "watch" : "out",
  );
  const rating = ratingFor(Math.max(0.25, MARGIN * needs.watts), STANDARD_WATTS);
  add(
    "watts",
    texts.atLeast(`${figure(rating ?? Math.ceil(MARGIN * needs.watts))} W`),
    `${figure(offer.watts)} W`,
    offer.watts < needs.watts ? "out" : offer.watts < MARGIN * needs.watts ? "watch" : "in",
    texts.dissipates(formatQuantity(needs.watts, "W", 2)),
  );
  const volts = offer.volts ?? usualVolts(offer.watts);
  add(
    "volts",
    texts.atLeast(`${Math.ceil(needs.volts)} V`),
    `${volts} V`,
    volts < needs.volts ? "out" : "in",
    offer.volts === undefined ? texts.usualOfWatts() : "",
  );
  if (needs.failOpen) {
    const proof = FLAMEPROOF.test(offer.kind);
    add("flameproof", texts.flameproofWanted(), offer.kind, proof ? "in" : "watch", proof ? "" : texts.wouldBurn());
  }
  const off = standOff(needs.watts);
  if (off > 0) add("off the board", texts.atLeast(`${off} mm`), "", "none", texts.charsBoard());
  return out;
}
