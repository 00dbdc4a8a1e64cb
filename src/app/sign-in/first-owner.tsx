"use client";
import { Field } from "@/ui/forms/section";
import { askServer } from "../ask-server";
import { DoorForm } from "./door-form";

const SECRET = { type: "password", autoComplete: "new-password", required: true, minLength: 10, maxLength: 200 } as const;

/** The first start beyond this machine: who owns the shop, with a passphrase. The code shows that it is somebody who sees the terminal. */
export function FirstOwner({ code, to }: { code: string; to: string }) {
  async function take(text: (field: string) => string) {
    const [initials, passphrase] = [text("initials").trim(), text("passphrase")];
    if (passphrase !== text("again")) throw new Error("The two passphrases are not the same.");
    await askServer("POST", "/api/v1/first-owner", { code: text("code"), initials, name: text("name").trim(), passphrase });
    await askServer("POST", "/api/v1/session", { initials, passphrase });
  }
  return (
    <DoorForm title="Who owns this shop?" button="Store and sign in" busyButton="Storing…" to={to} take={take}>
      <p className="soft text-sm">
        From now on everybody who opens Scutum from another device signs in. You can add the other people of the shop at Settings.
      </p>
      <Field label="Code from the terminal">
        <input className="input w-full font-mono" name="code" required defaultValue={code} autoComplete="off" />
      </Field>
      <div className="grid grid-cols-3 gap-3">
        <Field label="Initials">
          <input className="input w-full" name="initials" required maxLength={12} autoComplete="username" />
        </Field>
        <Field label="Name" className="col-span-2">
          <input className="input w-full" name="name" required maxLength={200} autoComplete="name" />
        </Field>
      </div>
      <Field label="Passphrase, 10 characters or more">
        <input className="input w-full" name="passphrase" {...SECRET} />
      </Field>
      <Field label="The same again">
        <input className="input w-full" name="again" {...SECRET} />
      </Field>
    </DoorForm>
  );
}
