import { redirect } from "next/navigation";
import { db } from "@/server/db";
import { nobodyKnown } from "@/server/door/people";
import { doorShut } from "@/server/door/secret";
import { getSettings } from "@/server/settings";
import { FirstOwner } from "./first-owner";
import { ForgetKept } from "./forget-kept";
import { SignIn } from "./sign-in";

export const metadata = { title: "Sign in · Scutum" };

type Props = { searchParams: Promise<{ to?: string; code?: string }> };

/** Only an address of this shop is gone on to: "//elsewhere" would be another's. */
const safe = (to: string | undefined): string => (to && /^\/(?![/\\])/.test(to) ? to : "/");

export default async function SignInPage({ searchParams }: Props) {
  if (!doorShut()) redirect("/");
  const { to, code } = await searchParams;
  const sql = await db();
  const [settings, first] = [await getSettings(sql), await nobodyKnown(sql)];
  return (
    <main className="mx-auto max-w-md px-4 py-10">
      <p className="text-3xl font-bold tracking-wide">Scutum</p>
      <p className="soft mb-6">{settings.shopName}</p>
      <ForgetKept />
      {first ? <FirstOwner code={code ?? ""} to={safe(to)} /> : <SignIn to={safe(to)} />}
    </main>
  );
}
