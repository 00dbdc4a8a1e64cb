/** Texts of the output stage: bias, resistors, load, waveform, blocking, tubes, signal walk, droppers. */

import { say, words, type Value } from "../language/language";

// Reading a current.
export const idleSetTo = (stage: Value, amps: Value) => say`idle of ${stage} to ${amps}`;
export const noOutputTube = (name: Value) => say`${name} is no output tube of this stage`;
export const notNumber = () => "not a number";
const UNIT: Record<string, string> = {
  "cathode resistor": "volts across the cathode resistor, 0 or more: 0.35, 350m",
  "socket probe": "amperes, 0 or more: 35m",
  "half winding": "volts across that half of the transformer, 0 or more: 3.4",
  shunt: "amperes through the meter, 0 or more: 32m",
};
export const valueOfWay = (way: string) => UNIT[way] ?? "a number";
export const wrongSign = (tube: Value, way: string) =>
  way === "half winding"
    ? say`${tube}: the volts are negative, so the leads lie the other way round; the red one belongs on the centre tap`
    : say`${tube}: the current is negative, so the leads lie the other way round`;
export const screenVoltsAccepted = () => "volts across the screen resistor, 0 or more, with less current than the cathode has";
export const ohmsWanted = (tube: Value, way: string) =>
  way === "cathode resistor"
    ? say`${tube} has no cathode resistor in the circuit: its ohms are wanted`
    : say`${tube}: the resistance of its half of the transformer is wanted, measured with the power off`;
export const ohmsAccepted = (way: string) => (way === "cathode resistor" ? "ohms above 0: 1, 10" : "ohms above 0: 95");
export const noScreenResistor = (tube: Value) => say`${tube} has no screen resistor of its own to read across`;
export const screenWrongSign = (tube: Value) => say`${tube}: the volts across the screen resistor are negative: turn the leads round`;
export const screenAboveCathode = (tube: Value) => say`${tube}: the screen would draw more than the cathode gives`;
export const farAbove = (tube: Value, amps: Value, times: Value, type: Value) =>
  say`${tube}: ${amps} would be ${times} times the rating of a ${type}; check the reading`;
export const farBelow = (tube: Value, amps: Value) =>
  say`${tube}: ${amps} is next to nothing; a cold tube, an open resistor, or another unit`;
export const thousandTimesLess = (way: string, amps: Value) =>
  way === "cathode resistor"
    ? say`If the meter showed millivolts, enter it as 350m: the current would be ${amps}`
    : say`If the probe shows milliamperes, enter it as 35m: the current would be ${amps}`;
export const thousandTimesMore = (way: string, amps: Value) =>
  way === "cathode resistor"
    ? say`If that was volts and not millivolts, the current would be ${amps}`
    : say`If that was milliamperes and not microamperes, the current would be ${amps}`;
export const resistorTenTimes = (ohms: Value) =>
  say`Is the cathode resistor really ${ohms}? With ten times that the current would be usual`;

// Idle and targets.
export const doesNotSettle = (node: Value) => say`the circuit does not settle (${node})`;
export const whyCool = () => words("50 to 60 % of the rating: long life, some crossover distortion at low level");
export const whyMiddle = () => "65 to 70 % of the rating: the usual compromise";
export const whyHot = () => "75 to 85 % of the rating: least crossover distortion, shorter life, more heat";
export const whyLabel = () => "the figure on the amp's label";
export const whyManual = () => "the figure in the manual";
export const whyCrossover = () => "the least idle at which the crossover notch is under the bound";
export const whyOwn = () => "your own figure";
export const whyBrief = (aim: Value, school: Value) => say`the owner puts ${aim} first: ${school}`;

// Resistors.
export const asItStands = () => "as it stands";
export const noCathodeResistor = () => words("this stage has no cathode resistor that biases it: it is fixed by its bias supply");
export const noScreenResistors = () => "the screens of this stage have no resistors of their own";

// Waveform.
export const samplesWanted = (wanted: Value, read: Value) => say`at least ${wanted} samples; read ${read}`;
export const nothingMoves = () => "nothing moves in this waveform";
export const toneWantsInputAndLoad = () => "a tone wants an input (*@stage) and a load on the output transformer";
export const noSignalPasses = () => "no signal reaches the output: a control is at zero or the way is broken";
export const scopeAccepted = () =>
  "lines of time and volts, separated by comma, semicolon or tab; headers are passed over; at least 64 rows and one whole period";
