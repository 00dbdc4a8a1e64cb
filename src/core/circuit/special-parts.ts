/** The X elements that are not tubes: how many nodes each takes, which parameters, which of them it needs. */

export interface SpecialPart {
  nodes: string[];
  /** More nodes may follow, up to this many in all. */
  most?: number;
  needs: string[];
  may: string[];
  /** One of these is needed as well. */
  either?: string[];
  /** Parameters that are words, with what is accepted; "*" is any word. */
  words?: Record<string, string[]>;
}

const RECTIFIER = { nodes: ["DC+", "DC−"], needs: ["vac"], may: ["rs", "tube"], words: { tube: ["*"] } };

export const SPECIAL_PARTS: Record<string, SpecialPart> = {
  POT: {
    nodes: ["start", "wiper", "end"],
    most: 4,
    needs: ["value"],
    may: ["taper", "pos", "tap"],
    words: { taper: ["linear", "audio", "reverse"] },
  },
  SW: { nodes: ["a", "b"], needs: [], may: ["state"], words: { state: ["open", "closed"] } },
  SW2: { nodes: ["common", "1", "2"], needs: [], may: ["state"] },
  OPT_SE: {
    nodes: ["B+", "plate", "secondary", "secondary return"],
    most: 8,
    needs: ["zp", "load"],
    may: ["dcr", "dcrsec", "lp", "ll", "ul", "load2", "load3", "load4"],
  },
  OPT_PP: {
    nodes: ["plate 1", "centre tap", "plate 2", "secondary", "secondary return"],
    most: 11,
    needs: ["load"],
    either: ["zpp", "zp"],
    may: ["dcr", "dcr2", "dcrsec", "lp", "ll", "ul", "load2", "load3", "load4"],
  },
  XFMR: {
    nodes: ["primary", "primary return", "secondary", "secondary return"],
    most: 12,
    needs: ["ratio"],
    may: ["lp", "ll", "dcr", "dcrsec", "ratio2", "ratio3", "ratio4"],
  },
  RECT_FULL: RECTIFIER,
  RECT_HALF: RECTIFIER,
  RECT_BRIDGE: { ...RECTIFIER, most: 3 },
  DOUBLER: { ...RECTIFIER, nodes: ["DC+", "DC−", "middle (where its two capacitors meet and the winding returns)"] },
  DOUBLER_HALF: { ...RECTIFIER, nodes: ["DC+", "DC−", "joint of the two diodes", "hot end of the winding"] },
  OPAMP: { nodes: ["in+", "in−", "out"], most: 5, needs: [], may: ["gain", "vmax", "gbw"] },
  NMOS: { nodes: ["drain", "gate", "source"], needs: ["vto"], may: ["kp", "vmax", "lambda"] },
  ZENER: { nodes: ["anode", "cathode"], needs: ["vz"], may: ["rz", "pmax"] },
};

/** Nodes of the primary side of an output transformer: two or three, and the ultralinear taps. */
export function primaryNodes(type: string, params: Record<string, number | string>): number {
  const taps = params.ul === undefined ? 0 : type === "OPT_PP" ? 2 : 1;
  return (type === "OPT_PP" ? 3 : 2) + taps;
}

/** What the number of nodes should be for the taps and windings that the parameters name; undefined when it is so. */
export function windingsOf(type: string, nodes: number, params: Record<string, number | string>): string | undefined {
  const more = (key: string) => [2, 3, 4].filter((k) => params[`${key}${k}`] !== undefined).length;
  if (type === "OPT_SE" || type === "OPT_PP") {
    const primary = primaryNodes(type, params);
    const wanted = primary + 2 + more("load");
    if (nodes === wanted) return undefined;
    const ul = params.ul === undefined ? "" : type === "OPT_PP" ? " ul1 ul2" : " ul";
    return `${wanted}: ${type === "OPT_PP" ? "plate1 centre plate2" : "b+ plate"}${ul} secondary return, and a node for each of load2= to load4=`;
  }
  if (type === "XFMR") {
    const wanted = 4 + 2 * more("ratio");
    return nodes === wanted ? undefined : `${wanted}: two a winding, with ratio2= to ratio4= for more secondaries`;
  }
  return undefined;
}

export function isRectifier(type: string | undefined): boolean {
  return type !== undefined && (type.startsWith("RECT_") || isDoubler(type));
}

/** Two diodes about two capacitors: the winding to their middle (full-wave), or through one of them to the joint (half-wave cascade). */
export function isDoubler(type: string | undefined): boolean {
  return type === "DOUBLER" || type === "DOUBLER_HALF";
}
