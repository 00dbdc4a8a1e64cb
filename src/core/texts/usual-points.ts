/** Texts of the usual test points. They are written into circuit files: without the shop's words for tube and mains. */

export const bias = () => "Bias supply";
export const biasFirst = () => "Bias must be here before anything else";
export const reservoir = () => "Reservoir";
export const supply = (number: number) => `Supply ${number}`;
export const highest = () => "Highest voltage in the amp";
export const electrode = (tube: string, name: string) => `${tube} ${name === "grid" ? "control grid" : name}`;
export const swings = () => "Swings far above the supply with signal: no signal while the probe is here";
