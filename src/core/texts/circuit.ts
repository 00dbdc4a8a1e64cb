/** Texts of circuit. */

import { aType, say, type Value } from "../language/language";

// alter
export const expected = (found: Value, expected: Value) => say`${found}: expected ${expected}`;
export const tube = (typed: Value) => say`tube ${typed}`;

// element-line
export const oneOf = (accepted: Value) => say`one of ${accepted}`;

// alter
export const nameChangeExampleOpen = () => say`NAME=CHANGE, for example R7=open or C3=leak:47k`;
export const partCircuitThereNo = (name: Value) => say`a part of this circuit; there is no ${name}`;
export const partEnteredMainsAmp = () => say`the part of the entered mains that the amp gets, for example mains=0.9`;
export const openShortValueAbove = () => say`open, short or a value above zero`;
export const openShortHenriesAbove = () => say`open, short or henries above zero`;
export const leakOhmsExampleLeak = () => say`leak:OHMS, for example leak:47k`;
export const openShortLeakOhms = () => say`open, short, leak:OHMS or farads above zero such as 10u`;
export const weakHalfDeadThrough = () =>
  say`weak:3, half, dead, through (a diode shorted), weakside:5 (one half of a centre-tapped winding), upper:dead or lower:through (one diode of two), winding-short or heater-open`;
export const positionFromWiperOpen = () => say`a position from 0 to 1, or wiper-open`;
export const ratingExample = (key: Value) =>
  say`a rating that can be read, for example C1.volts=500, C1.year=1962, P1.taper=linear; ${key} cannot`;
export const chokeExample = () => say`choke:HENRIES:OHMS, for example R1=choke:5:95`;
export const rectifierExample = () => say`tube:silicon, tube:selenium or a rectifier of the library, for example PS=tube:GZ34`;
export const openClosed = () => say`open or closed`;
export const orOpen = () => say`1, 2 or open`;
export const openShort = () => say`open or short`;
export const noFaultKnown = (type: Value) => say`no fault is known for ${type}`;
export const weakPartEmissionLeft = () => say`weak:0.4, the part of the emission that is left`;
export const gassyGridCurrentAmperes = () => say`gassy:2u, the grid current in amperes`;
export const hkOhmsExampleHk = () => say`hk:OHMS, for example hk:100k`;
export const twoElectrodesExampleGk = (word: Value, word2: Value) =>
  say`${word}: and two of the electrodes p, s, g, k, for example ${word2}:gk`;
export const shortGkOneOhm = () => say`short:gk for one ohm, short:gs:100k for a leak`;
export const typeAnotherExampleType = (kind: Value) => say`type: and another ${kind}, for example type:12AU7`;
export const deadWeakGassyHk = () => say`dead, weak:0.4, gassy:2u, hk:100k, short:gk, swap:gk, type:12AU7 or heater-open`;
export const pinExampleOpen = () => say`a pin of p, s, g or k, for example V2.g=open`;
export const partCircuitOnePins = () => say`a part of this circuit and one of its pins`;
export const nodesCircuitThereNo = (n: Value) => say`nodes of this circuit; there is no ${n}`;
export const emptyNode = () => say`empty node`;
export const ohmsExample = () => say`ohms, for example b3~g1=20M`;
export const openOpenShortedOhms = () => say`open, open:2, or shorted:OHMS across a half`;

// check
export const secondFirstLine = (fileName: Value, before: Value) => say`a second ${fileName} (the first is on line ${before})`;
export const eachNameOnce = () => say`each name once`;
export const noElementLines = () => say`no element lines`;
export const titleLineThenLeast = () => say`a title line and then at least one part`;
export const noPartGoesGround = () => say`no part that goes to ground`;
export const nodeGndSomewhere = () => say`node 0 (or gnd) somewhere`;
export const nodeOnePart = (node: Value) => say`node ${node}, with one part on it`;
export const leastTwoPartsEach = () => say`at least two parts at each node`;
export const pointNode = (value: Value, node: Value) => say`point ${value} at node ${node}`;
export const nodePartConnected = () => say`a node that a part is connected to`;
export const stageNode = (value: Value, n: Value) => say`stage ${value} at node ${n}`;
export const near = (a: Value, b: Value) => say`*@near ${a} ${b}`;
export const nodesExistDoesNot = (n: Value) => say`nodes that exist; ${n} does not`;
export const couples = (value: Value, coil: Value) => say`${value} couples ${coil}`;
export const inductorFile = () => say`an inductor of this file`;
export const closesLoopVoltageSources = (value: Value, letter: Value) => say`${value} closes a loop of voltage sources${letter}`;
export const resistanceSomewhereLoop = () => say`a resistance somewhere in the loop`;
export const nodeFloatsOnlyCapacitors = (node: Value) => say`node ${node} floats: only capacitors lead from it to the rest`;
export const pathDirectCurrentGround = () => say`a path for direct current to ground`;

// compare
export const isMissing = (partWords: Value, placeOf: Value) => say`${partWords} is missing: ${placeOf}`;
export const notReference = (partWords: Value, placeOf: Value) => say`${partWords} is not in the reference: ${placeOf}`;
export const isNot = (value: Value, valueOf: Value, valueOf2: Value) => say`${value} is ${valueOf}, not ${valueOf2}`;
export const withoutValue = () => say`without a value`;
export const isANotA = (value: Value, type: Value, type2: Value) => say`${value} is ${aType(String(type))}, not ${aType(String(type2))}`;
export const hasNot = (value: Value, key: Value, f: Value, params: Value) => say`${value} has ${key} ${f}, not ${params}`;
export const notGiven = () => say`not given`;
export const isInBackwards = (value: Value) => say`${value} is in backwards`;
export const goesFromNot = (value: Value, terminalWords: Value, terminalWords2: Value, terminalWords3: Value) =>
  say`${value} goes from ${terminalWords} to ${terminalWords2}, not to ${terminalWords3}`;
