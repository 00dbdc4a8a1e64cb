/** Texts of noise. */

import { say, type Value } from "../language/language";

// causes-around
export const mainsTransformerInducesInto = () => say`the mains transformer induces into the output transformer or its leads`;
export const longOpenLeadWiper = (control: Value) =>
  say`a long or open lead at ${control}'s wiper picks up: its source is highest there at mid-travel`;
export const inputLeadInsidePicks = (value: Value) => say`the input lead inside picks up: high impedance and no shield as far as ${value}`;
export const shieldLeadMissingNot = (envelope: Value) => say`the shield of ${envelope} or of its lead is missing or not grounded`;
export const groundInsideAmpCarries = () => say`a ground inside the amp carries charging or heater current in series with the first stage`;
export const groundLoopBetweenAmp = () => say`a ground loop between this amp and what is plugged into it`;
export const groundLiftLeavesLoop = () => say`the ground lift leaves the loop closed: its network, a screw or a shell still connects`;
export const dimmerLampSupplyNearby = () => say`a dimmer, a lamp or a supply nearby gets in by the air or by the mains`;
export const transmitterRectifiedFirstGrid = () => say`a transmitter is rectified at the first grid or at a bad joint of the input`;
export const inputLeadWhatPlugged = () => say`the input lead or what is plugged in makes it`;
export const speakerLeadRattlesRubs = () => say`the speaker or its lead rattles, rubs or makes bad contact`;

// causes-oscillation
export const feedbackThroughComesBack = (fed: Value) =>
  say`the feedback through ${fed} comes back in phase: the output transformer's leads are the wrong way round`;
export const leadsLieTooNear = (value: Value) => say`the leads of ${value} lie too near a later stage: it howls through the air`;
export const gridScreenStopperOutput = () => say`a grid or screen stopper of the output stage is missing or open`;
export const outputStageDriverOscillates = () => say`the output stage or its driver oscillates on the peaks`;

// causes-parts
export const isMicrophonic = (envelope: Value) => say`${envelope} is microphonic`;
export const isNoisy = (envelope: Value) => say`${envelope} is noisy`;
export const plateResistorNoisy = (name: Value, value: Value) => say`${name}, the plate resistor of ${value}, is noisy`;
export const leaksDirectVoltageReaches = (value: Value) => say`${value} leaks: direct voltage reaches what follows it`;
export const dirtyWorn = (control: Value) => say`${control} is dirty or worn`;
export const socketJointMakesBad = (envelope: Value) => say`the socket of ${envelope} or a joint at it makes bad contact`;
export const fluxWaxConductsBoard = (a: Value, b: Value) => say`flux or wax conducts on the board between ${a} and ${b}`;
export const passesNothing = (envelope: Value) => say`${envelope} passes nothing`;
export const passesNothing2 = (value: Value) => say`${value} passes nothing on`;

// causes-supply
export const hasLostCapacitanceNo = (name: Value, name2: Value) => say`${name} has lost its capacitance: no filter at ${name2}`;
export const hasLittleCapacitanceLeft = (name: Value) => say`${name} has little of its capacitance left`;
export const stagesFeedBackThrough = (name: Value, name2: Value) =>
  say`stages feed back through the supply: ${name} no longer decouples ${name2}`;
export const outputPairUnbalancedWeaker = (envelope: Value) =>
  say`the output pair is unbalanced, ${envelope} the weaker: ripple no longer cancels`;
export const heaterWindingHasNo = () => say`the heater winding has no reference: it hums into the first grids through the wiring`;
export const heaterWindingsTwoSides = () =>
  say`the heater winding's two sides are unbalanced: one half of its centre tap or of its balance control is open`;
export const heaterWiresRunToo = () => say`heater wires run too near a grid, or are not twisted`;
export const leaksFromHeaterCathode = (envelope: Value) => say`${envelope} leaks from heater to cathode`;

// causes
export const sChannel = (side: Value, value: Value) => say`${side}'s channel: ${value}`;

// grounds
export const noWireGoes = (p: Value) => say`no wire goes to "${p}"`;
export const hasNoWayBack = (what: Value, from: Value, to: Value) => say`${what} has no way back: "${from}" and "${to}" are not joined`;
export const inputsGroundFirstStages = () => say`the input's ground and the first stage's are not joined`;
export const whetherSafetyEarthHas = () => say`Whether the safety earth has a bolt of its own was not looked at`;
export const safetyEarthStandsBolt = () => say`The safety earth stands on a bolt of its own, on bare metal`;
export const safetyEarthSharesBolt = () =>
  say`The safety earth shares its bolt or stands on paint: it gets one of its own, on bare metal, with a locking washer`;
