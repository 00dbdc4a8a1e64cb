/** A circuit for an amp that has none here: stages, controls and supplies as the technician finds them, with the usual parts. */

export interface GenericStage {
  /** Half of a double triode, in the order of the signal. */
  tube: string;
  /** A volume or tone control before it. */
  control?: string;
}

export interface GenericChain {
  stages: GenericStage[];
  output: "single-ended" | "push-pull";
  fixedBias: boolean;
  feedback: boolean;
  /** Series string across the line, one side of it on the chassis. */
  lineConnected: boolean;
  mains: number;
  hertz: number;
}

export const USUAL_CHAIN: GenericChain = {
  stages: [{ tube: "V1A" }, { tube: "V1B", control: "P1" }],
  output: "push-pull",
  fixedBias: false,
  feedback: false,
  lineConnected: false,
  mains: 230,
  hertz: 50,
};

/** Stages besides the inverter and the output that are drawn. */
export const MOST_STAGES = 6;

/** @returns the circuit as a file. @throws RangeError for no stage, too many, or names that clash. */
export function genericCircuit(chain: GenericChain): string {
  const { stages, output, fixedBias, feedback, lineConnected } = chain;
  if (stages.length < 1 || stages.length > MOST_STAGES) throw new RangeError(`${stages.length} stages; 1 to ${MOST_STAGES} are drawn`);
  const names = [...stages.map((s) => s.tube), ...stages.flatMap((s) => s.control ?? [])];
  for (const n of names) if (!/^(V\d+[A-D]?|P\d+)$/.test(n)) throw new RangeError(`read ${n}; tubes are V1 or V1A, controls P1`);
  if (new Set(names).size !== names.length) throw new RangeError("two stages or controls have one name");
  const pair = output === "push-pull";
  // Two stages to a supply node: more of them on one feed back through it, and motorboat though nothing is wrong.
  const early = Math.max(0, stages.length - 2);
  const used = Math.max(...stages.map((s) => Number(/\d+/.exec(s.tube)![0])));
  const [inverter, first, second] = [`V${used + 1}`, `V${used + (pair ? 2 : 1)}`, `V${used + 3}`];
  const tubes = [...new Set([...stages.map((s) => s.tube.replace(/[A-D]$/, "")), ...(pair ? [inverter, first, second] : [first])])];
  const lines = [
    "Generic chain",
    `*@mains ${chain.mains} ${chain.hertz}`,
    `*@fact maker=Unknown model="Generic chain"${lineConnected ? " line-connected=yes" : ""}`,
    lineConnected ? `*@heater H1 string tubes=${tubes.join(",")}` : `*@heater H1 volts=6.3 tubes=${tubes.join(",")} reference=centre-tap`,
    '*@point B1 node=b1 order=10 label="Reservoir"',
    '*@point B2 node=b2 order=20 label="Screen supply"',
    '*@point B3 node=b3 order=30 label="Preamp supply"',
    ...(early > 0 ? ['*@point B4 node=b4 order=40 label="First stages\' supply"'] : []),
    ...stages.map(
      (s, i) =>
        `*@stage ${s.tube} in=${i === 0 && !s.control ? "in" : `g${i}`} out=p${i}${s.control ? ` control=${s.control}` : ""} label="${s.tube}"`,
    ),
  ];
  const parts: string[] = [
    "XPS b1 0 RECT_BRIDGE vac=230 rs=80 tube=silicon",
    "C1 b1 0 47u ;@kind electrolytic @volts 450",
    "R1 b1 b2 1k",
    "C2 b2 0 32u ;@kind electrolytic @volts 450",
    "R2 b2 b3 22k",
    "C3 b3 0 16u ;@kind electrolytic @volts 450",
    ...(early > 0 ? ["R3 b3 b4 22k", "C4 b4 0 16u ;@kind electrolytic @volts 450"] : []),
    "R90 b1 0 220k",
    "R91 in 0 1MEG",
  ];
  let from = "in";
  stages.forEach((s, i) => {
    const grid = i === 0 && !s.control ? "in" : `g${i}`;
    const n = 10 + i;
    if (i > 0) parts.push(`C${n} ${from} c${i} 22n`);
    const into = i > 0 ? `c${i}` : "in";
    if (s.control) parts.push(`X${s.control} 0 ${grid} ${into} POT value=1MEG taper=audio pos=0.5`);
    else if (i > 0) parts.push(`R${20 + i} ${grid} 0 1MEG`, `R${30 + i} ${into} ${grid} 10`);
    parts.push(
      `X${s.tube} p${i} ${grid} k${i} 12AX7`,
      `R${40 + i} ${i < early ? "b4" : "b3"} p${i} 100k ;@kind carbon`,
      `R${50 + i} k${i} 0 1.5k`,
      `C${20 + i} k${i} 0 25u`,
    );
    from = `p${i}`;
  });
  const bias = fixedBias
    ? ["XBS 0 bn RECT_HALF vac=30 rs=1k tube=silicon", "C50 0 bn 47u ;@kind electrolytic @volts 100", "R80 bn 0 47k"]
    : [];
  if (pair) {
    lines.push(
      `*@stage ${inverter} in=gi out=pi label="Inverter"`,
      `*@stage ${first} in=go out=po label="Output, upper"`,
      `*@stage ${second} in=gq out=pq label="Output, lower"`,
    );
    parts.push(
      `C30 ${from} gi 22n`,
      `X${inverter} pi gi ki 12AX7`,
      "R60 b2 pi 56k",
      "R61 ki kj 1.5k",
      "R62 kj 0 56k",
      "R63 gi kj 1MEG",
      "C31 pi go 47n",
      "C32 ki gq 47n",
      `R64 go ${fixedBias ? "bn" : "0"} 220k`,
      `R65 gq ${fixedBias ? "bn" : "0"} 220k`,
      `X${first} po so go kk 6V6GT`,
      `X${second} pq sq gq kk 6V6GT`,
      "R66 b2 so 470",
      "R67 b2 sq 470",
      fixedBias ? "R68 kk 0 10" : "R68 kk 0 270",
      ...(fixedBias ? [] : ["C33 kk 0 47u"]),
      "XT1 po b1 pq out 0 OPT_PP zpp=8000 load=8 dcr=180 lp=30",
    );
  } else {
    lines.push(`*@stage ${first} in=go out=po label="Output"`);
    parts.push(
      `C30 ${from} go 22n`,
      `R64 go ${fixedBias ? "bn" : "0"} 470k`,
      `X${first} po so go kk 6V6GT`,
      "R66 b2 so 470",
      fixedBias ? "R68 kk 0 10" : "R68 kk 0 330",
      ...(fixedBias ? [] : ["C33 kk 0 47u"]),
      "XT1 b1 po out 0 OPT_SE zp=5000 load=8 dcr=250 lp=12",
    );
  }
  if (feedback) parts.push("R70 out fb 10k", "R71 fb 0 1k", `C34 fb ${pair ? "ki" : `k${stages.length - 1}`} 1u`);
  return [...lines, ...parts, ...bias, 'R99 out 0 8 ;@label "Speaker"', ".end", ""].join("\n");
}