export const goesNot = (electrodeWords: Value, terminalWords: Value, terminalWords2: Value) =>
  say`${electrodeWords} goes to ${terminalWords}, not to ${terminalWords2}`;
export const terminal = (value: Value, value2: Value) => say`${value} terminal ${value2}`;

// element-line
export const rnameNodeNodeOhms = "RNAME node node OHMS";
export const cnameNodeNodeFarads = "CNAME node node FARADS";
export const lnameNodeNodeHenries = "LNAME node node HENRIES";
export const vnameNodeNodeVolts = "VNAME node node VOLTS";
export const inameNodeNodeAmperes = "INAME node node AMPERES";
export const dnameAnodeCathodeModel = "DNAME anode cathode MODEL";
export const elementDotCommandComment = () => say`an element (R, C, L, K, V, I, D, X), a dot command or a * comment`;
export const nothingAfterValue = (form: Value) => say`nothing after the value: ${form}`;
export const valueAboveZero = () => say`a value above zero`;
export const ifMegohmsMeantMilli = (typed: Value) => say`${typed} if megohms are meant: M is milli in a netlist`;
export const fromTo = (name: Value, nodes: Value, nodes2: Value) => say`${name} from ${nodes} to ${nodes2}`;
export const twoDifferentNodesPart = () => say`two different nodes; this part does nothing`;
export const knameCoupling = () => say`KNAME L1 L2 COUPLING`;
export const couplingAboveUp = () => say`a coupling above 0 and up to 1`;
export const xnameNodeNodeType = () => say`XNAME node node … TYPE`;

// read
export const nodesFor = (length: Value, name: Value) => say`${length} nodes for ${name}`;

// element-line
export const noParametersAfter = (type: Value) => say`no parameters after ${type}`;
export const rectElementTube = (type: Value) => say`a RECT_… element with tube=${type}`;
export const tubeLibraryOneTube = (nearestWords: Value, tubeTypes: Value, object: Value) =>
  say`${nearestWords}a tube of the library (${tubeTypes} …), one that a *@tube line defines, or one of ${object}`;
export const type = (type: Value) => say`type ${type}`;
export const tubeRectifierLibrarySilicon = () => say`tube= a rectifier of the library, silicon or selenium`;
export const aboveZero = (key: Value) => say`${key}= above zero`;
export const zeroMore = (key: Value) => say`${key}= of zero or more`;
export const betweenAnd = (key: Value) => say`${key}= between 0 and 1`;
export const egIfMegohmsMeant = (typed: Value) => say`${typed}EG if megohms are meant: M is milli in a netlist`;
export const without = (type: Value, spec: Value) => say`${type} without ${spec}=`;
export const withANumber = (key: Value) => say`${key}= with a number`;
export const withANumber2 = (spec: Value) => say`${spec} with a number`;

// part-place
export const changeOverSwitch = "change-over switch";
export const outputTransformer = "output transformer";
export const fullWaveRectifier = "full-wave rectifier";
export const halfWaveRectifier = "half-wave rectifier";
export const bridgeRectifier = "bridge rectifier";
export const voltageDoubler = "voltage doubler";
export const halfWaveVoltageDoubler = "half-wave voltage doubler";
export const operationalAmplifier = "operational amplifier";
export const zenerDiode = "zener diode";
export const through = (terminalWords: Value, name: Value) => say`${terminalWords} through ${name}`;
export const nodeOwn = (node: Value) => say`a node of its own (${node})`;
export const theJointOf = (here: Value) => say`the joint of ${here}`;
export const noPlaceOwn = () => say`no place of its own`;
export const fromTo2 = (terminalWords: Value, terminalWords2: Value) => say`from ${terminalWords} to ${terminalWords2}`;

// read
export const fileBinaryBytes = () => say`a file with binary bytes`;
export const textFileNetlistLines = () => say`a text file of netlist lines`;
export const lines = (length: Value) => say`${length} lines`;
export const mostLines = (mostLines: Value) => say`at most ${mostLines} lines`;
export const endsFirst = (name: Value) => say`.ends of ${name} first`;
export const subcktNameNodeNode = () => say`.subckt NAME node node …`;
export const subcktBefore = () => say`.subckt before it`;
export const everythingOneFileNo = () => say`everything in one file: no other file is opened`;
export const oneParamSubcktEnds = () => say`one of .param, .subckt, .ends, .model, .end`;
export const subckt = (name: Value) => say`.subckt ${name}`;
export const endsBeforeEndFile = () => say`.ends before the end of the file`;
export const model = (type: Value) => say`model ${type}`;
export const modelDIsN = (type: Value) => say`.model ${type} D(IS=… N=…)`;
export const lineBeforeContinue = () => say`a line before it to continue`;
export const paramNameValueName = () => say`.param NAME=VALUE or NAME={expression}`;
export const modelNameOtherKinds = () => say`.model NAME D(IS=1n N=1.8); other kinds of model are not read`;
export const moreThanParts = (mostElements: Value) => say`more than ${mostElements} parts`;
export const circuitFewerParts = () => say`a circuit of fewer parts`;
export const subcircuitsMostDeepNone = () => say`subcircuits at most 8 deep, and none inside itself`;

// spice-number
export const numberNetlistsWrite = (shown: Value) => say`a number as netlists write it: ${shown}`;
export const numberSuchMeg = () => say`a number such as 4.7k, 32u, 1MEG or 1e-3`;
export const numberNotBeyondAll = () => say`a number that is not beyond all bounds`;

export const strengthParts = () => say`strength: and the current in parts of the sheet's tube, up to 3; for example strength:0.92`;
