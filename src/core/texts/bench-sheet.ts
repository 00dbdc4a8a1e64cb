/** Texts of the bench sheet. */

import { say, type Value } from "../language/language";

export const revision = (name: Value) => say`circuit ${name}`;
export const atMains = (volts: Value) => say` at ${volts} mains`;
export const chartAt = (volts: Value) => say` In brackets: the chart, drawn for ${volts} mains.`;
export const howToRead = (mains: Value, chart: Value) =>
  say`Bold at a point: what the circuit computes${mains}, no signal, a 10 MΩ meter to chassis.${chart}`;
export const points = () => say`Test points, in the order of the walk`;
export const point = () => say`Point`;
export const probeOn = () => say`Probe on`;
export const expected = () => say`Expected`;
export const chart = () => say`Chart`;
export const read = () => say`Read`;
export const mind = () => say`Mind`;
export const sockets = () => say`Sockets, by pin number`;
export const tube = () => say`Tube`;
export const chassis = () => say`chassis`;
export const supply = () => say`Supply`;
export const rail = () => say`Rail`;
export const through = () => say`Through`;
export const volts = () => say`Volts`;
export const drops = () => say`Drops`;
export const current = () => say`Current`;
export const bias = () => say`Output tubes at idle`;
export const plateToCathode = () => say`Plate to cathode`;
export const gridToCathode = () => say`Grid to cathode`;
export const plateCurrent = () => say`Plate current`;
export const plateWatts = () => say`Plate watts`;
export const ofRating = () => say`Of rating`;
export const ofRated = (share: Value, watts: Value) => say`${share} % of ${watts}`;
export const caution = () =>
  say`These volts can kill, also after the plug is out. Work live only with one hand, and only if you are trained for it; discharge and prove before you touch.`;
