"use client";
/** The people of the shop: who may sign in, as what. */

import { useState } from "react";
import { useRouter } from "next/navigation";
import { ROLES, type Role } from "@/core/shop/people";
import type { KnownPerson } from "@/server/door/people";
import { Field, Section } from "@/ui/forms/section";
import { Refused, useTypedForm } from "@/ui/forms/typed-form";
import { askServer } from "../ask-server";

const ROLE_SAYS: Record<Role, string> = {
  owner: "owner: everything, settings and people too",
  technician: "technician: all work on jobs",
  apprentice: "apprentice: no money, no passing of a safety gate",
};

export function People({ people }: { people: KnownPerson[] }) {
  const router = useRouter();
  const [failed, setFailed] = useState("");
  const change = async (person: KnownPerson, part: object) => {
    setFailed("");
    try {
      await askServer("PUT", `/api/v1/people/${person.id}`, part);
      router.refresh();
    } catch (error) {
      setFailed((error as Error).message);
    }
  };
  const { field, onSubmit, refused, form } = useTypedForm(
    { initials: "", name: "", role: "technician" as Role, passphrase: "" },
    ({ initials, name, role, passphrase }) => {
      void askServer("POST", "/api/v1/people", { initials: initials.trim(), name: name.trim(), role, passphrase }).then(
        () => router.refresh(),
        (error: Error) => {
          form.reset({ initials, name, role, passphrase });
          form.setError("root", { message: error.message });
        },
      );
    },
  );
  return (
    <Section title="People" hint="Each signs in with initials and a passphrase; the tape is signed by who is signed in.">
      <ul className="grid gap-2">
        {people.map((p) => (
          <li key={p.id} className={`flex flex-wrap items-center gap-3 ${p.active ? "" : "opacity-70"}`}>
            <span className="w-16 font-bold">{p.initials}</span>
            <span className="min-w-40 flex-1">{p.name}</span>
            {p.active ? (
              <>
                <select
                  className="select w-40"
                  aria-label={`Role of ${p.initials}`}
                  value={p.role}
                  onChange={(e) => void change(p, { role: e.target.value })}
                >
                  {ROLES.map((role) => (
                    <option key={role}>{role}</option>
                  ))}
                </select>
                <NewPassphrase person={p} give={(passphrase) => change(p, { passphrase })} />
                <button type="button" className="btn btn-line btn-sm" onClick={() => void change(p, { active: false })}>
                  Has left
                </button>
              </>
            ) : (
              <>
                <span className="soft text-sm">has left</span>
                <button type="button" className="btn btn-line btn-sm" onClick={() => void change(p, { active: true })}>
                  Is back
                </button>
              </>
            )}
          </li>
        ))}
      </ul>
      <Refused className="mt-2">{failed}</Refused>
      <form className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-6" onSubmit={onSubmit}>
        <Field label="Initials">
          <input className="input w-full" required maxLength={12} {...field("initials")} />
        </Field>
        <Field label="Name" className="sm:col-span-2">
          <input className="input w-full" required maxLength={200} {...field("name")} />
        </Field>
        <Field label="Role" className="sm:col-span-3">
          <select className="select w-full" {...field("role")}>
            {ROLES.map((role) => (
              <option key={role} value={role}>
                {ROLE_SAYS[role]}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Passphrase, 10 characters or more" className="col-span-2 sm:col-span-3">
          <input className="input w-full" type="password" autoComplete="new-password" required minLength={10} {...field("passphrase")} />
        </Field>
        <div className="flex items-end">
          <button className="btn btn-primary whitespace-nowrap">Add this person</button>
        </div>
        <Refused className="col-span-full">{refused}</Refused>
      </form>
    </Section>
  );
}

function NewPassphrase({ person, give }: { person: KnownPerson; give(passphrase: string): Promise<void> }) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  if (!open)
    return (
      <button type="button" className="btn btn-line btn-sm" onClick={() => setOpen(true)}>
        New passphrase
      </button>
    );
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void give(typed).then(() => {
          setOpen(false);
          setTyped("");
        });
      }}
    >
      <input
        autoFocus
        className="input input-sm w-44"
        type="password"
        autoComplete="new-password"
        minLength={10}
        required
        aria-label={`New passphrase of ${person.initials}`}
        placeholder="10 characters or more"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
      <button className="btn btn-sm btn-primary">Store</button>
    </form>
  );
}
