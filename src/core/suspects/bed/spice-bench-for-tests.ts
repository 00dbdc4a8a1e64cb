/**
 * A made-up bench whose amps are solved by a general SPICE: decks written here from the circuit file's parts, tubes by the plain law of
 * N. Koren (1996) with parameters of their own, parts and mains drawn. None of the program's models or solvers has a hand in it.
 */

import type { Circuit, Element } from "../../circuit/circuit";
import { readCircuit } from "../../circuit/read";
import { normalDraws, uniformDraws } from "../../numeric/random";
import { findTubeType } from "../../tubes/library";
import { figuresIn, runSpice } from "../../solver/spice-for-tests";
import type { Faulty } from "./hand-faults-for-tests";

/** The sheet's shape by the plain law: µ (of grid 2 for a pentode), exponent, sharpness, and knee or bend. */
// Published sets of N. Koren (12AX7, 12AU7, 12AT7, EL34); the others by the same author's advice from the sheets' curves.
const SHAPE: Record<string, [mu: number, ex: number, kp: number, kvb: number]> = {
  "12AX7": [100, 1.4, 600, 300],
  "12AT7": [60, 1.35, 300, 300],
  "12AU7": [21.5, 1.3, 84, 300],
  "12SQ7": [100, 1.4, 550, 300],
  EF86: [34, 1.35, 222, 4.7],
  EL84: [19, 1.35, 150, 24],
  EL34: [11, 1.35, 60, 24],
  KT66: [9, 1.35, 45, 18],
  "6V6GT": [9.8, 1.35, 60, 14],
  "7591A": [17, 1.35, 120, 20],
  "50L6GT": [8.5, 1.35, 40, 10],
};

/** Idle of the output tubes of a sound amp of the kind, amperes of plate current at plate, screen and grid volts: what the shop's charts show. */
const IDLE: Record<string, [va: number, vs: number, vg: number, amps: number]> = {
  EL84: [248, 240, -7.3, 0.036],
  "6V6GT": [290, 285, -18, 0.031],
  KT66: [425, 420, -42.5, 0.042],
  "7591A": [395, 395, -17.7, 0.031],
  EL34: [485, 480, -43, 0.036],
  "50L6GT": [105, 95, -6.6, 0.039],
};

interface Law {
  mu: number;
  ex: number;
  kp: number;
  kvb: number;
  kg1: number;
  kg2: number;
}

const softplus = (x: number) => (x > 30 ? x : Math.log1p(Math.exp(x)));

function lawOf(type: string, muFactor: number): Law {
  const [mu0, ex, kp, kvb] = SHAPE[type]!;
  const mu = mu0 * muFactor;
  const sheet = findTubeType(type)!;
  const pentode = sheet.kind === "pentode";
  const typical = sheet.typical!;
  const at = IDLE[type] ?? [typical.va, typical.vg2 ?? 0, typical.vg, typical.ia / 1e3];
  const [va, vs, vg, amps] = at;
  const drive = pentode
    ? (vs / kp) * softplus(kp * (1 / mu + vg / vs))
    : (va / kp) * softplus(kp * (1 / mu + vg / Math.sqrt(kvb + va * va)));
  const kg1 = pentode ? (2 * drive ** ex * Math.atan(va / kvb)) / amps : (2 * drive ** ex) / amps;
  const share = (typical.ig2 ?? 0) / typical.ia;
  // Plain law: the screen takes a fixed share of what the cathode gives, the plate current's knee left out.
  return { mu, ex, kp, kvb, kg1, kg2: pentode ? kg1 / (Math.PI / 2) / Math.max(share, 1e-3) : 0 };
}

const n = (x: number) => x.toPrecision(7);

