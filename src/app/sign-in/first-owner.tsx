"use client";
import { useState } from "react";
import { Field } from "@/ui/forms/section";
import { Refused } from "@/ui/forms/typed-form";
import { askServer } from "../ask-server";

/** The first start beyond this machine: who owns the shop, with a passphrase. The code shows that it is somebody who sees the terminal. */
export function FirstOwner({ code, to }: { code: string; to: string }) {
  const [refused, setRefused] = useState("");
  const [busy, setBusy] = useState(false);
  async function submit(form: FormData) {
    const text = (name: string) => String(form.get(name));
    if (text("passphrase") !== text("again")) return setRefused("The two passphrases are not the same.");
    setBusy(true);
    setRefused("");
    const initials = text("initials").trim();
    try {
      await askServer("POST", "/api/v1/first-owner", {
        code: text("code"),
        initials,
        name: text("name").trim(),
        passphrase: text("passphrase"),
      });
      await askServer("POST", "/api/v1/session", { initials, passphrase: text("passphrase") });
      window.location.assign(to);
    } catch (error) {
      setRefused((error as Error).message);
      setBusy(false);
    }
  }
  const secret = { type: "password", autoComplete: "new-password", required: true, minLength: 10, maxLength: 200 } as const;
  return (
    <form
      className="grid gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void submit(new FormData(e.currentTarget));
      }}
    >
      <h1 className="text-2xl font-bold">Who owns this shop?</h1>
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
        <input className="input w-full" name="passphrase" {...secret} />
      </Field>
      <Field label="The same again">
        <input className="input w-full" name="again" {...secret} />
      </Field>
      <button className="btn btn-primary" disabled={busy}>
        {busy ? "Storing…" : "Store and sign in"}
      </button>
      <Refused>{refused}</Refused>
    </form>
  );
}
