"use client";
/** Has the browser keep what the pages are made of, where it may: under TLS, or on this machine itself. */

import { useEffect } from "react";
import { pageOfShop } from "@/workers/kept-addresses";

export function KeepOffline() {
  useEffect(() => {
    if (process.env.NODE_ENV !== "production" || !("serviceWorker" in navigator)) return;
    // Who opens a report by its link, or stands at the door, is given nothing to keep.
    if (!pageOfShop(window.location.pathname)) return;
    navigator.serviceWorker.register("/service-worker.js").catch((error: unknown) => {
      // A certificate that this device does not trust, most often: what is open still goes on, but no other page opens without the server.
      console.warn("scutum: pages are not kept for the time without the server:", error);
    });
  }, []);
  return null;
}
