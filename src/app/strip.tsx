import { cookies, headers } from "next/headers";
import { cache } from "react";
import type { Person } from "@/core/shop/people";
import type { Settings } from "@/core/shop/settings";
import { personOf } from "@/server/door/door";
import { TopStrip } from "@/ui/frame/top-strip";
import { SignedIn } from "./signed-in";

/** The strip with the shop's name and who is at the bench. */
export async function Strip({ settings }: { settings: Settings }) {
  const person = await personHere();
  return (
    <TopStrip
      shop={settings.shopName}
      technicians={settings.technicians}
      who={await technician(settings)}
      signedIn={person && <SignedIn person={person} />}
    />
  );
}

/** Who is signed in; undefined where the door is open. Asked once a page. */
export const personHere = cache(async (): Promise<Person | undefined> => personOf({ method: "GET", headers: await headers() }));

/** Initials that sign the tape: of who is signed in, else of the technician whom this browser has chosen. */
export async function technician(settings: Settings): Promise<string> {
  const person = await personHere();
  if (person) return person.initials;
  const chosen = (await cookies()).get("scutum-who")?.value;
  const name = chosen && decodeURIComponent(chosen);
  return name && settings.technicians.includes(name) ? name : settings.technicians[0]!;
}
