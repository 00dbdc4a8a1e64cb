import { alter } from "../circuit/alter";
import { fileName, type Circuit } from "../circuit/circuit";
import { draws } from "../numeric/draws-for-tests";
import { AMPS, demoAmp } from "./circuits-for-tests";
import { operatingPoint } from "./operating-point";
import { powerBalance } from "./power-balance";

/** Every part opened and shorted, every tube dead, weak, gassy and with each pin off, every pair of neighbours leaking. */
export function singleFaults(circuit: Circuit): string[] {
  return [
    ...circuit.elements.flatMap((e) => {
      const name = fileName(e);
      if (e.letter === "R") return [`${name}=open`, `${name}=short`, `${name}=${e.value! * 10}`];
      if (e.letter === "C") return [`${name}=open`, `${name}=short`, `${name}=leak:47k`];
      if (e.letter === "L") return [`${name}=open`, `${name}=short`];
      if (e.tube) {
        const pins = e.tube.kind === "triode" ? ["p", "g", "k"] : ["p", "s", "g", "k"];
        return [
          ...["dead", "weak:0.4", "gassy:2u", "hk:100k", "short:gk", "short:pk"].map((f) => `${name}=${f}`),
          ...pins.map((pin) => `${name}.${pin}=open`),
        ];
      }
      if (e.type?.startsWith("RECT")) return [`${name}=dead`, `${name}=half`, `${name}=weak:3`];
      if (e.type === "POT") return [`${name}=wiper-open`, `${name}=0`, `${name}=1`];
      if (e.type === "SW") return [`${name}=open`, `${name}=closed`];
      if (e.type?.startsWith("OPT")) return [`${name}=open`, `${name}=open:2`, `${name}=shorted:50`];
      return [];
    }),
    ...circuit.near.map(([a, b]) => `${a}~${b}=20M`),
  ];
}

/** In npm test every fourth of an amp's faults (parts have three or ten each, so that every kind has its turn); in npm run long all. */
const EVERY = draws(4, 1);
/** Settles by the last of the solver's aids alone: always tried. */
const HARDEST = ["R17=open"];

test("single faults of the shipped amps, over a thousand in all, converge, balanced", () => {
  let count = 0;
  const failed: string[] = [];
  for (const amp of AMPS) {
    const circuit = demoAmp(amp);
    const faults = singleFaults(circuit);
    count += faults.length;
    for (const fault of faults.filter((fault, i) => i % EVERY === 0 || HARDEST.includes(fault))) {
      const op = operatingPoint(alter(circuit, [fault]));
      if (!op.converged) {
        failed.push(`${amp} ${fault}: ${op.unsettled.join()}`);
        continue;
      }
      const { delivered, dissipated } = powerBalance(op);
      // Shorts of 10 mΩ carry the rounding of tens of amperes; below a microwatt nothing is left to balance.
      if (Math.abs(delivered - dissipated) > 1e-6 * delivered + 1e-6)
        failed.push(`${amp} ${fault}: ${delivered} W against ${dissipated} W`);
    }
  }
  expect(failed).toEqual([]);
  expect(count).toBeGreaterThan(1000);
});
