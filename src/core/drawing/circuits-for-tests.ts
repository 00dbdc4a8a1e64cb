/** Random circuits for the tests of the drawing: chains of the trade's stages with extras that no stage has. */

import { uniformDraws } from "../numeric/random";

type Pick = <T>(list: readonly T[]) => T;

/** A circuit file by its seed; the same seed gives the same file. */
export function randomCircuit(seed: number): string {
  const random = uniformDraws(seed);
  const pick: Pick = (list) => list[Math.floor(random() * list.length)]!;
  const chance = (share: number) => random() < share;
  const lines: string[] = [];
  const count: Record<string, number> = {};
  const next = (letter: string) => `${letter}${(count[letter] = (count[letter] ?? 0) + 1)}`;
  const part = (letter: "R" | "C", a: string, b: string, value: string, notes = "") =>
    lines.push(`${next(letter)} ${a} ${b} ${value} ${notes}`);
  const R = (a: string, b: string) => part("R", a, b, pick(["470", "1.5k", "10k", "100k", "220k", "1MEG"]));
  const C = (a: string, b: string) => part("C", a, b, pick(["100p", "22n", "100n"]));
  const bypass = (a: string) => part("C", a, "0", "25u", ";@volts 25 @kind electrolytic");
  let tube = 0;
  let nodes = 0;
  const node = (kind: string) => `${kind}${++nodes}`;
  const rails: string[] = [];

  // The supply.
  lines.push(`XPS b1 0 ${pick(["RECT_FULL", "RECT_BRIDGE", "RECT_HALF"])} vac=250 rs=100 tube=${pick(["silicon", "GZ34"])}`);
  rails.push("b1");
  const sections = 1 + Math.floor(random() * 4);
  for (let i = 1; i <= sections; i++) {
    part("C", `b${i}`, "0", "32u", ";@volts 450 @kind electrolytic");
    if (chance(0.2)) R(`b${i}`, "0");
    if (i === sections) break;
    if (chance(0.2)) {
      const between = node("sb");
      lines.push(`X${next("S")} b${i} ${between} SW state=closed`, `${next("L")} ${between} b${i + 1} 5`);
    } else if (chance(0.25)) lines.push(`${next("L")} b${i} b${i + 1} 5`);
    else R(`b${i}`, `b${i + 1}`);
    rails.push(`b${i + 1}`);
  }
  const rail = () => pick(rails);
  const fixed = chance(0.5);
  if (fixed) {
    lines.push("XBS 0 bn RECT_HALF vac=50 rs=1k tube=silicon");
    part("C", "0", "bn", "50u", ";@volts 100");
    lines.push(`R90 bn ba 10k`, `XP90 ba bw bz POT value=25k taper=linear pos=0.5`, `R91 bz 0 22k`);
    if (chance(0.7)) part("C", "0", "bw", "10u", ";@volts 100");
  }

  const points: string[] = [];
  const stages: string[] = [];
  const mark = (name: string, at: string) => {
    if (chance(0.7)) points.push(`*@point ${name} node=${at} order=${points.length + 1} label="${name}"`);
  };

  const gridLine = (from: string): string => {
    const grid = node("g");
    if (chance(0.3)) {
      const top = node("t");
      C(from, top);
      lines.push(`X${next("P")} 0 ${grid} ${top} POT value=500k taper=audio pos=0.5`);
      return grid;
    }
    if (chance(0.3)) {
      const before = node("c");
      C(from, before);
      R(before, "0");
      R(before, grid);
      return grid;
    }
    C(from, grid);
    R(grid, "0");
    return grid;
  };
  const cathode = (k: string) => {
    R(k, "0");
    if (chance(0.6)) bypass(k);
  };

  const stage = (grid: string): string => {
    const kind = pick(["triode", "triode", "pentode", "follower", "split", "grounded", "parallel", "stacked"]);
    const v = `V${++tube}`;
    const p = node("p");
    const k = node("k");
    if (kind !== "follower") mark(`${v}.p`, p);
    if (kind === "pentode") {
      const s = node("s");
      lines.push(`X${v} ${p} ${s} ${grid} ${k} EF86`);
      R(rail(), p);
      R(rail(), s);
      C(s, chance(0.5) ? "0" : k);
      cathode(k);
      mark(`${v}.s`, s);
      return p;
    }
    if (kind === "follower") {
      lines.push(`X${v} ${rail()} ${grid} ${k} 12AX7`);
      R(k, "0");
      mark(`${v}.k`, k);
      return k;
    }
    if (kind === "split") {
      const joint = node("j");
      const own = node("g");
      lines.push(`X${v} ${p} ${own} ${k} 12AX7`);
      C(grid, own);
      R(own, joint);
      R(rail(), p);
      R(k, joint);
      R(joint, "0");
      return pick([p, k]);
    }
    if (kind === "grounded") {
      const from = node("i");
      C(grid, from);
      lines.push(`X${v} ${p} 0 ${from} 12AX7`);
      R(from, "0");
      R(rail(), p);
      return p;
    }
    if (kind === "parallel") {
      const [g1, g2] = [node("g"), node("g")];
      R(grid, g1);
      R(grid, g2);
      lines.push(`X${v}A ${p} ${g1} ${k} 12AX7`, `X${v}B ${p} ${g2} ${k} 12AX7`);
      R(rail(), p);
      cathode(k);
      return p;
    }
    if (kind === "stacked") {
      // The upper one's cathode is the lower one's plate.
      lines.push(`X${v}A ${rail()} ${p} ${p}u 12AX7`, `X${v}B ${p} ${grid} ${k} 12AX7`);
      R(`${p}u`, p);
      cathode(k);
      return `${p}u`;
    }
    lines.push(`X${v} ${p} ${grid} ${k} 12AX7`);
    if (chance(0.2)) {
      const joint = node("d");
      R(joint, p);
      R(rail(), joint);
      if (chance(0.5)) C(joint, "0");
    } else R(rail(), p);
    if (chance(0.2)) {
      const joint = node("f");
      R(k, joint);
      R(joint, "0");
    } else cathode(k);
    mark(`${v}.k`, k);
    return p;
  };

  let at = "in";
  R("in", "0");
  stages.push("*@stage IN in=in out=in");
  const length = 1 + Math.floor(random() * 4);
  const taps: string[] = [];
  for (let i = 0; i < length; i++) {
    at = stage(i === 0 && chance(0.5) ? at : gridLine(at));
    taps.push(at);
  }
  // The way out: a pair on one tail and two output tubes, or one output tube.
  if (chance(0.5)) {
    const v = `V${++tube}`;
    const [pa, pb, ga, gb, k, t] = ["pa", "pb", "ga", "gb", "kk", "tt"].map(node) as [string, string, string, string, string, string];
    lines.push(`X${v}A ${pa} ${ga} ${k} 12AU7`, `X${v}B ${pb} ${gb} ${k} 12AU7`);
    C(at, ga);
    R(rails.at(-1)!, pa);
    R(rails.at(-1)!, pb);
    if (chance(0.8)) {
      R(k, t);
      R(t, "0");
      R(ga, t);
      R(gb, t);
    } else {
      R(k, "0");
      R(ga, "0");
      R(gb, "0");
    }
    const fb = node("fb");
    C(gb, chance(0.5) ? "0" : fb);
    R(fb, "0");
    const shared = chance(0.4);
    const linear = chance(0.3);
    const outs = [pa, pb].map((from, i) => {
      const o = `V${++tube}`;
      const [p, s, g, kk] = [`op${i}`, `os${i}`, `og${i}`, shared ? "ok" : `ok${i}`];
      lines.push(`X${o} ${p} ${s} ${g} ${kk} 6V6GT`);
      C(from, g);
      R(g, fixed ? "bw" : "0");
      if (!shared) R(kk, "0");
      R(linear ? `ul${i}` : rails[0]!, s);
      mark(`${o}.g`, g);
      mark(`${o}.s`, s);
      mark(`${o}.p`, p);
      return p;
    });
    if (shared) cathode("ok");
    lines.push(
      `XT1 ${outs[0]} b1 ${outs[1]} ${linear ? "ul0 ul1 " : ""}out 0 OPT_PP zpp=8000 load=8 dcr=100 lp=30${linear ? " ul=0.4" : ""}`,
    );
    if (chance(0.6)) R(fb, "out");
  } else {
    const o = `V${++tube}`;
    const g = gridLine(at);
    lines.push(`X${o} op os ${g} ok EL84`);
    R(rails[0]!, "os");
    cathode("ok");
    lines.push("XT1 b1 op out 0 OPT_SE zp=5200 load=15 dcr=240 lp=9");
    mark(`${o}.p`, "op");
    if (chance(0.4)) R("out", pick(taps));
  }
  R("out", "0");

  // Extras at random places.
  const all = [...new Set(lines.flatMap((l) => (/^[RC]\d/.test(l) ? l.split(/\s+/).slice(1, 3) : [])))];
  const extras = Math.floor(random() * 6);
  for (let i = 0; i < extras; i++) {
    const [a, b, c] = [pick(all), pick(all), pick(all)];
    const kind = pick([
      "r",
      "c",
      "r",
      "c",
      "diode",
      "switch",
      "pot",
      "rheostat",
      "zener",
      "opamp",
      "transformer",
      "change",
      "source",
      "long",
    ]);
    if (kind === "r") R(a, b);
    else if (kind === "c") C(a, b);
    else if (kind === "diode") lines.push(`${next("D")} ${a} ${b} dx`);
    else if (kind === "switch") lines.push(`X${next("S")} ${a} ${b} SW state=open`);
    else if (kind === "pot") lines.push(`X${next("P")} ${a} ${b} ${c} POT value=1MEG taper=linear pos=0.5`);
    else if (kind === "rheostat") lines.push(`X${next("P")} ${a} ${b} ${b} POT value=1MEG taper=linear pos=0.5`);
    else if (kind === "zener") lines.push(`X${next("Z")} ${a} ${b} ZENER vz=12`);
    else if (kind === "opamp") lines.push(`X${next("U")} ${a} ${b} ${node("u")} OPAMP`);
    else if (kind === "transformer") lines.push(`X${next("TX")} ${a} 0 ${node("w")} ${b} XFMR ratio=4`);
    else if (kind === "change") lines.push(`X${next("SX")} ${a} ${b} ${node("w")} SW2 state=1`);
    else if (kind === "source") lines.push(`${next("I")} ${a} ${b} 1m`);
    else lines.push(`R_with_a_name_that_is_much_longer_than_any_that_a_chassis_has_${i} ${a} ${b} 1k`);
  }
  return [`Random ${seed}`, "*@mains 230 50", ...points, ...stages, ...lines, ".model dx D(is=1n)", ".end"].join("\n");
}

