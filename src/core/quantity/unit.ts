/** The units that a bench reading or a part's value comes in. */
export type Unit = "V" | "A" | "Ω" | "F" | "H" | "W" | "Hz" | "s" | "J" | "%";

export const UNIT_WORDS: Record<Unit, string> = {
  V: "volts",
  A: "amperes",
  Ω: "ohms",
  F: "farads",
  H: "henries",
  W: "watts",
  Hz: "hertz",
  s: "seconds",
  J: "joules",
  "%": "percent",
};