function tubeLines(name: string, nodes: string[], type: string, emission: number, mu: number): string[] {
  const law = lawOf(type, mu);
  const pentode = nodes.length === 4;
  const [p, s, g, k] = pentode ? nodes : [nodes[0], nodes[0], nodes[1], nodes[2]];
  const id = name.toLowerCase();
  const e = emission.toPrecision(6);
  const root = pentode ? `(max(V(${s},${k}),0.01))` : `sqrt(${n(law.kvb)}+max(V(${p},${k}),0)*max(V(${p},${k}),0))`;
  const driver = pentode ? `max(V(${s},${k}),0)` : `max(V(${p},${k}),0)`;
  const x = `V(x_${id})`;
  const lines = [
    `Bx_${id} x_${id} 0 V=${n(law.kp)}*(${n(1 / law.mu)}+V(${g},${k})/${root})`,
    `Be_${id} e_${id} 0 V=${driver}/${n(law.kp)}*(max(${x},0)+ln(1+exp(-abs(${x}))))`,
    `Bi_${id} i_${id} 0 V=exp(${law.ex}*ln(V(e_${id})+1e-12))`,
    `Bg_${id} ${g} ${k} I=${n(emission > 0.01 ? 1e-3 : 1e-6)}*(0.1*ln(1+exp(min(V(${g},${k}),5)/0.1))+max(V(${g},${k})-5,0))`,
  ];
  if (pentode)
    lines.push(
      `Bp_${id} ${p} ${k} I=${e}*2*V(i_${id})/${n(law.kg1)}*atan(max(V(${p},${k}),0)/${n(law.kvb)})`,
      // With its plate gone the screen takes several times its usual current.
      `Bs_${id} ${s} ${k} I=${e}*2*V(i_${id})/${n(law.kg2)}*(1+6*exp(-max(V(${p},${k}),0)/20))`,
      `Rl_${id} ${s} ${k} 1e12`,
    );
  else lines.push(`Bp_${id} ${p} ${k} I=${e}*2*V(i_${id})/${n(law.kg1)}`);
  return [...lines, `Rp_${id} ${p} ${k} 1e12`];
}

const num = (e: Element, key: string, otherwise: number) => (typeof e.params[key] === "number" ? (e.params[key] as number) : otherwise);

/** A rectifier from plus to minus: its average by Schade's conduction angle, or its instants. */
function rectifierLines(e: Element, mains: number, rsFactor: number, pulsed: boolean, hertz: number): string[] {
  const [plus, minus] = e.nodes as [string, string];
  const id = e.name.toLowerCase();
  const bridge = e.type === "RECT_BRIDGE";
  const peak = Math.SQRT2 * num(e, "vac", 0) * mains;
  const kind = String(e.params.tube ?? "silicon");
  const drop = kind === "silicon" ? (bridge ? 1.4 : 0.7) : kind === "selenium" ? 0.7 * Math.ceil(num(e, "vac", 0) / 20) : 0;
  const rs = Math.max(num(e, "rs", 1), 0.1) * rsFactor;
  const tube = e.rectifierTube?.rectifier;
  // A tube's drop as a resistance of the sheet's own drop at its current, and a volt or two beside it: the plain way.
  const ohms = rs + (tube ? tube.drop[0] / tube.drop[1] / 1.35 : 0);
  const volts = `(V(${plus},${minus})+${n(drop)})`;
  const halves = e.type === "RECT_HALF" ? 1 : 2;
  if (!pulsed) {
    const angle = `acos(min(max(${volts}/${n(peak)},-0.9999999),0.9999999))`;
    return [
      `Bt_${id} t_${id} 0 V=${angle}`,
      `Bi_${id} ${minus} ${plus} I=${n(halves / Math.PI / ohms)}*(${n(peak)}*sin(V(t_${id}))-${volts}*V(t_${id}))+1e-7*(${n(peak)}-V(${plus},${minus}))`,
    ];
  }
  const wave = `${n(peak)}*cos(${n(2 * Math.PI * hertz)}*time)`;
  const instant = halves === 2 ? `abs(${wave})` : wave;
  return [`Bi_${id} ${minus} ${plus} I=max(${instant}-${volts},0)/${n(ohms)}`];
}

