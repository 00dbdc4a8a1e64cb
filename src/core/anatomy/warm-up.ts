/** Volts of cold tubes are another amp's: how long to wait before one is taken by itself. */

/** Seconds from power-on until the last slow heater has warmed. Usual figure of indirectly heated tubes. */
export const WARM_SECONDS = 25;

/** Whole seconds still to wait; 0 when warm, or while the power is off. @param now milliseconds since 1970. */
export function warmingSeconds(power: { state: "on" | "off"; at: string } | undefined, now: number): number {
  return power?.state === "on" ? Math.max(0, Math.ceil(WARM_SECONDS - (now - Date.parse(power.at)) / 1000)) : 0;
}
