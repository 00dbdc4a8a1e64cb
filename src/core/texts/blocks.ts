/** Texts of the blocks. Those of test points and stages are written into circuit files: without the shop's words for tube and mains. */

import { words } from "../language/language";

export { bias as biasSupply, biasFirst, electrode, highest, reservoir, supply, swings } from "./usual-points";

// Labels of points and stages.
export const otherDraw = () => "Draw of what is not drawn";
export const middle = () => "Middle of the reservoir";
export const contactBias = () => "Contact bias through a high resistance: a meter pulls it down";
export const gainStage = () => "Gain stage";
export const cascodeStage = () => "Cascode";
export const follower = () => "Follower";
export const loopRecovery = () => "Loop recovery";
export const tank = () => "Tank input";
export const reverbDriver = (electrode: string) => `Reverb driver ${electrode}`;
export const reverbRecovery = (electrode: string) => `Reverb recovery ${electrode}`;
export const tremolo = (electrode: string) => `Tremolo ${electrode}`;
export const inverter = (electrode: string) => `Inverter ${electrode}`;
export const inverterUpper = (electrode: string) => `Inverter ${electrode}, upper`;
export const inverterLower = (electrode: string) => `Inverter ${electrode}, lower`;
export const inverterCathodes = () => "Inverter cathodes";
export const splitLoad = () => "Split-load inverter";
export const longTailedPair = () => "Long-tailed pair";
export const paraphase = () => "Paraphase inverter";
export const transformerInverter = () => "Transformer inverter";
export const output = () => "Output";
export const outputUpper = () => "Output, upper";
export const outputLower = () => "Output, lower";
export const speaker = () => "Speaker";
export const line = () => "Line, fully loaded";

// What is wrong with a block of a file.
export const blockNotClosed = () => "there is no *@endblock after it";
export const noSuchKind = (kind: string) => `there is no kind of block "${kind}"`;
export const blockWithoutName = () => "it has no name";
export const notAsWritten = (difference: string) => difference;
export const partMissing = (role: string, nodes: string) => `its ${role} (from ${nodes}) is not there`;
export const partTooMany = (name: string, nodes: string) => `${name} (${nodes}) does not belong to it`;

// Values that are typed.
export const notInItsLine = (part: string, line: number) =>
  `${part} is written over several lines, or worked out, from line ${line} on: change it in the text`;
export const aboveZero = (read: string) => `${read}: a value above zero is accepted`;
export const farFromUsual = (value: string, usual: string, factor: number) => `${value} where ${usual} is usual: ${factor} times off`;

// What is typed at a rectifier.
export const secondary = () => "its secondary, V AC";
export const secondaryEachHalf = () => "its secondary, each half, V AC";
export const wallVolts = () => words("the mains, V AC");

// What cannot be right.
export const runsAt = (part: string, kind: string, percent: number) =>
  kind === "volts"
    ? `${part} would stand at ${percent} % of its volts`
    : kind === "plate watts"
      ? `${part} would run at ${percent} % of its plate watts`
      : kind === "screen watts"
        ? `${part}'s screen would run at ${percent} % of its watts`
        : `${part} would run at ${percent} % of its watts`;
export const cutOff = (tube: string, current: string) => `${tube} draws ${current}: it is cut off`;
export const fullOn = (tube: string, volts: string) => `${tube} has ${volts} from cathode to plate: it is full on`;
