"use client";
/** Ctrl and Enter store the form in which somebody types, from any of its fields: where Enter begins a line, or fields are left out. */

import { useEffect } from "react";

export function StoreByKeys() {
  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (e.key !== "Enter" || !(e.ctrlKey || e.metaKey) || e.defaultPrevented) return;
      const form = e.target instanceof Element ? e.target.closest("form") : null;
      const button = form?.querySelector<HTMLButtonElement>("button:not([type=button])");
      if (!form || button?.disabled) return;
      e.preventDefault();
      form.requestSubmit(button ?? undefined);
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  }, []);
  return null;
}
