/** Texts of cold. */

import { say, type Value } from "../language/language";

// cold-check
export const highPoorPinContact = () => say`high: a poor pin or contact`;
export const openWinding = () => say`open winding`;
export const abovePoorJointAnother = (expected: Value) => say`above ${expected}: a poor joint, or another transformer`;
export const aboveBleederLoadHas = (expected: Value) => say`above ${expected}: a bleeder or load has gone high or open`;
export const openNoPathBeside = () => say`open: nothing in parallel with it`;
export const goneHighExpectedAll = (expected: Value) => say`gone high: ${expected} expected with what is in parallel`;
export const lowShortedTurnsAnother = () => say`low: shorted turns, or another transformer`;
export const lowWarmStillAnother = () => say`low: warm still, or another type`;
export const shortRailNoPower = () => say`a short on this rail: no power before it is found`;
export const belowLeakyElectrolyticShort = (expected: Value) => say`below ${expected}: a leaky electrolytic or a short behind a dropper`;
export const belowPartHasGone = (expected: Value, check: Value) =>
  say`below ${expected}: the part has gone low, or something in parallel leaks${check}; lift a leg to tell`;
export const halfOpen = () => say`a half is open`;
export const halfReadsLowAgainst = (lower: Value, off: Value, off2: Value) =>
  say`the ${lower} half reads ${off} % low against the other: ${off2}`;
export const measureAgainWarmCold = () => say`measure again, warm and cold`;

// cold-list
export const chassisRed = (value: Value) => say`${value} + to chassis, red on +`;
export const across = (value: Value) => say`across ${value}`;
export const outputTransformer = (value: Value, half: Value) => say`Output transformer ${value}${half}`;
export const centreTapSupplyPlate = (a: Value, b: Value) => say`centre tap or supply to plate, ${a} to ${b}`;
export const across2 = (value: Value, nodes: Value) => say`across ${value}, ${nodes}`;
export const firstHalf = () => say`, first half`;
export const secondHalf = () => say`, second half`;
export const rectifierOutOffPaths = () => say`rectifier out or off; by the path's resistance, so only roughly`;
export const highTensionWindingFirst = () => say`High-tension winding, first half`;
export const highTensionWindingSecond = () => say`High-tension winding, second half`;
export const highTensionWinding = () => say`High-tension winding`;
export const heater = (tube: Value) => say`${tube} heater`;
export const stringOpenSwitch = () => say`the string open at the switch`;
export const outSocket = () => say`out of its socket`;

// in-circuit
export const readsAboveMarkedValue = (ohms: Value) => say`reads above its marked value in circuit: it has gone ${ohms}`;
export const aboveToleranceDriftedHigh = () => say`above its tolerance: drifted high`;
export const belowMarkedValueParallel = () => say`below its marked value: a parallel path, or the part has gone low; lift a leg to tell`;

// sweep-pot
export const threePointsTurnMore = (length: Value) => say`three points of the turn or more are wanted; read ${length}`;
export const turnFromWantedRead = (turn: Value) => say`a turn from 0 to 100 % is wanted; read ${turn} %`;
export const ohmsFromZeroUp = (ohms: Value) => say`ohms from zero up are wanted; read ${ohms}`;
export const ohmsFromEndEnd = (total: Value) => say`ohms from end to end above zero are wanted; read ${total}`;
export const nothingChangesTrackWiper = (longDead: Value) => say`nothing changes ${longDead}: the track or the wiper is worn there`;
export const fromTo = (a: Value, b: Value) => say`from ${a} to ${b}`;
export const jumpsCrackedTrackDirt = (jumps: Value) => say`jumps ${jumps}: cracked track or dirt`;
export const betweenAnd = (j: Value, j2: Value) => say`between ${j} and ${j2}`;
export const doesNotRiseAll = () => say`does not rise all the way: a poor wiper contact; clean it and sweep again`;
export const fitsNeitherLinearAudio = () => say`fits neither a linear, an audio nor a reverse audio law`;
export const whereCircuitHasReplacement = (law: Value, wanted: Value) =>
  say`${law} where the circuit has ${wanted}: a replacement, or the ends are swapped`;
export const endEndWhatMarked = (total: Value) => say`end to end ${total} of what is marked`;
export const doesNotReachEnd = () => say`does not reach its end: it never turns fully down or up`;
