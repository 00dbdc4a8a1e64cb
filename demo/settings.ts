/** The settings of the demo shop. */

import { DEFAULT_SETTINGS, type Settings } from "@/core/shop/settings";

export const DEMO_SETTINGS: Settings = {
  ...DEFAULT_SETTINGS,
  shopName: "Saltmarsh Lane Amplifier Works",
  shopAddress: "Saltmarsh Lane, Port Ellery",
  technicians: ["J.M.", "P.Q."],
  mainsVolts: 230,
  currency: "cr",
  money: {
    ...DEFAULT_SETTINGS.money,
    hourly: 40,
    stepMinutes: 15,
    marginPercent: 40,
    fixedPrices: [{ name: "Safety tests", amount: 15 }],
    taxes: [{ name: "Town tax", percent: 8, on: ["labour", "parts", "fixed price", "other"] }],
    depositPercent: 20,
    warranty: "A year on our work and on the parts that we fitted; not on parts that stayed in the amplifier.",
  },
};