export const bondWasNotMeasured = (limit: Value) =>
  say`Its bond was not measured: from the plug's earth pin to the chassis, ${limit} Ω at most`;
export const bondReadsMost = (bondOhms: Value, limit: Value) => say`Its bond reads ${bondOhms} Ω; ${limit} Ω at most`;
export const windingReferredGroundCentre = "The winding is referred to ground: centre tap, two resistors or a balance control";
export const withoutWholeWindingFloats = "without it the whole winding floats on stray capacitance and hums into every cathode";
export const pairTwistedTightlyFar = "The pair is twisted tightly as far as each socket";
export const twoFieldsCancelOnly = "the two fields cancel only where the wires are as near each other as both are to the grid";
export const runsChassisCornerHigh = "It runs in the chassis corner, or high above the sockets, away from grid leads";
export const picofaradsGridMegohmEnough = "picofarads to a grid of a megohm are enough";
export const crossesSignalLeadsRight = "It crosses signal leads at a right angle";
export const sideSideCouplesAlong = "side by side couples along the whole length";
export const pushPullSocketsWired = "Push-pull sockets are wired the same way round";
export const whatBothHalvesPick = "what both halves pick up alike cancels in the output transformer";
export const noSocketUsesChassis = "No socket uses the chassis as one heater lead";
export const amperesChassisSeriesEvery = "amperes in the chassis are in series with every ground on it";
export const cathodeFollowersCascodesWinding = "Cathode followers and cascodes: the winding is lifted in voltage where cathodes stand high";
export const heaterCathodeInsulationLeaks = "heater to cathode insulation leaks and breaks down beyond its rating";

// noise-circuits
export const ampDoesNotSettle = (op: Value) => say`the amp does not settle at ${op}`;
export const theAmpAsIt = () => say`the amp as it is`;

// noise-table
export const wouldRiseOver = (name: Value, volts: Value, rated: Value, name2: Value) =>
  say`${name} would rise to ${volts} V, over the ${rated} V of ${name2}`;

// tests-outside
export const alikeAll = "alike in all";
export const whichSpeakerHas = () => say`Which speaker has it?`;
export const whichHasGoneSilent = () => say`Or which has gone silent. Try each by itself.`;
export const turnRightDown = (c: Value) => say`Turn ${c} right down`;
export const listenThenPutBack = () => say`Listen, then put it back.`;
export const turnRightUp = (c: Value) => say`Turn ${c} right up`;
export const mindEarsThenPut = () => say`Protect your ears; then put it back.`;
export const turnSlowlyFromEnd = (c: Value) => say`Turn ${c} slowly from end to end`;
export const whereLoudest = () => say`Where is it loudest?`;
export const turnFro = (c: Value) => say`Turn ${c} to and fro`;
export const doesTurningItselfMake = () => say`Does turning itself make it?`;
export const pullEveryLeadBut = () => say`Pull every lead but the mains and the speaker`;
export const inputEffectsPedalsLines = () => say`Input, effects, pedals, lines out.`;
export const anotherOutletAnotherCircuit = () => say`Another outlet, on another circuit`;
export const ampAlone = () => say`For the amp alone.`;
export const dimmersFluorescentLampsChargers = () => say`Dimmers, fluorescent lamps, chargers and screens off`;
export const roomNext = () => say`In this room and the next.`;
export const feedOtherMachineThrough = () => say`Feed the other machine through an isolation transformer in the signal lead`;
export const notMainsSafetyEarth = () => say`Not in the mains: the safety earth stays.`;
export const liftGroundSignalLead = () => say`Lift the ground of the signal lead`;
export const switchLeadWhoseScreen = () => say`With the switch, or a lead whose screen is open at one end. Never the safety earth.`;
export const safetyEarthNoMachine = () => say`The safety earth of no machine is ever lifted.`;
export const anotherSpeakerLead = () => say`Another speaker and lead`;
export const rightImpedance = () => say`The right impedance.`;
export const chassisOutCabinetAway = () => say`The chassis out of its cabinet, away from the speaker`;
export const sameLeadsLonger = () => say`Same leads, longer.`;
export const bringHandNearInput = () => say`Bring a hand near the input stage, not onto it`;
export const flatHandsBreadthOff = () => say`Flat, a hand's breadth off.`;
export const moveLeadsDryStick = () => say`Move the leads with a dry stick`;
export const oneAfterOtherInputs = () => say`One after the other, the input's first.`;
export const groundedFoilBetweenInput = () => say`A grounded foil between the input stage and the rest`;
export const insulatedClippedChassisBefore = () => say`Insulated, clipped to chassis before power goes on.`;

