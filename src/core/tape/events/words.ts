/** The fixed words of the tape's payloads, apart from their classes so that the browser can have them alone. */

export const TEXT_LIMIT = 4000;
/** More lines than any tape has. */
export const MOST_LINES = 1_000_000;
/** More than any tube amplifier has inside; a reading beyond it is a slip. */
export const MOST_VOLTS = 3000;

export const WHEN = ["always", "when hot", "when cold", "at volume", "at a certain venue", "now and then", "after moving"] as const;
export const BRIEF_AIMS = ["reliability", "originality", "tone", "cost"] as const;
export type BriefAim = (typeof BRIEF_AIMS)[number];
/** dcv and acv in volts, ma in milliamperes, ohm in ohms, leak in volts at the lifted leg, gm in percent of new. */
export const READING_KINDS = ["dcv", "acv", "ma", "ohm", "leak", "gm"] as const;
export type ReadingKind = (typeof READING_KINDS)[number];
export const READING_UNIT: Record<ReadingKind, string> = { dcv: "V", acv: "V", ma: "mA", ohm: "Ω", leak: "V", gm: "%" };
export const SEVERITIES = ["note", "watch", "fault", "danger"] as const;
export type Severity = (typeof SEVERITIES)[number];
export const OLD_PART_PLACES = ["bag for the owner", "stays in the amp", "shop stock", "scrapped", "reused"] as const;
export type OldPartPlace = (typeof OLD_PART_PLACES)[number];
export const SAFETY_TESTS = ["earth bond", "insulation", "leakage", "fuse", "polarity", "cord"] as const;
export type SafetyTestKind = (typeof SAFETY_TESTS)[number];
export const INSPECTION_RESULTS = ["sound", "found", "not there", "open again"] as const;
export type InspectionResult = (typeof INSPECTION_RESULTS)[number];
/** How hot, to a finger held near or laid on with the power off. */
export const TOUCHES = ["cold", "warm", "hot", "too hot to touch"] as const;
export type Touch = (typeof TOUCHES)[number];
export const STAGE_RESULTS = ["passed", "stopped", "skipped", "open again"] as const;
export type StageResult = (typeof STAGE_RESULTS)[number];
/** How a tube's current was read. */
export const CURRENT_WAYS = ["cathode resistor", "socket probe", "half winding", "shunt"] as const;
export type CurrentWay = (typeof CURRENT_WAYS)[number];
/** What the idle is set by. */
export const IDLE_SCHOOLS = ["cool", "middle", "hot", "label", "manual", "crossover", "brief", "own"] as const;
export type IdleSchool = (typeof IDLE_SCHOOLS)[number];
export const TAKEN_WHEN = ["before", "after", "trial"] as const;
export type TakenWhen = (typeof TAKEN_WHEN)[number];
export const SIGNAL_FIGURES = ["power at clip", "damping", "residual hum", "response", "square wave"] as const;
export type SignalFigureKind = (typeof SIGNAL_FIGURES)[number];
/** A series lamp to the eye. */
export const GLOWS = ["dark", "glowing", "bright"] as const;
export type Glow = (typeof GLOWS)[number];
/** What a recording can hold. */
export const SOUND_KINDS = ["hum-mains", "hum-double", "buzz", "squeal", "motorboating", "hiss", "crackle", "clean"] as const;
export type SoundKind = (typeof SOUND_KINDS)[number];
/** How bad a fault was in one run under conditions. */
export const BADNESS = ["none", "some", "bad"] as const;
export type Badness = (typeof BADNESS)[number];
export const PROVOKED_BY = ["tap", "flex", "heat", "cold"] as const;
export type ProvokedBy = (typeof PROVOKED_BY)[number];
export const PROVOKED_RESPONSES = ["nothing", "a little", "strong", "starts it", "stops it"] as const;
export type ProvokedResponse = (typeof PROVOKED_RESPONSES)[number];
/** Where a capacitor lies that a failure makes dangerous. */
export const CAPACITOR_PLACES = ["line to chassis", "across the line", "output to a jack"] as const;
export type CapacitorPlace = (typeof CAPACITOR_PLACES)[number];
/** leakage in amperes at the test volts, capacitance in farads, series ohms, dissipation factor as a number. */
export const CAPACITOR_TESTS = ["leakage", "capacitance", "series ohms", "dissipation"] as const;
export type CapacitorTestKind = (typeof CAPACITOR_TESTS)[number];
/** Which lead of a can is its case: unknown until somebody has measured. */
export const CASE_LEADS = ["minus", "insulated", "plus", "unknown"] as const;
export type CaseLead = (typeof CASE_LEADS)[number];
export const REFORM_TURNS = ["step", "paused", "resumed", "ended"] as const;
export type ReformTurnKind = (typeof REFORM_TURNS)[number];
export const REFORM_RESULTS = ["keep", "replace", "stopped"] as const;
export type ReformResult = (typeof REFORM_RESULTS)[number];
/** When a task is done: with the amp proven dead, measuring it live, setting bias and balance, or as a final test. */
export const WORK_PHASES = ["power off", "power on", "adjustment", "final tests"] as const;
export type WorkPhase = (typeof WORK_PHASES)[number];
/** What a task was planned from. */
export const PLANNED_FROM = ["finding", "suspect", "capacitor", "bias", "technician"] as const;
export type PlannedFrom = (typeof PLANNED_FROM)[number];
/** How a new part is held and what was seen to. */
export const FIXINGS = [
  "hooked before solder",
  "swarf cleared",
  "nut locked",
  "off the board",
  "spaced from heat",
  "strain relieved",
] as const;
export type Fixing = (typeof FIXINGS)[number];
/** Where a new part comes from. */
export const PART_SOURCES = ["stock", "ordered", "owner's own", "salvaged"] as const;
export type PartSource = (typeof PART_SOURCES)[number];
/** Where a part that a task needs is. */
export const PART_STATES = ["in stock", "to order", "ordered", "here"] as const;
export type PartState = (typeof PART_STATES)[number];
/** How the owner answers a question or a quote. */
export const OWNER_ANSWERS = ["asked", "yes", "no", "part", "revoked"] as const;
export type OwnerAnswer = (typeof OWNER_ANSWERS)[number];
export const ANSWERED_BY = ["in person", "telephone", "message", "letter"] as const;
export type AnsweredBy = (typeof ANSWERED_BY)[number];
/** What an option of a quote is for. */
export const OPTION_AIMS = ["make it work", "make it last", "keep it original"] as const;
export type OptionAim = (typeof OPTION_AIMS)[number];
export const PAYMENT_MEANS = ["cash", "card", "transfer", "other"] as const;
export type PaymentMeans = (typeof PAYMENT_MEANS)[number];
/** Beyond it an amount is a slip. */
export const MOST_MONEY = 1e7;
