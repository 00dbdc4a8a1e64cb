/** What blocks, their options and their ports are called on the screen. */

import { words } from "../language/language";

const KINDS: Record<string, string> = {
  "full-wave": "Full-wave rectifier",
  bridge: "Bridge rectifier",
  "half-wave": "Half-wave rectifier",
  doubler: "Voltage doubler",
  "line-connected": "Rectifier on the line itself",
  standby: "Standby switch",
  filter: "Filter section",
  bleeder: "Bleeder",
  "other-draw": "Draw of what is not drawn",
  "bias-supply": "Bias supply",
  "back-bias": "Back bias",
  "bias-adjuster": "Bias adjuster",
  input: "Input jack",
  "input-leak": "Input leak",
  mixer: "Mixer",
  volume: "Volume",
  triode: "Triode stage",
  pentode: "Pentode stage",
  parallel: "Two triodes in parallel",
  cascode: "Cascode",
  follower: "Cathode follower",
  "tone-stack": "Treble, middle, bass",
  "bass-treble": "Bass and treble",
  "tone-control": "Tone control",
  "effects-loop": "Effects loop",
  reverb: "Reverb",
  "tremolo-bias": "Tremolo on the bias",
  "tremolo-cathode": "Tremolo on a cathode",
  "tremolo-grid": "Tremolo on a grid",
  "split-load": "Split-load inverter",
  "long-tailed-pair": "Long-tailed pair",
  paraphase: "Paraphase inverter",
  "transformer-inverter": "Transformer inverter",
  "single-ended": "Single-ended output",
  "push-pull": "Push-pull output",
  feedback: "Feedback",
  "line-outlet": "Line outlet",
  heaters: "Heaters",
};

export const kindName = (kind: string): string => words(KINDS[kind] ?? kind);

const OPTIONS: Record<string, string> = {
  rectifier: "Rectifier",
  reservoir: "Reservoir",
  element: "In line",
  bleeder: "Bleeder",
  adjusters: "Adjusters",
  capacitor: "Capacitor at the wiper",
  jacks: "Jacks",
  channels: "Channels",
  leak: "Leak behind it",
  bright: "Bright capacitor",
  coupling: "To the next",
  input: "Before the grid",
  stopper: "Grid stopper",
  cathode: "Cathode",
  "plate-capacitor": "Plate capacitor",
  decoupling: "Supply decoupled",
  "screen-capacitor": "Screen capacitor",
  order: "Middle's capacitor",
  middle: "Middle",
  drive: "Springs driven by",
  grid: "Grid",
  tail: "Tail",
  form: "Form",
  tubes: "Tubes",
  pairs: "Pairs",
  biasing: "Bias",
  bypass: "Cathode capacitor",
  screens: "Screens",
  stoppers: "Grid stoppers",
  load: "Load",
  control: "Control",
  wiring: "Wiring",
};

export const optionName = (key: string): string => words(OPTIONS[key] ?? key);

const VALUES: Record<string, string> = {
  none: "nothing",
  leak: "a leak",
  capacitor: "a capacitor",
  direct: "directly",
  "middle at the foot": "at the foot",
  "middle at its wiper": "at its wiper",
};

/** An answer as it stands in a list. */
export const valueName = (key: string, value: string): string =>
  ["input", "coupling", "order"].includes(key) ? words(VALUES[value] ?? value) : words(value);

const PORTS: Record<string, string> = {
  rail: "Fed from",
  from: "Fed from",
  screen: "Screens fed from",
  bias: "Grid leaks go to",
  bias2: "Lower grid leaks go to",
  feedback: "Feedback comes in from",
  in: "Signal from",
  in2: "Second signal from",
  in3: "Third signal from",
  cathode: "Moves the cathode",
};
export const portName = (port: string): string => words(PORTS[port] ?? port);

const CHOICES: Record<string, string> = {
  output: "Output stage",
  inverter: "Phase inverter",
  bias: "Output bias",
  screens: "Screens",
  supply: "Rectifier",
  filter: "First filter",
  tone: "Tone",
  rest: "Tube sections left over",
  feedback: "Feedback",
};
export const choiceName = (name: string): string => words(CHOICES[name] ?? name);

const ANSWERS: Record<string, string> = {
  "split-load": "split load",
  "long-tailed-pair": "long-tailed pair",
  "transformer-inverter": "transformer",
  "full-wave": "full-wave",
  "half-wave": "half-wave",
  "two push-pull": "push-pull in two channels",
  "two single-ended": "single-ended in two channels",
  "parallel single-ended": "single-ended in parallel",
  "cathode each": "a cathode resistor each",
  cathode: "cathode resistor",
  "fixed, sensed": "fixed, with a resistor to read it",
};
/** What a proposed chain's question can be answered with. */
export const answerName = (answer: string): string => words(ANSWERS[answer] ?? answer);
