"use client";
import { useEffect } from "react";
import { forgetKept } from "../forget-kept";

/** Nobody is signed in here: signed out on another device, or the session ended. What the browser keeps of the shop goes. */
export function ForgetKept() {
  useEffect(() => {
    forgetKept().catch((error: unknown) => console.warn("scutum: what this browser keeps could not be removed:", error));
  }, []);
  return null;
}
