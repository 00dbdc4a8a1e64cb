/** The X elements that are not tubes: how many nodes each takes, which parameters, which of them it needs. */

export interface BlockSpec {
  nodes: string[];
  /** More nodes may follow, up to this many in all. */
  most?: number;
  needs: string[];
  may: string[];
  /** Parameters that are words, with what is accepted; "*" is any word. */
  words?: Record<string, string[]>;
}

const RECTIFIER = { nodes: ["DC+", "DC−"], needs: ["vac"], may: ["rs", "tube"], words: { tube: ["*"] } };

export const BLOCKS: Record<string, BlockSpec> = {
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
    may: ["dcr", "dcrsec", "lp", "ll", "ul"],
  },
  OPT_PP: {
    nodes: ["plate 1", "centre tap", "plate 2", "secondary", "secondary return"],
    most: 11,
    needs: ["zpp", "load"],
    may: ["dcr", "dcr2", "dcrsec", "lp", "ll", "ul"],
  },
  XFMR: {
    nodes: ["primary", "primary return", "secondary", "secondary return"],
    most: 12,
    needs: ["ratio"],
    may: ["lp", "ll", "dcr", "dcrsec"],
  },
  RECT_FULL: RECTIFIER,
  RECT_HALF: RECTIFIER,
  RECT_BRIDGE: RECTIFIER,
  DOUBLER: { ...RECTIFIER, may: ["rs", "tube", "c1", "c2"] },
  OPAMP: { nodes: ["in+", "in−", "out"], most: 5, needs: [], may: ["gain", "vmax", "gbw"] },
  NMOS: { nodes: ["drain", "gate", "source"], needs: ["vto"], may: ["kp", "vmax", "lambda"] },
  ZENER: { nodes: ["anode", "cathode"], needs: ["vz"], may: ["rz", "pmax"] },
};

export function isRectifier(type: string | undefined): boolean {
  return type !== undefined && (type.startsWith("RECT_") || type === "DOUBLER");
}
