"use client";
/** Who has the focus: a field that appears asks for it, and never takes it from somebody who types elsewhere. */

import { useEffect, type RefObject } from "react";

const NOT_TYPED = ["button", "checkbox", "color", "file", "image", "radio", "range", "reset", "submit"];

/** Whether keys that are typed now go into this element. */
export function isTyped(at: Element | null): at is HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement {
  if (at instanceof HTMLInputElement) return !NOT_TYPED.includes(at.type);
  return at instanceof HTMLTextAreaElement || at instanceof HTMLSelectElement || (at instanceof HTMLElement && at.isContentEditable);
}

/** The first field of a form that can be typed into. */
export const firstField = (form: HTMLFormElement): HTMLElement | undefined =>
  [...form.querySelectorAll<HTMLInputElement>("input, textarea, select")].find((f) => isTyped(f) && !f.disabled);

/**
 * On to the next form of a list, in the order in which they are shown: `data-onward` names the list. To the field of the same name, or its
 * first one; at the last form it stays.
 */
export function focusNextForm(form: HTMLFormElement): void {
  const list = form.dataset.onward;
  if (list === undefined) return;
  const forms = [...document.querySelectorAll<HTMLFormElement>(`form[data-onward="${list}"]`)];
  const next = forms[forms.indexOf(form) + 1];
  const name = isTyped(document.activeElement) ? document.activeElement.name : "";
  const fields = [...(next?.querySelectorAll<HTMLInputElement>("input") ?? [])].filter((f) => isTyped(f) && !f.disabled);
  (fields.find((f) => f.name === name) ?? fields[0])?.focus();
}

/**
 * Gives the field the focus as it appears.
 * @param wanted "free": only where nothing has it, for what appears by itself, as an answer of the solver does; true: also from a button, for
 * what appears since somebody pressed it; false: never.
 */
export function useFocusOnArrival(field: RefObject<HTMLElement | null>, wanted: boolean | "free" = true): void {
  useEffect(() => {
    const at = document.activeElement;
    const free = at === null || at === document.body;
    if (wanted && (free || (wanted === true && !isTyped(at)))) field.current?.focus();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, as it appears
  }, []);
}
