/** The settings of a shop as plain values; their checks are in settings-class. */

import type { Language } from "../language/language";
import type { Settings } from "./settings-class";

export type { Settings } from "./settings-class";

export const DEFAULT_SETTINGS: Settings = {
  shopName: "My bench",
  shopAddress: "",
  technicians: ["T.B."],
  safeVolts: 10,
  proofHours: 4,
  meterMinutes: 30,
  meterSource: "",
  mainsVolts: 230,
  timeZone: "",
  decimal: ".",
  tubeWord: "tube",
  mainsWord: "mains",
  symbols: "boxes",
  capacitorSchool: "test",
  currency: "¤",
  money: {
    places: 2,
    symbolFirst: false,
    thousands: " ",
    cashStep: 1,
    hourly: 0,
    stepMinutes: 15,
    marginPercent: 0,
    fixedPrices: [],
    taxes: [],
    pricesIncludeTax: true,
    depositPercent: 0,
    billNumbers: "job",
    quoteDays: 30,
    payDays: 14,
    benchHours: 5,
    warranty: "",
  },
  limits: { earthBondOhms: 0.1, insulationOhms: 2e6, leakageAmps: 0.5e-3 },
  backups: { folder: "", keep: 14 },
};

/** The words and the decimal sign of a shop. */
export const languageOf = ({ tubeWord, mainsWord, decimal }: Settings): Language => ({ tube: tubeWord, mains: mainsWord, decimal });
