/** The shop's settings: one row, checked by its class. */

import { classErrors, show } from "@/core/checks/class-errors";
import { setLanguage } from "@/core/language/language";
import { DEFAULT_SETTINGS, languageOf, type Settings } from "@/core/shop/settings";
import { Settings as SettingsClass } from "@/core/shop/settings-class";
import type { Sql } from "./database";
import { UserError } from "./errors";

/** With what was never set as it is usually; a shop without a time zone of its own has that of this server. */
export async function getSettings(sql: Sql): Promise<Settings> {
  const [row] = await sql.query<{ value: Partial<Settings> }>("select value from settings where id = 1");
  const settings = {
    ...DEFAULT_SETTINGS,
    ...row?.value,
    timeZone: row?.value.timeZone || Intl.DateTimeFormat().resolvedOptions().timeZone,
    money: { ...DEFAULT_SETTINGS.money, ...row?.value.money },
    limits: { ...DEFAULT_SETTINGS.limits, ...row?.value.limits },
    backups: { ...DEFAULT_SETTINGS.backups, ...row?.value.backups },
  };
  // One process serves one shop: whatever it says from here on is in the shop's words.
  setLanguage(languageOf(settings));
  return settings;
}

/** @throws UserError 422 with one sentence a field. */
export async function saveSettings(sql: Sql, settings: unknown): Promise<Settings> {
  if (typeof settings !== "object" || settings === null || Array.isArray(settings))
    throw new UserError(422, `The settings read ${show(settings)}; an object is wanted.`);
  const details = classErrors(SettingsClass, settings);
  if (details.length > 0) throw new UserError(422, details[0]!.message, details);
  await sql.query("insert into settings (id, value) values (1, $1::jsonb) on conflict (id) do update set value = excluded.value", [
    JSON.stringify(settings),
  ]);
  setLanguage(languageOf(settings as Settings));
  return settings as Settings;
}
