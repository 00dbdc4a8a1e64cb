"use client";
import { Field } from "@/ui/forms/section";
import { askServer } from "../ask-server";
import { DoorForm } from "./door-form";

/** Initials and passphrase. */
export function SignIn({ to }: { to: string }) {
  const take = async (text: (field: string) => string) =>
    void (await askServer("POST", "/api/v1/session", { initials: text("initials").trim(), passphrase: text("passphrase") }));
  return (
    <DoorForm title="Sign in" button="Sign in" busyButton="Signing in…" to={to} take={take}>
      <Field label="Initials">
        <input className="input w-full" name="initials" autoComplete="username" required maxLength={12} autoFocus />
      </Field>
      <Field label="Passphrase">
        <input className="input w-full" name="passphrase" type="password" autoComplete="current-password" required maxLength={200} />
      </Field>
      <p className="soft text-sm">Forgotten? The owner of the shop gives a new passphrase at Settings.</p>
    </DoorForm>
  );
}
