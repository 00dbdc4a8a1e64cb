"use client";
import { useState } from "react";
import { askServer } from "../../../ask-server";

/** Makes a link by which the amp's owner reads this report, and copies it. */
export function OwnerLink({ jobId }: { jobId: number }) {
  const [made, setMade] = useState<{ address: string; until: string }>();
  const [failed, setFailed] = useState("");
  async function make() {
    setFailed("");
    try {
      const { path, until } = await askServer<{ path: string; until: string }>("POST", `/api/v1/jobs/${jobId}/link`);
      const address = window.location.origin + path;
      setMade({ address, until });
      // Where the browser forbids it, the address stands on the screen to be copied by hand.
      await navigator.clipboard?.writeText(address).catch(() => undefined);
    } catch (error) {
      setFailed((error as Error).message);
    }
  }
  if (made)
    return (
      <label className="flex flex-1 items-center gap-2 text-sm">
        For the owner, until {made.until}
        <input className="input input-sm min-w-40 flex-1 font-mono" readOnly value={made.address} onFocus={(e) => e.target.select()} />
      </label>
    );
  return (
    <>
      <button className="btn" onClick={() => void make()}>
        Link for the owner
      </button>
      {failed && (
        <span role="alert" className="text-sm text-error">
          {failed}
        </span>
      )}
    </>
  );
}
