/** Texts of settling a model on a chart or on readings. */

import { words } from "../language/language";

export const chartHasNoFigures = () => "The file has no chart: no test point has a chart= figure";
export const chartWithoutMains = () => words("The chart does not say at which mains it was measured: give it as *@chart mains= or --mains");
export const givenColumns = (columns: string) => `a header with point and value, and if wanted ${columns}`;
export const partWith = (key: string) => `a rectifier or a transformer whose line has ${key}=`;
export const positive = () => "a number above zero";
export const kindsAccepted = () => "dcv, vac, rs or dcr";
export const pointOf = (names: string) => `one of ${names}`;
export const noMains = () => words("no mains");
export const mainsAccepted = () => words("the mains in volts, in a column mains or with --mains");
export const ohmsPerVolt = () => "ohms per volt of the meter, such as 20k";
export const doesNotConverge = (node: string) => `The circuit does not settle (${node}): nothing can be fitted to it`;
export const tooFew = (read: number) => `${read} ${read === 1 ? "figure" : "figures"}: at least three are needed to settle a model`;
export const otherCircuit = (worst: string) => `This chart does not describe this circuit: ${worst}`;
export const worstPoint = (point: string, given: string, computed: string) => `${point} ${given}, and not ${computed}`;
export const otherMains = (read: number, own: number) => words(`it was measured at ${read} V of mains, and the circuit is for ${own} V`);

// A chart that is typed.
export const notVolts = (point: string, read: string, accepted: string) => `${point}: ${read} is not a voltage; ${accepted} is accepted`;
export const chartsMainsWanted = () => words("The chart's mains is wanted: the volts at the wall that its figures were measured at");
export const notOhmsPerVolt = (read: string) => `Meter: ${read} is not ohms per volt; 20k is accepted`;
export const onItsChart = (mains: string) => `its chart at ${mains} V`;
export const onSoundAmps = (count: number) => `readings of ${count === 1 ? "a sound amp" : `${count} sound amps`}`;