function partLines(e: Element, spread: () => number, pulsed: boolean): string[] {
  const [a = "0", b = "0", c = "0"] = e.nodes;
  const id = e.name.toLowerCase();
  const ohm = (mark: string, from: string, to: string, ohms: number) => `R${mark}_${id} ${from} ${to} ${n(Math.max(ohms, 1e-3))}`;
  switch (e.letter) {
    case "R": {
      const tol = e.name === "RFAULT" || e.name === "RLOOSE" ? 0 : (e.notes.tol ?? 0.1);
      return [ohm("r", a, b, e.value! * (1 + tol * spread()))];
    }
    case "C":
      return pulsed ? [`C_${id} ${a} ${b} ${n(e.value!)}`] : [];
    case "L":
      return pulsed
        ? [`L_${id} ${a} m_${id} ${n(e.value!)}`, ohm("l", `m_${id}`, b, e.notes.dcr ?? 1)]
        : [ohm("l", a, b, e.notes.dcr ?? 1)];
  }
  if (e.type === "POT") {
    const pos = num(e, "pos", 0.5);
    const taper = String(e.params.taper ?? "linear");
    // A usual audio track has 15 % of its resistance at half a turn.
    const share =
      taper === "linear"
        ? pos
        : taper === "audio"
          ? pos <= 0.5
            ? 0.3 * pos
            : 0.15 + 1.7 * (pos - 0.5)
          : 1 - (pos >= 0.5 ? 0.3 * (1 - pos) : 0.15 + 1.7 * (0.5 - pos));
    const whole = e.value! * (1 + 0.1 * spread());
    return [ohm("a", a, b, Math.max(1, whole * share)), ohm("b", b, c, Math.max(1, whole * (1 - share)))];
  }
  if (e.type === "SW2") return [ohm("s", a, e.params.state === 2 ? e.nodes[2]! : b, 0.01)];
  if (e.type === "SW") return [ohm("s", a, b, e.params.state === "open" ? 1e12 : 0.01)];
  if (e.type === "OPT_SE") return [ohm("p", a, b, num(e, "dcr", 200)), ohm("q", c, e.nodes[3]!, 1)];
  if (e.type === "OPT_PP") {
    const ul = num(e, "ul", 0);
    const [p1, ct, p2] = [a, b, c];
    const dcr = num(e, "dcr", 100);
    const dcr2 = num(e, "dcr2", dcr);
    if (!ul) return [ohm("p", p1, ct, dcr), ohm("q", ct, p2, dcr2), ohm("o", e.nodes[3]!, e.nodes[4]!, 1)];
    const [t1, t2] = [e.nodes[3]!, e.nodes[4]!];
    return [
      ohm("p", p1, t1, dcr * (1 - ul)),
      ohm("pt", t1, ct, dcr * ul),
      ohm("qt", ct, t2, dcr2 * ul),
      ohm("q", t2, p2, dcr2 * (1 - ul)),
      ohm("o", e.nodes[5]!, e.nodes[6]!, 1),
    ];
  }
  throw new Error(`no way to write ${e.type ?? e.letter}`);
}

export interface BenchReading {
  dcv: Record<string, number>;
  /** Volts rms of ripple at the rails, where they were measured. */
  acv?: Record<string, number>;
}

const METER = 10e6;
/** One sigma of tube strength and µ from amp to amp; the wall, untold, lies anywhere within this part. */
const TUBE = 0.12;
const MU = 0.04;
const WALL = 0.04;
/** One sigma of a reading. */
const NOISE = 0.01;

/**
 * Reads an amp at every test point, one at a time with a meter of 10 MΩ, 1 % reading noise.
 * @param seed of parts, tubes, wall and noise. @throws where SPICE does not settle.
 */
