"use client";
import { useState } from "react";
import { Field } from "@/ui/forms/section";
import { Refused } from "@/ui/forms/typed-form";
import { askServer } from "../ask-server";

/** Initials and passphrase. */
export function SignIn({ to }: { to: string }) {
  const [refused, setRefused] = useState("");
  const [busy, setBusy] = useState(false);
  async function submit(form: FormData) {
    setBusy(true);
    setRefused("");
    try {
      await askServer("POST", "/api/v1/session", { initials: String(form.get("initials")).trim(), passphrase: form.get("passphrase") });
      // A page that is loaded anew is drawn for whoever is signed in now.
      window.location.assign(to);
    } catch (error) {
      setRefused((error as Error).message);
      setBusy(false);
    }
  }
  return (
    <form
      className="grid gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void submit(new FormData(e.currentTarget));
      }}
    >
      <h1 className="text-2xl font-bold">Sign in</h1>
      <Field label="Initials">
        <input className="input w-full" name="initials" autoComplete="username" required maxLength={12} autoFocus />
      </Field>
      <Field label="Passphrase">
        <input className="input w-full" name="passphrase" type="password" autoComplete="current-password" required maxLength={200} />
      </Field>
      <button className="btn btn-primary" disabled={busy}>
        {busy ? "Signing in…" : "Sign in"}
      </button>
      <Refused>{refused}</Refused>
      <p className="soft text-sm">Forgotten? The owner of the shop gives a new passphrase at Settings.</p>
    </form>
  );
}
