/** The scale of a spectrum's curve, apart from its making so that a screen can have it alone. */

/** The curve's points: equally far apart on a logarithmic scale, hertz. */
export const CURVE_FROM = 15;
export const CURVE_TO = 20_000;
export const CURVE_POINTS = 240;
export const curveHertz = (i: number) => CURVE_FROM * (CURVE_TO / CURVE_FROM) ** (i / (CURVE_POINTS - 1));
