"use client";
/** Whether this device goes on without the server, and what is missing where it does not. */

import { useEffect, useState } from "react";

type Keeping = "asking" | "yes" | "no browser" | "not trusted" | "developing";

async function ask(): Promise<Keeping> {
  if (process.env.NODE_ENV !== "production") return "developing";
  // A browser has it only where it trusts the connection: on the machine itself, or by TLS.
  if (!window.isSecureContext) return "not trusted";
  if (!("serviceWorker" in navigator)) return "no browser";
  return (await navigator.serviceWorker.getRegistration()) ? "yes" : "not trusted";
}

const SAYS: Record<Exclude<Keeping, "asking">, string> = {
  yes: "Keeps the jobs that were opened here lately. Their stations and probe mode go on when the server is not reached, and what you log is sent when it is back. Signing out removes what is kept.",
  "not trusted":
    "Keeps no pages: this browser does not trust the connection. Install the certificate of the shop on this device, and open the shop by https. What is open goes on without the server, but no other page opens.",
  "no browser": "Keeps no pages: this browser cannot. What is open goes on without the server, but no other page opens.",
  developing: "Keeps no pages while the program is being developed.",
};

export function ThisDevice() {
  const [keeping, setKeeping] = useState<Keeping>("asking");
  useEffect(() => {
    ask().then(setKeeping, () => setKeeping("no browser"));
  }, []);
  return (
    <section aria-labelledby="this-device" className="mt-8">
      <h2 id="this-device" className="text-lg font-bold">
        This device
      </h2>
      <p className="mt-1 max-w-2xl">{keeping === "asking" ? "Asking the browser…" : SAYS[keeping]}</p>
    </section>
  );
}
