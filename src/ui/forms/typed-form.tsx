"use client";
/** A form whose fields are texts as somebody types them: read as a whole on Enter, kept for correction where they cannot be read. */

import { firstField, focusNextForm, isTyped } from "./focus";
import { useRefusals } from "../job/refusals";
import { useForm, type DefaultValues, type FieldValues, type Path, type UseFormReturn } from "react-hook-form";

export interface TypedForm<T extends FieldValues> {
  /** What a control is given: `<input {...field("ohms")} />`. */
  field(name: Path<T>): ReturnType<UseFormReturn<T>["register"]>;
  /** Of a form with `data-onward` the next one of that list has the focus afterwards. */
  onSubmit(e: React.FormEvent): void;
  /** Takes the form as a button does that is no submit button. */
  submit(): void;
  /** Why the form was not taken; empty once something is typed again. */
  refused: string;
  /** What stands in the fields now. */
  typed: T;
  form: UseFormReturn<T>;
}

/**
 * `take` logs what was typed. It returns why it cannot, and then everything stays in the fields, as it does where a rule of the job stands
 * against what was to be logged; or what the form begins anew with where that is not `usual`.
 * @example
 * const { field, onSubmit, refused } = useTypedForm({ place: "", celsius: "" }, ({ place, celsius }) => {
 *   if (!place) return "Where was it measured?";
 *   say(temperature(place, celsius));
 *   return { place }; // the next temperature is likely of the same part
 * });
 */
export function useTypedForm<T extends FieldValues>(usual: T, take: (typed: T) => string | Partial<T> | void): TypedForm<T> {
  const form = useForm<T>({ defaultValues: usual as DefaultValues<T> });
  const { register, handleSubmit, setError, clearErrors, reset, watch, formState } = form;
  const refusals = useRefusals();
  const refuse = (message: string) => {
    setError("root", { message });
    // The next typing replaces what was refused.
    const at = document.activeElement;
    if (at instanceof HTMLInputElement && isTyped(at)) at.select();
  };
  const store = handleSubmit((typed, e) => {
    const before = refusals.count();
    const at = document.activeElement;
    const answer = take(typed);
    if (refusals.count() > before) {
      // What it logs may not be logged now: it stays, with the rule that stands against it.
      refuse(refusals.last());
      refusals.clear();
    } else if (typeof answer === "string") refuse(answer);
    else {
      reset({ ...usual, ...answer });
      // Of a list of forms the next one is asked for; a form by itself begins anew at its first field.
      if (e?.target instanceof HTMLFormElement) {
        if (e.target.dataset.onward !== undefined) focusNextForm(e.target);
        else if (at === document.activeElement && e.target.contains(at)) firstField(e.target)?.focus();
      }
    }
  });
  return {
    field: (name) => register(name, { onChange: () => clearErrors("root") }),
    onSubmit: (e) => void store(e),
    submit: () => void store(),
    refused: formState.errors.root?.message ?? "",
    typed: watch(),
    form,
  };
}

/** Why a form was not taken, said where a screen reader says it at once. */
export function Refused({ children, className = "" }: { children: string; className?: string }) {
  return children ? (
    <p role="alert" className={`text-sm text-error ${className}`}>
      {children}
    </p>
  ) : null;
}
