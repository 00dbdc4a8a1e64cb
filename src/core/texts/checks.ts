/** Texts of checks. */

import { say, type Value } from "../language/language";

export const dateYyyyMmDd = "a day that there is, as YYYY-MM-DD, is wanted";
export const dayOrTime = "a day that there is, as YYYY-MM-DD or YYYY-MM-DDTHH:MM, is wanted";
export const textWanted = (field: string, least: number, most: number) =>
  `${field}: text of ${least > 0 ? `${least} to` : "up to"} ${most} characters is wanted, without control characters`;

export const photoStoredHere = "a photo that is stored here is wanted";
export const recordingStoredHere = "a recording that is stored here is wanted";
export const read = (message: Value, error: Value) => say`${message}; read ${error}`;
