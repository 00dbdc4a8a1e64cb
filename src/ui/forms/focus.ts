"use client";
/** Who has the focus: a field that appears asks for it, and never takes it from somebody who types elsewhere. */

import { useEffect, type RefObject } from "react";

const NOT_TYPED = ["button", "checkbox", "color", "file", "image", "radio", "range", "reset", "submit"];

/** Whether keys that are typed now go into this element. */
export function isTyped(at: Element | null): at is HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement {
  if (at instanceof HTMLInputElement) return !NOT_TYPED.includes(at.type);
  return at instanceof HTMLTextAreaElement || at instanceof HTMLSelectElement || (at instanceof HTMLElement && at.isContentEditable);
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