export const scopeTooFew = (rows: Value, skipped: Value) => say`${rows} rows with two figures were found, ${skipped} lines had none`;
export const scopeTimeBack = () => "the time in the first column does not rise from row to row";
export const scopeNoPeriod = () => "no whole period is in the file";

// Blocking.
export const asItIs = () => "as it is";
export const originalAsIs = () => "nothing is changed";
export const originalParts = (count: number) =>
  `${count} ${count === 1 ? "part" : "parts"} replaced; the old ${count === 1 ? "one goes" : "ones go"} into the bag`;
export const originalAdded = (count: number) => `${count} ${count === 1 ? "resistor" : "resistors"} added, none removed: reversible`;
export const originalReversible = () => "an adjustment: reversible";
export const originalTube = () => words("another tube type in the same socket: reversible");
export const partsTo = (names: Value, from: Value, to: Value) => say`${names}: ${from} to ${to}`;
export const colder = () => "bias 3 V colder";
export const stopperAdded = (ohms: Value) => say`${ohms} in series with each output grid`;
export const typeFor = (names: Value, from: Value, to: Value) => say`${names}: ${to} for ${from}`;
export const gridColderThanExpected = (tube: Value) => say`${tube}: the grid is more negative at rest than it should be`;
export const checkBiasSupply = () => "Read the bias supply and its adjuster first";
export const gridRisesUnderDrive = (tube: Value) => say`${tube}: the grid becomes more positive under drive`;
export const checkGas = (tube: Value) =>
  words(say`Try another tube in ${tube}: a gassy one does this as it warms; read again with the meter on a lower range`);
export const leakAndBlocking = (tube: Value) =>
  say`${tube}: the grid is too positive at rest, and drive takes it down: the coupling capacitor leaks and the grid blocks`;
export const capacitorFirst = () => "Replace the coupling capacitor first, then read again: the bias was wrong";
export const leakOnly = (tube: Value) =>
  say`${tube}: the grid is too positive at rest and drive does not change it: the coupling capacitor leaks`;
export const liftLeg = () => "Lift one leg of the coupling capacitor and read its leakage";
export const blockingOnly = (tube: Value) => say`${tube}: right at rest, more negative under drive: the grid blocks`;
export const chooseRemedy = () => "Compare the remedies below";
export const gridStays = (tube: Value) => say`${tube}: the grid stays where it should at rest and under drive`;
export const lookEarlier = () => "Drive it harder, or read the grids of the stage before";

// Load line.
export const typeWithoutModel = (type: Value) => say`${type} has no model in the library, so it has no curves`;
export const aboveZero = (name: Value, value: Value) => say`${name}: a figure above zero; read ${value}`;

// Matching.
export const groupSize = (size: Value) => say`a group has two or more tubes; read ${size}`;

// Signal walk.
export const toneAboveZero = (volts: Value, hertz: Value) => say`a tone above 0 V and 0 Hz; read ${volts} V, ${hertz} Hz`;
export const inputOf = (stage: Value) => say`${stage}, input`;
export const outputOf = (stage: Value) => say`${stage}, output`;
export const gridOf = (stage: Value) => say`${stage}, grid`;
export const theInput = () => "Input";
export const theLoad = () => "Load";
export const atTheLoad = () => "at the load";
export const firstOff = (point: Value, label: Value, db: Value, after?: string) =>
  after
    ? say`${point} (${label}) is off by ${db} dB: the fault lies between ${after} and ${point}`
    : say`${point} (${label}) is off by ${db} dB`;
export const noLevelRead = () => "No level has been read yet";
export const levelsSoFar = (taken: Value, of: Value) => say`${taken} of ${of} levels read, all within tolerance so far`;
export const levelsWithin = (db: Value) => say`Every level is within ${db} dB of what the circuit gives`;
export const loadsAboveZero = () => "two levels and two loads above zero";
export const loadsCannotBe = () => "the level into the higher load is to be the higher one: check which is which";

// Droppers.
export const windowWanted = (low: Value, high: Value) => say`a window of volts, the lower figure first; read ${low} to ${high}`;
export const noDropper = (point: Value) => say`${point} has no resistor or choke before it in the supply`;
export const choke = (henries: number, dcr: number) => `choke ${henries} H, ${dcr} Ω`;
export const resistor = (ohms: number) => `resistor ${ohms} Ω`;

// Answers.
export const noStage = (name: Value) => say`there is no output stage ${name}`;
export const noAdjuster = (name: Value) => say`${name} moves no output tube`;
