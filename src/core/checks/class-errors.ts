/** Checks an object against a class of class-validator. Loads that package, so the browser leaves this file alone. */

import "reflect-metadata";
import { plainToInstance } from "class-transformer";
import { validateSync, type ValidationError } from "class-validator";
import * as texts from "../texts/checks";

export interface FieldError {
  field: string;
  message: string;
}

/** Checks an object against a class, whole: what the class does not know is refused too. */
export function classErrors(shape: new () => object, value: object): FieldError[] {
  const errors = validateSync(plainToInstance(shape, value), { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true });
  return errors.flatMap((e) => flatten(e, ""));
}

function flatten(error: ValidationError, prefix: string): FieldError[] {
  const field = prefix + error.property;
  const own = Object.values(error.constraints ?? {}).map((message) => ({ field, message: texts.read(message, show(error.value)) }));
  return [...own, ...(error.children ?? []).flatMap((child) => flatten(child, `${field}.`))];
}

/** A value as an error shows it: its beginning. */
export function show(value: unknown): string {
  // Only its beginning is shown: a long text is cut before it is written out.
  const text = JSON.stringify(typeof value === "string" ? value.slice(0, 61) : value) ?? "nothing";
  return text.length > 60 ? `${text.slice(0, 60)}…` : text;
}
