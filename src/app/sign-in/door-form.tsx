"use client";
/** The shell of a form at the door: takes it, says that it is being taken, and why it was not. */

import { useState, type ReactNode } from "react";
import { Refused } from "@/ui/forms/typed-form";

export interface DoorFormProps {
  title: string;
  button: string;
  busyButton: string;
  /** Where to go once it is taken. */
  to: string;
  /** @throws Error with what is wrong, in words. */
  take(text: (field: string) => string): Promise<void>;
  children: ReactNode;
}

export function DoorForm({ title, button, busyButton, to, take, children }: DoorFormProps) {
  const [refused, setRefused] = useState("");
  const [busy, setBusy] = useState(false);
  async function submit(form: FormData) {
    setBusy(true);
    setRefused("");
    try {
      await take((field) => String(form.get(field)));
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
      <h1 className="text-2xl font-bold">{title}</h1>
      {children}
      <button className="btn btn-primary" disabled={busy}>
        {busy ? busyButton : button}
      </button>
      <Refused>{refused}</Refused>
    </form>
  );
}