// tests
export const whatDoesSoundLike = () => say`What does it sound like?`;
export const recordChooseEarNothing = () => say`Record it, or choose by ear. Nothing played, all controls where it is heard.`;
export const shortInputJack = () => say`Short the input jack`;
export const shortedPlug = () => say`A shorted plug.`;
export const groundGridThrough = (name: Value) => say`Ground the grid of ${name} through 1 µF`;
export const capacitorClippedChassisMore = () => say`Capacitor clipped to chassis, 400 V or more, its free end on an insulated probe.`;
export const tapLightly = (v: Value) => say`Tap ${v} lightly`;
export const pencilRubberEnd = () => say`A pencil with a rubber end.`;
export const knownGoodTube = (v: Value) => say`A known good tube for ${v}`;
export const offWaitSwapOld = () => say`Switch off, wait, swap, switch on; put the old one back afterwards.`;
export const powerOffOutputTubes = () => say`Power off; output tubes stay hot for minutes.`;
export const pulling = (output: Value) => say`pulling ${output}`;
export const heaterOneSeriesString = () => say`its heater is one of a series string: the others would go cold with it`;
export const pull = (v: Value) => say`Pull ${v}`;
export const offOutAgain = () => say`Switch off, take it out, switch on again.`;
export const powerOffBeforeTube = () => say`Power off before a tube comes out or goes in.`;
export const swapAnd = (envelope: Value, envelope2: Value) => say`Swap ${envelope} and ${envelope2}`;
export const fitMatchedPair = () => say`Or fit a matched pair.`;
export const powerOffTheyStay = () => say`Power off; they stay hot for minutes. Read the bias again.`;
export const pullOutput = (output: Value, output2: Value) => say`Pull the output ${output}: ${output2}`;
export const whatStillHeardDoes = () => say`What is still heard does not come through them.`;
export const powerOffFirstEvery = () => say`Power off first. Every rail rises without them: keep it short.`;
export const giveHeaterWindingTemporary = () => say`Give the heater winding a temporary reference`;
export const fromEachSideChassis = () => say`100 Ω from each side to chassis.`;
export const returnFirstStagesGround = () => say`Return the first stage's ground by a wire of its own`;
export const firstReservoirsMinusOld = () => say`To the first reservoir's minus, the old return opened.`;
export const fitStoppersOutputGrids = () => say`Fit stoppers at the output grids and screens for a trial`;
export const rightSockets = () => say`1.5 kΩ and 470 Ω right at the sockets.`;
export const holdGoodCapacitorAcross = (name: Value) => say`Hold a good capacitor across ${name}`;
export const sameSizeNearRated = (above: Value) =>
  say`Same size or near, rated ${above}; mind the polarity. Switch off, prove it dead, clip it on; switch on, listen; switch off and prove it dead again.`;
export const coolFreezingSpray = (part: Value) => say`Cool ${part} with freezing spray`;
export const shortBurstThroughStraw = () => say`A short burst through the straw, the amp running.`;
export const openFeedbackLead = () => say`Open the feedback lead`;
export const turnOutputTransformerMove = () => say`Turn the output transformer, or move it away on its leads`;
export const loosenKeepLeadsClear = () => say`Loosen it, keep the leads clear.`;
export const railUnloaded = () => say`for the rail unloaded`;
export const aboveRisesUnloaded = (volts: Value, rail: Value) => say`above the ${volts} V that ${rail} rises to unloaded`;
export const acVolts = (value: Value) => say`AC volts at ${value}`;
export const meterAcTrueRms = () => say`Meter on AC; a true-rms one reads ripple right. It needs a capacitor in it, or one in the lead.`;
export const touchingGrids = () => say`touching grids`;
export const oneSideLineChassis = () => say`one side of the line is the chassis of this set`;
export const touchGridThroughSafe = (value: Value) => say`Touch the grid of ${value} through the safe probe`;
export const insulatedProbeNfQuick = () => say`Insulated probe, 100 kΩ and 10 nF in it; a quick touch, volume low.`;

// together
export const makesNoSuchNoise = () => say`makes no such noise`;

// usual-grounds
export const inputJack = "input jack";
export const firstStage = "first stage";
export const firstReservoir = () => say`first reservoir`;
export const minus = (capacitors: Value) => say`${capacitors} minus`;
export const secondReservoir = () => say`second reservoir`;
export const inputJack2 = () => say`input jack`;
export const firstStage2 = () => say`first stage`;
export const outputStage = () => say`output stage`;
export const speakerJack = () => say`speaker jack`;
export const transformerCentreTap = () => say`transformer centre tap`;
export const chargingPulses = () => say`charging pulses`;
export const outputStageSignal = () => say`output stage, signal`;
export const heaterLeakage = () => say`heater leakage`;
