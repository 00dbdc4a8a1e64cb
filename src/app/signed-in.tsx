"use client";
/** Who is signed in, with the two ways out. */

import { useState } from "react";
import type { Person } from "@/core/shop/people";
import { Refused } from "@/ui/forms/typed-form";
import { forgetKept } from "./forget-kept";
import { askServer } from "./ask-server";

export function SignedIn({ person }: { person: Person }) {
  const [failed, setFailed] = useState("");
  const out = (query: string) => async () => {
    setFailed("");
    try {
      await askServer("DELETE", `/api/v1/session${query}`);
      await forgetKept();
      window.location.assign("/sign-in");
    } catch (error) {
      // Still signed in: nobody may think otherwise and walk away.
      setFailed(`Not signed out. ${(error as Error).message}`);
    }
  };
  return (
    <details className="relative">
      <summary className="btn btn-ghost">
        {person.initials} <span className="soft text-sm">{person.role}</span>
      </summary>
      <div className="absolute right-0 z-20 mt-1 grid w-64 gap-1 rounded border border-base-300 bg-base-100 p-2 shadow">
        <p className="soft px-2 text-sm">{person.name}</p>
        <button className="btn btn-ghost justify-start" onClick={() => void out("")()}>
          Sign out
        </button>
        <button className="btn btn-ghost justify-start" onClick={() => void out("?everywhere=yes")()}>
          Sign out on every device
        </button>
        <Refused className="px-2">{failed}</Refused>
      </div>
    </details>
  );
}
