/** Texts of the line-up and of the chain that is proposed for it. */

import { words } from "../language/language";

export const unknownTube = (read: string, near: readonly string[]) =>
  words(
    `"${read}" is not a tube type of the library${near.length > 0 ? `: ${near.join(" or ")}?` : ". A type of its own can be added under Circuit file, from its data sheet."}`,
  );
export const tooManyTubes = (read: number, most: number) => words(`${read} tubes were read; at most ${most} are accepted`);
export const onlyRectifiers = () => words("Only a rectifier was read: an amp has at least one tube that amplifies");
export const outputAlone = (read: number) =>
  words(
    `${read === 1 ? "An output tube" : `${read} output tubes`} alone: nothing drives ${read === 1 ? "it" : "them"}. Add the small tubes before ${read === 1 ? "it" : "them"}, such as 12AX7`,
  );
export const mixedOutput = (kinds: readonly string[]) =>
  words(
    `${kinds.join(" and ")} in one output stage: one type of output tube is accepted; leave out what belongs to another part of the set`,
  );
export const oddOutput = (read: number) => words(`${read} output tubes: one, or pairs of two to eight are accepted`);
export const manyOutput = (read: number) => words(`${read} output tubes: at most eight are accepted`);
export const noInverter = (read: number) =>
  words(
    `${read} output tubes and no triode: nothing turns the phase for the second half of push-pull. Add the triode that does, such as 12AX7`,
  );
export const manyRectifiers = (read: number) =>
  words(`${read} rectifier tubes: one is accepted; add a second as a free line of the circuit file`);

// Why something is proposed.
export const twoOutput = () => words("two equal output tubes usually work in push-pull");
export const fourOutput = () => words("four equal output tubes: two pairs on one transformer, or a pair for each of two channels");
export const fixedUsual = (type: string) => words(`${type} in push-pull usually has fixed bias`);
export const cathodeUsual = (type: string) => words(`${type} here usually has a cathode resistor`);
export const screensHigh = () => words("above 300 V screens usually have a resistor each");
export const screensLow = () => words("at this supply screens usually hang on the second filter node");
export const noRectifierTube = () => words("no rectifier tube was read: silicon");
export const chokeUsual = () => words("amps with fixed bias usually feed the screens through a choke");
export const resistorsUsual = () => words("amps of this size usually filter with resistors");
export const sectionsLeft = (names: readonly string[]) =>
  words(`${names.join(", ")} ${names.length === 1 ? "is" : "are"} more than gain stages and inverter need`);
export const toneUsual = () => words("where there is gain to spare a tone network usually stands behind the first stage");
export const noGainForTone = () => words("with one stage of gain there is usually none to spare for a tone network");
export const pairTakesFeedback = () => words("a long-tailed pair usually takes feedback from the speaker at its second grid");
export const feedbackNone = () => words("amps of this kind usually have none");
export const pairUsual = (sections: number) => words(`${sections} small tube sections: two are left for a long-tailed pair`);
export const splitUsual = (sections: number) =>
  words(`${sections} small tube section${sections === 1 ? "" : "s"}: an inverter with one triode leaves the most gain`);