/** Typed by hand: two channels, a follower into a tone stack, a pair whose tail goes on to where the feedback comes in, fixed bias. */
export const TWO_CHANNELS = `Two channels into a tone stack
*@mains 230 50
*@stage V1A in=in1 out=p1a
*@stage V1B in=in2 out=p1b
XPS b1 0 RECT_BRIDGE vac=320 rs=40 tube=silicon
C1 b1 0 50u
L1 b1 b2 10
C2 b2 0 50u
R1 b2 b3 10k
C3 b3 0 32u
R2 b3 b4 10k
C4 b4 0 32u
XBS 0 bn RECT_HALF vac=50 rs=1k tube=silicon
C20 0 bn 10u
R40 bn ba 15k
XP9 ba bw bz POT value=25k taper=linear pos=0.5
R41 bz 0 27k
C21 0 bw 10u
R50 in1 g1a 68k
R51 in1 0 1MEG
XV1A p1a g1a k1 12AX7
R52 b4 p1a 100k
R53 k1 0 820
C30 k1 0 250u ;@volts 25
R54 in2 g1b 68k
R55 in2 0 1MEG
XV1B p1b g1b k1 12AX7
R56 b4 p1b 100k
C31 p1a v1 22n
XP1 0 w1 v1 POT value=1MEG taper=audio pos=0.5
C32 p1b v2 22n
XP2 0 w2 v2 POT value=1MEG taper=audio pos=0.5
R57 w1 m 270k
R58 w2 m 270k
C33 w1 v1 500p
XV2A p2a m k2a 12AX7
R59 b4 p2a 100k
R60 k2a 0 820
XV2B b4 p2a k2b 12AX7
R61 k2b 0 100k
C34 k2b t1 500p
XP3 t2 tw t1 POT value=250k taper=audio pos=0.5
R62 k2b s 56k
C35 s t2 22n
C36 s b5 22n
XP4 b5 t2 t2 POT value=1MEG taper=audio pos=0.5
XP5 0 b5 b5 POT value=25k taper=linear pos=0.5
C37 tw g3a 22n
XV3A p3a g3a k3 12AT7
XV3B p3b g3b k3 12AT7
R63 b3 p3a 82k
R64 b3 p3b 100k
R65 k3 t3 470
R66 t3 fb 10k
R67 g3a t3 1MEG
R68 g3b t3 1MEG
C38 g3b fb 100n
XP6 fb pw 0 POT value=5k taper=linear pos=0.5
C39 pw 0 100n
R69 fb out 27k
C40 p3a g4 22n
C41 p3b g5 22n
R70 g4 bw 220k
R71 g5 bw 220k
R72 g4 g4s 1.5k
R73 g5 g5s 1.5k
XV4 p4 s4 g4s 0 6L6GC
XV5 p5 s5 g5s 0 6L6GC
R74 b2 s4 470
R75 b2 s5 470
XT1 p4 b1 p5 out 0 OPT_PP zpp=4000 load=8 dcr=60 dcr2=60 lp=20
R76 out 0 8
.end`;
