/** Written by `npm run fit` from sheet-points.ts. Do not edit: change the points and run it again. */

import type { TubeModel } from "./model";

// prettier-ignore
export const FITTED: Record<string, TubeModel> = {
  "12AX7": { kind: "triode", mu: 101.78, ex: 1.39796, kg1: 1700.67, kp: 864.556, kvb: 446.182, vct: 0.548269, kgrid: 2000 },
  "12AT7": { kind: "triode", mu: 62.3454, ex: 1.3805, kg1: 730.704, kp: 1500, kvb: 618.462, vct: 0.615175, kgrid: 1500 },
  "12AU7": { kind: "triode", mu: 19.21, ex: 1.42248, kg1: 2024.63, kp: 81.9838, kvb: 0.500001, vct: 0.333433, kgrid: 1200 },
  "12AY7": { kind: "triode", mu: 44.6633, ex: 1.36225, kg1: 1981.86, kp: 353.196, kvb: 203.177, vct: 0.588996, kgrid: 2000 },
  "6SN7GTB": { kind: "triode", mu: 21.915, ex: 1.44422, kg1: 1785.28, kp: 114.882, kvb: 1012.84, vct: 0.45164, kgrid: 1200 },
  "6SL7GT": { kind: "triode", mu: 72.6438, ex: 1.39888, kg1: 2214.87, kp: 443.721, kvb: 361.968, vct: 0.504457, kgrid: 2000 },
  "6AV6": { kind: "triode", mu: 100.605, ex: 1.38661, kg1: 1757.44, kp: 1500, kvb: 81.8341, vct: 0.556012, kgrid: 2000 },
  "12SQ7": { kind: "triode", mu: 100.727, ex: 1.37638, kg1: 2401.02, kp: 738.626, kvb: 772.179, vct: 0.633088, kgrid: 2000 },
  "EF86": { kind: "pentode", mu: 38.8335, ex: 1.43728, kg1: 1643.54, kp: 299.514, kvb: 1011.37, vct: 0.458477, knee: 24, share: 0.834901, lambda: 0.0000980786, kgrid: 2000 },
  "6AU6": { kind: "pentode", mu: 38.3291, ex: 1.49434, kg1: 752.987, kp: 400, kvb: 0.500001, vct: 0.299036, knee: 19.4115, share: 0.715751, lambda: 0.000064145, kgrid: 1500 },
  "EL84": { kind: "pentode", mu: 19.3054, ex: 1.44703, kg1: 581.377, kp: 400, kvb: 0.5, vct: 0.464755, knee: 22.871, share: 0.889854, lambda: 0.000568927, kgrid: 900 },
  "6V6GT": { kind: "pentode", mu: 10.1702, ex: 1.40073, kg1: 1710.63, kp: 41.8253, kvb: 497.22, vct: 0.513636, knee: 23.9106, share: 0.915989, lambda: 0.000472181, kgrid: 900 },
  "6AQ5": { kind: "pentode", mu: 9.76177, ex: 1.42168, kg1: 1927.42, kp: 46.0444, kvb: 0.500001, vct: 0.480667, knee: 20.0081, share: 0.903528, lambda: 0.000475242, kgrid: 900 },
  "6L6GC": { kind: "pentode", mu: 8.41504, ex: 1.51371, kg1: 2123.53, kp: 38.8949, kvb: 1401.95, vct: 0.484656, knee: 22.902, share: 0.94045, lambda: 0.000600897, kgrid: 900 },
  "5881": { kind: "pentode", mu: 8.37973, ex: 1.5027, kg1: 1962.79, kp: 40.0855, kvb: 1168.51, vct: 0.485043, knee: 22.8486, share: 0.947857, lambda: 0.000403109, kgrid: 900 },
  "EL34": { kind: "pentode", mu: 11.0623, ex: 1.35118, kg1: 527.157, kp: 75.9818, kvb: 4000, vct: 0.588874, knee: 18.4631, share: 0.856975, lambda: 0.000603555, kgrid: 900 },
  "KT66": { kind: "pentode", mu: 8.07011, ex: 1.36138, kg1: 1152.97, kp: 400, kvb: 4000, vct: 0.523125, knee: 20.2595, share: 0.925939, lambda: 0.000485245, kgrid: 900 },
  "KT88": { kind: "pentode", mu: 8.4498, ex: 1.4482, kg1: 909.086, kp: 36.6106, kvb: 4000, vct: 0.509271, knee: 21.4029, share: 0.979424, lambda: 0.000764248, kgrid: 900 },
  "6550": { kind: "pentode", mu: 8.3063, ex: 1.48983, kg1: 1032.34, kp: 36.2149, kvb: 0.5, vct: 0.483812, knee: 45, share: 0.943874, lambda: 0.000436377, kgrid: 900 },
  "7591A": { kind: "pentode", mu: 17.3773, ex: 1.45725, kg1: 698.249, kp: 103.014, kvb: 677.181, vct: 0.485496, knee: 21.3872, share: 0.866777, lambda: 0.000594844, kgrid: 900 },
  "35C5": { kind: "pentode", mu: 7.59336, ex: 1.39006, kg1: 1037.98, kp: 397.439, kvb: 3738.94, vct: 0.501933, knee: 24, share: 0.940396, lambda: 0.0016181, kgrid: 900 },
  "50C5": { kind: "pentode", mu: 7.56031, ex: 1.39531, kg1: 856.34, kp: 397.78, kvb: 2734.77, vct: 0.501055, knee: 24, share: 0.930926, lambda: 0.00198352, kgrid: 900 },
  "50L6GT": { kind: "pentode", mu: 8.19545, ex: 1.38183, kg1: 637.218, kp: 392.046, kvb: 3660.09, vct: 0.503461, knee: 30.141, share: 0.951988, lambda: 0.000648325, kgrid: 900 },
};