export function benchReadings(file: Faulty, seed: number, ripple = false): BenchReading {
  const { circuit, errors } = readCircuit(file.text);
  const fatal = errors.filter((e) => !/floats/.test(e.found));
  if (fatal.length) throw new Error(fatal.map((e) => `${e.line}: ${e.found}`).join("; "));
  const uniform = uniformDraws(seed * 31 + 7);
  const normal = normalDraws(seed * 17 + 3);
  const spread = () => 2 * uniform() - 1;
  const clipped = () => Math.max(-2.5, Math.min(2.5, normal()));
  const wall = file.mains * (file.mains === 1 ? 1 + WALL * spread() : 1);
  const hertz = circuit.mains?.hertz ?? 50;
  const lines = circuit.elements.flatMap((e) => {
    if (e.tube) {
      const type = file.types[e.name] ?? e.tube.type;
      const warm = Math.min(1.05, 1 - 1.1 * Math.max(0, 0.95 - wall));
      return tubeLines(e.name, e.nodes, type, (file.emission[e.name] ?? 1) * (1 + TUBE * clipped()) * warm, 1 + MU * clipped());
    }
    if (e.type?.startsWith("RECT_")) return rectifierLines(e, wall * (1 + 0.01 * clipped()), 1 + 0.1 * clipped(), ripple, hertz);
    return partLines(e, spread, ripple);
  });
  const points = circuit.points;
  const meters = points.map((p, i) => `Rm${i} ${p.node} 0 1e13`);
  const deck = [circuit.title, ...lines, ...(ripple ? [] : meters), ".options gmin=1e-13 itl1=500 itl2=300", ".end", ""].join("\n");
  const noisy = (volts: number) => volts * (1 + NOISE * normal()) + 0.003 * normal();
  if (ripple) return pulsedReadings(circuit, deck, noisy, hertz);
  const control = points.flatMap((p, i) => [`alter Rm${i} = ${METER}`, "op", `print v(${p.node})`, `alter Rm${i} = 1e13`]);
  const found = [...runSpice(deck, control).matchAll(/^v\(([\w.]+)\)\s*=\s*([-+.\de]+)/gim)].map((m) => Number(m[2]));
  if (found.length !== points.length) throw new Error(`SPICE gave ${found.length} of ${points.length} readings`);
  return { dcv: Object.fromEntries(points.map((p, i) => [p.name, round(noisy(found[i]!))])) };
}

/** Ten periods at the end of two seconds; high nodes are loaded afterwards by what a divider would make of them. */
function pulsedReadings(circuit: Circuit, deck: string, noisy: (volts: number) => number, hertz: number): BenchReading {
  const from = 2;
  const to = from + 10 / hertz;
  const points = circuit.points.filter((p) => !/\.(g|s)$/i.test(p.name));
  const rails = points.filter((p) => /^B/.test(p.name));
  const control = [
    `tran 100u ${to} ${from} 100u`,
    ...points.map((p, i) => `meas tran m${i} avg v(${p.node}) from=${from} to=${to}`),
    "linearize",
    ...rails.flatMap((p, i) => [`let d${i} = v(${p.node})-mean(v(${p.node}))`, `let r${i} = sqrt(mean(d${i}*d${i}))`, `print r${i}`]),
  ];
  const figures = figuresIn(runSpice(deck, control, 240));
  const figure = (name: string) => {
    const value = figures.get(name);
    if (value === undefined || !Number.isFinite(value)) throw new Error(`SPICE gave no ${name}`);
    return value;
  };
  return {
    dcv: Object.fromEntries(points.map((p, i) => [p.name, round(noisy(figure(`m${i}`)))])),
    acv: Object.fromEntries(rails.map((p, i) => [p.name, round(Math.abs(noisy(figure(`r${i}`))))])),
  };
}

const round = (x: number) => Number(x.toPrecision(4));

export interface RecordedCase {
  amp: string;
  says: string;
  kind: string;
  refs: string[];
  seed: number;
  reading: BenchReading;
  /** Of the same amp, parts and noise without the fault. */
  sound?: BenchReading;
}
