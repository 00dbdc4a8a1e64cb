/** Tube models as plain SPICE subcircuits: B sources with functions that every general SPICE has. The laws are those of model.ts. */

import type { TubeType } from "./library";
import { GRID_ONSET, GRID_WIDTH, LEAK_SIEMENS, SMOOTH_VOLTS, type TubeModel } from "./model";

const n = (x: number) => String(Number(x.toPrecision(12)));
/** ln(1 + e^x) without overflow. */
const softplus = (x: string) => `(max(${x},0)+ln(1+exp(-abs(${x}))))`;
/** x^y for a positive x, without the signs that different programs give to powers. */
const power = (x: string, y: number) => `exp(${n(y)}*ln(max(${x},0)+1e-30))`;

/**
 * Lines of a `.subckt` with nodes plate (screen) grid cathode.
 * @param picofarads between the electrodes: grid to plate, grid to cathode, plate to cathode. @param emission scale of all currents. @param strength scale of the plate and screen current. @param gas grid current out at `typicalAmps`, as in the solver.
 */
export function tubeSubcircuit(
  name: string,
  m: TubeModel,
  emission = 1,
  gas = 0,
  typicalAmps = 1e-3,
  picofarads?: TubeType["picofarads"],
  strength = 1,
): string[] {
  const pentode = m.kind === "pentode";
  const drive = pentode ? "s" : "p";
  const positive = (electrode: string) => `${n(SMOOTH_VOLTS)}*${softplus(`(V(${electrode},k)/${n(SMOOTH_VOLTS)})`)}`;
  const lines = [
    `.subckt ${name} ${pentode ? "p s g k" : "p g k"} ;@library`,
    `Bq q 0 V=${positive(drive)}`,
    `Bx x 0 V=${n(m.kp)}*(${n(1 / m.mu)}+(V(g,k)+${n(m.vct)})/sqrt(${n(m.kvb)}+V(q)*V(q)))`,
    `Be e 0 V=V(q)/${n(m.kp)}*${softplus("V(x)")}`,
    `Bi i 0 V=${n((2 * emission * strength) / m.kg1)}*${power("V(e)", m.ex)}`,
  ];
  const leak = n(LEAK_SIEMENS * emission * strength);
  if (m.kind === "pentode") {
    lines.push(
      `Bw w 0 V=${positive("p")}`,
      `Bh h 0 V=${n(m.share)}*V(w)/sqrt(V(w)*V(w)+${n(m.knee * m.knee)})`,
      `Bp p k I=V(i)*V(h)*(1+${n(m.lambda)}*V(w))+${leak}*V(p,k)`,
      `Bs s k I=V(i)*(1-V(h))+${leak}*V(s,k)`,
    );
  } else lines.push(`Bp p k I=V(i)+${leak}*V(p,k)`);
  const plate = m.kind === "pentode" ? `V(i)*V(h)*(1+${n(m.lambda)}*V(w))` : "V(i)";
  const ions = gas > 0 ? `-${n(2 * gas)}*${plate}/(${plate}+${n(typicalAmps)})` : "";
  const onset = `${n(GRID_WIDTH)}*${softplus("V(y)")}`;
  lines.push(
    `By y 0 V=(V(g,k)-(${n(GRID_ONSET)}))/${n(GRID_WIDTH)}`,
    `Bg g k I=${n(emission / m.kgrid)}*${power(onset, 1.5)}${ions}`,
    ...(picofarads
      ? [
          [picofarads.gp, "g p"],
          [picofarads.gk, "g k"],
          [picofarads.pk, "p k"],
        ].flatMap(([pf, nodes], i) => (Number(pf) > 0 ? [`C${i} ${nodes} ${n(Number(pf) * 1e-12)}`] : []))
      : []),
    `.ends`,
  );
  return lines;
}
