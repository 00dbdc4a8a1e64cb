/** Faults of resistors, capacitors, chokes, controls, switches and transformers. */

import { fileName, type Element } from "../circuit/circuit";
import type { AddFault } from "./fault";
import type { FaultKind } from "./priors";
import { spaced, type Surroundings } from "./surroundings";

export function partFaults(e: Element, around: Surroundings, add: AddFault): void {
  const id = fileName(e);
  const only = (name: string, kind: FaultKind, change: string) =>
    add(e, { name: `${e.name} ${name}`, refs: [e.name], kind, changes: () => [`${id}=${change}`] });
  if (e.letter === "R") resistorFaults(e, id, add, only);
  else if (e.letter === "C") capacitorFaults(e, id, around, add, only);
  else if (e.letter === "L") only("open", "winding open", "open");
  else if (e.type === "POT") only("wiper open", "wiper open", "wiper-open");
  else if (e.type === "SW" && e.params.state !== "open") only("open", "switch open", "open");
  else if (e.type === "OPT_PP" || e.type === "OPT_SE") {
    if (e.type === "OPT_PP") {
      only("first half open", "winding open", "open");
      only("second half open", "winding open", "open:2");
    } else only("primary open", "winding open", "open");
    // A few turns of a winding put a small resistance across all of it: next to nothing for direct current, nearly all of the signal.
    const z = typeof e.params.zpp === "number" ? e.params.zpp : typeof e.params.zp === "number" ? e.params.zp : 5000;
    only("shorted turns", "shorted turns", `shorted:${Math.round(z / 20)}`);
  }
}

type Only = (name: string, kind: FaultKind, change: string) => void;

function resistorFaults(e: Element, id: string, add: AddFault, only: Only): void {
  const tol = e.notes.tol ?? 0.2;
  only("open", "resistor open", "open");
  // From twice its tolerance: less is not a fault but the part's spread.
  const high = [1 + 2 * tol, 1.6, 2.2, 3.5, 6, 12, 30, 100, ...(e.value! < SMALL_OHMS ? [1000, 10_000, 100_000] : [])].filter(
    (f, i) => i === 0 || f > 1 + 2.4 * tol,
  );
  const low = [1 - 2 * tol, 0.5, 0.25, 0.1, 0.02].filter((f, i) => f > 0 && (i === 0 || f < 1 - 2.4 * tol));
  const scaled = (name: string, kind: FaultKind, grid: number[]) =>
    add(e, { name: `${e.name} ${name}`, refs: [e.name], kind, changes: (s) => [`${id}=${e.value! * s}`], grid, severityUnit: "×" });
  scaled("high", "resistor high", high);
  // What it is made of goes high; low is another part across it, a bridge, or a wrong one.
  scaled("low, or bridged", "resistor low", low);
  // One band misread, by the last repair or in the factory.
  only("ten times its value (code misread)", "wrong value", String(e.value! * 10));
  only("a tenth of its value (code misread)", "wrong value", String(e.value! / 10));
}

/** A resistor below this may go up a thousandfold before it is as good as open. */
const SMALL_OHMS = 5000;

/** Watts that a leak burns before the part bursts, by what the part is. */
const WATTS = { large: 12, small: 3, film: 2 };
/** A leak shows from this many volts on, and from this part of what is there. */
const SHOWS_VOLTS = 0.05;
const SHOWS_PART = 1 / 30;
const MOST_LEAK = 300e6;
const LARGE_VOLTS = 63;

function capacitorFaults(e: Element, id: string, around: Surroundings, add: AddFault, only: Only): void {
  const electrolytic = e.notes.kind === "electrolytic" || e.value! >= 1e-6;
  const nodes = e.nodes as [string, string];
  const [ohms, volts] = [around.ohms(...nodes), around.volts(...nodes)];
  // A grid at rest shows what comes through its capacitor; a rail or a cathode shows what is left of what it has.
  const least = electrolytic ? Math.max(SHOWS_VOLTS, SHOWS_PART * volts) : SHOWS_VOLTS;
  const weakest = Math.min(MOST_LEAK, Math.max(3 * ohms, (ohms * volts) / least));
  const large = (e.notes.volts ?? Infinity) > LARGE_VOLTS;
  const watts = electrolytic ? (large ? WATTS.large : WATTS.small) : WATTS.film;
  // A first estimate of what a leak would burn; the table judges by the amp solved with it.
  const survives = (leak: number) => (volts * leak) / (leak + ohms) < Math.sqrt(1.5 * watts * leak);
  add(e, {
    name: `${e.name} leaky`,
    refs: [e.name],
    kind: electrolytic ? "electrolytic leaky" : "coupling leaky",
    changes: (s) => [`${id}=leak:${s}`],
    grid: spaced(0.1 * ohms, weakest, 3).filter((leak, i) => i === 0 || survives(leak)),
    severityUnit: "Ω",
    mostWatts: { nodes, watts },
  });
  add(e, {
    name: `${e.name} shorted or nearly`,
    refs: [e.name],
    kind: electrolytic ? "electrolytic shorted" : "coupling shorted",
    changes: (s) => [`${id}=leak:${s}`],
    grid: [...[0.1 * ohms, 0.03 * ohms].filter(survives), Math.min(0.01, 0.003 * ohms)],
    severityUnit: "Ω",
  });
  only("open", electrolytic ? "electrolytic open" : "coupling open", "open");
  if (electrolytic && large)
    add(e, {
      name: `${e.name} low: dried out`,
      refs: [e.name],
      kind: "electrolytic low",
      changes: (s) => [`${id}=${(e.value! * s * 1e6).toPrecision(6)}u`],
      grid: [0.5, 0.25, 0.1, 0.03],
      severityUnit: "of its value",
    });
}
