/** Written by `npm run fit` from sheet-points.ts. Do not edit: change the points and run it again. */

import type { TubeModel } from "./model";

// prettier-ignore
export const FITTED: Record<string, TubeModel> = {
  "12AX7": { kind: "triode", mu: 101.779, ex: 1.39796, kg1: 1700.67, kp: 864.569, kvb: 446.163, vct: 0.548261, kgrid: 2000 },
  "12AT7": { kind: "triode", mu: 62.3452, ex: 1.38049, kg1: 730.7, kp: 1500, kvb: 618.54, vct: 0.615155, kgrid: 1500 },
  "12AU7": { kind: "triode", mu: 19.21, ex: 1.42249, kg1: 2024.68, kp: 81.9832, kvb: 0.500001, vct: 0.333435, kgrid: 1200 },
  "12AY7": { kind: "triode", mu: 44.6633, ex: 1.36225, kg1: 1981.88, kp: 353.197, kvb: 203.252, vct: 0.58899, kgrid: 2000 },
  "6SN7GTB": { kind: "triode", mu: 21.915, ex: 1.44423, kg1: 1785.32, kp: 114.881, kvb: 1012.96, vct: 0.451629, kgrid: 1200 },
  "6SL7GT": { kind: "triode", mu: 72.6438, ex: 1.39889, kg1: 2214.87, kp: 443.72, kvb: 362.047, vct: 0.504452, kgrid: 2000 },
  "6AV6": { kind: "triode", mu: 100.605, ex: 1.38661, kg1: 1757.44, kp: 1500, kvb: 81.8401, vct: 0.556003, kgrid: 2000 },
  "12SQ7": { kind: "triode", mu: 100.727, ex: 1.37638, kg1: 2401, kp: 738.62, kvb: 772.274, vct: 0.633073, kgrid: 2000 },
  "EF86": { kind: "pentode", mu: 38.8335, ex: 1.43728, kg1: 1643.56, kp: 299.513, kvb: 1011.2, vct: 0.458476, knee: 24, share: 0.834901, lambda: 0.000098079, kgrid: 2000 },
  "6AU6": { kind: "pentode", mu: 38.329, ex: 1.49434, kg1: 752.992, kp: 400, kvb: 0.500001, vct: 0.29902, knee: 19.4117, share: 0.715751, lambda: 0.0000641448, kgrid: 1500 },
  "EL84": { kind: "pentode", mu: 19.3054, ex: 1.44703, kg1: 581.381, kp: 400, kvb: 0.5, vct: 0.464754, knee: 22.8712, share: 0.889854, lambda: 0.00056893, kgrid: 900 },
  "6V6GT": { kind: "pentode", mu: 10.1702, ex: 1.40074, kg1: 1710.64, kp: 41.8251, kvb: 497.117, vct: 0.513635, knee: 23.9113, share: 0.915989, lambda: 0.000472177, kgrid: 900 },
  "6AQ5": { kind: "pentode", mu: 9.76176, ex: 1.42169, kg1: 1927.45, kp: 46.0444, kvb: 0.500001, vct: 0.480663, knee: 20.0083, share: 0.903528, lambda: 0.000475244, kgrid: 900 },
  "6L6GC": { kind: "pentode", mu: 8.41503, ex: 1.51371, kg1: 2123.55, kp: 38.895, kvb: 1401.85, vct: 0.484656, knee: 22.9022, share: 0.94045, lambda: 0.000600899, kgrid: 900 },
  "5881": { kind: "pentode", mu: 8.37973, ex: 1.5027, kg1: 1962.81, kp: 40.0856, kvb: 1168.47, vct: 0.485047, knee: 22.8488, share: 0.947857, lambda: 0.000403108, kgrid: 900 },
  "EL34": { kind: "pentode", mu: 11.5677, ex: 1.44635, kg1: 630.724, kp: 48.6357, kvb: 3829.81, vct: 0.500792, knee: 19.4986, share: 0.85557, lambda: 0.000615929, kgrid: 900 },
  "KT66": { kind: "pentode", mu: 8.22436, ex: 1.41386, kg1: 1308.1, kp: 39.2611, kvb: 2876.34, vct: 0.503156, knee: 21.0108, share: 0.926324, lambda: 0.00050981, kgrid: 900 },
  "KT88": { kind: "pentode", mu: 8.1175, ex: 1.42839, kg1: 884.301, kp: 47.977, kvb: 578.532, vct: 0.497233, knee: 21.8704, share: 0.979708, lambda: 0.000606637, kgrid: 900 },
  "6550": { kind: "pentode", mu: 8.3063, ex: 1.48983, kg1: 1032.36, kp: 36.2149, kvb: 0.5, vct: 0.483809, knee: 45, share: 0.943874, lambda: 0.000436377, kgrid: 900 },
  "7591A": { kind: "pentode", mu: 17.3773, ex: 1.45725, kg1: 698.251, kp: 103.014, kvb: 677.084, vct: 0.485495, knee: 21.3873, share: 0.866777, lambda: 0.000594847, kgrid: 900 },
  "35C5": { kind: "pentode", mu: 7.59334, ex: 1.39006, kg1: 1038, kp: 400, kvb: 3738.76, vct: 0.501933, knee: 24, share: 0.940395, lambda: 0.00161812, kgrid: 900 },
  "50C5": { kind: "pentode", mu: 7.56029, ex: 1.39531, kg1: 856.357, kp: 398.321, kvb: 2734.59, vct: 0.501055, knee: 24, share: 0.930925, lambda: 0.00198355, kgrid: 900 },
  "50L6GT": { kind: "pentode", mu: 8.07506, ex: 1.39427, kg1: 708.06, kp: 399.576, kvb: 3633.57, vct: 0.500927, knee: 24, share: 0.935948, lambda: 0.0013261, kgrid: 900 },
};
