/** What the classes of payloads, settings and bodies are checked with. Each decorator takes the whole of one field: its kind, its bounds, its elements. */

import { Type } from "class-transformer";
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsObject,
  Matches,
  ValidateBy,
  ValidateIf,
  ValidateNested,
  buildMessage,
  isISO8601,
} from "class-validator";
import * as texts from "../texts/checks";

type Decorator = PropertyDecorator;

/** The field may be left out. `null` is not left out: no reader of the tape expects it. */
export const Optional = (): Decorator => ValidateIf((_, value) => value !== undefined);

/** Characters that no screen, paper or database can hold: controls but tab and line ends, and halves of a surrogate pair. */
const UNPRINTABLE = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

export const isPrintable = (text: string): boolean => !UNPRINTABLE.test(text);

interface TextOptions {
  /** Nothing, or blanks alone, may stand in it too. */
  empty?: boolean;
  /** The fewest characters. */
  least?: number;
  /** The field is a list of such texts. */
  each?: boolean;
}

/** Text of up to `most` characters with something in it. */
export function IsText(most: number, { empty = false, least = empty ? 0 : 1, each = false }: TextOptions = {}): Decorator {
  return ValidateBy(
    {
      name: "isText",
      validator: {
        validate: (value) =>
          typeof value === "string" && value.length <= most && (empty ? value.length : value.trim().length) >= least && isPrintable(value),
        defaultMessage: buildMessage((eachOf) => texts.textWanted(`${eachOf}$property`, least, most), { each }),
      },
    },
    { each },
  );
}

/** A list of `least` to `most` texts of up to `length` characters. */
export const IsTextList = (most: number, length: number, { least = 0 } = {}): Decorator =>
  all(IsArray(), ArrayMinSize(least), ArrayMaxSize(most), IsText(length, { each: true }));

/** An object of a class of its own. */
export const IsA = (shape: () => new () => object): Decorator => all(IsObject(), ValidateNested(), Type(shape));

/** A list of `least` to `most` objects of one class. */
export const IsListOf = (shape: () => new () => object, most: number, { least = 0 } = {}): Decorator =>
  all(IsArray(), ArrayMinSize(least), ArrayMaxSize(most), IsObject({ each: true }), ValidateNested({ each: true }), Type(shape));

/** "2026-11-26": a day that the calendar has, of the years 1900 to 2199. */
export const IsDay = (): Decorator =>
  ValidateBy({ name: "isDay", validator: { validate: isDay, defaultMessage: () => texts.dateYyyyMmDd } });

/** A day, or a day with its time: "2026-11-26T14:30". */
export const IsDayOrTime = (): Decorator =>
  ValidateBy({
    name: "isDayOrTime",
    validator: {
      validate: (value) =>
        typeof value === "string" &&
        isDay(value.slice(0, 10)) &&
        (value.length === 10 || /^T([01]\d|2[0-3]):[0-5]\d$/.test(value.slice(10))),
      defaultMessage: () => texts.dayOrTime,
    },
  });

/** The hash under which a photo or recording is stored; `wanted` says which of the two. That it is stored is asked of the shop. */
export const IsStoredHash = (wanted: string, { each = false } = {}): Decorator => Matches(/^[0-9a-f]{64}$/, { message: wanted, each });

const isDay = (value: unknown): boolean =>
  typeof value === "string" && /^(19|20|21)\d{2}-\d{2}-\d{2}$/.test(value) && isISO8601(value, { strict: true });

function all(...decorators: Decorator[]): Decorator {
  return (target, property) => decorators.forEach((decorate) => decorate(target, property));
}
