"use client";
/** Tokens of instruments and bridges, one or more for each bench. */

import { useState } from "react";
import { useRouter } from "next/navigation";
import type { BenchToken } from "@/server/door/bench-tokens";
import { Field, Section } from "@/ui/forms/section";
import { Refused } from "@/ui/forms/typed-form";
import { askServer } from "../ask-server";

export function Tokens({ tokens }: { tokens: BenchToken[] }) {
  const router = useRouter();
  const [bench, setBench] = useState("");
  const [made, setMade] = useState<{ bench: string; token: string }>();
  const [failed, setFailed] = useState("");
  const doing = async (work: () => Promise<void>) => {
    setFailed("");
    try {
      await work();
      router.refresh();
    } catch (error) {
      setFailed((error as Error).message);
    }
  };
  return (
    <Section title="Instruments" hint="A bridge of a bench hands readings in with a token of its own. It opens nothing else.">
      <ul className="grid gap-2">
        {tokens.map((t) => (
          <li key={t.id} className="flex flex-wrap items-center gap-3">
            <span className="flex-1">
              {t.bench}{" "}
              <span className="soft text-sm">
                made {t.madeAt.slice(0, 10)} by {t.madeBy}
              </span>
            </span>
            <button
              type="button"
              className="btn btn-line btn-sm"
              onClick={() => void doing(async () => void (await askServer("DELETE", `/api/v1/tokens/${t.id}`)))}
            >
              Revoke
            </button>
          </li>
        ))}
        {tokens.length === 0 && <li className="soft text-sm">No instrument has one.</li>}
      </ul>
      <form
        className="mt-3 flex items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          void doing(async () => {
            const { token } = await askServer<{ token: string }>("POST", "/api/v1/tokens", { bench: bench.trim() });
            setMade({ bench, token });
            setBench("");
          });
        }}
      >
        <Field label="Bench">
          <input
            className="input w-60"
            required
            maxLength={60}
            placeholder="bench by the window"
            value={bench}
            onChange={(e) => setBench(e.target.value)}
          />
        </Field>
        <button className="btn">Make a token</button>
      </form>
      <Refused className="mt-2">{failed}</Refused>
      {made && (
        <p role="status" className="mt-2 text-sm">
          For {made.bench}, shown this once; the bridge takes it as SCUTUM_TOKEN:{" "}
          <code className="rounded bg-base-300 px-2 py-1 font-mono break-all">{made.token}</code>
        </p>
      )}
    </Section>
  );
}
