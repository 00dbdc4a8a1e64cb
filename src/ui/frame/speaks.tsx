"use client";
/** Sets the words and the decimal sign of the shop for everything that this page draws. */

import type { ReactNode } from "react";
import { setLanguage, type Language } from "@/core/language/language";

/** Around everything else, so that it is drawn first. */
export function Speaks({ language, children }: { language: Language; children: ReactNode }) {
  setLanguage(language);
  return children;
}
