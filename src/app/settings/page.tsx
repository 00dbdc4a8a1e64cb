import { backupState } from "@/server/daily-backup";
import { db } from "@/server/db";
import { getSettings } from "@/server/settings";
import { listTokens } from "@/server/door/bench-tokens";
import { listPeople } from "@/server/door/people";
import { doorShut } from "@/server/door/secret";
import { personHere, Strip } from "../strip";
import { ImportJob } from "./import-job";
import { People } from "./people";
import { SettingsForm } from "./settings-form";
import { ThisDevice } from "./this-device";
import { Tokens } from "./tokens";

export const metadata = { title: "Settings · Scutum" };

export default async function SettingsPage() {
  const database = await db();
  const [settings, backups] = [await getSettings(database), await backupState(database)];
  const me = await personHere();
  return (
    <>
      <Strip settings={settings} />
      <main className="mx-auto max-w-3xl px-4 py-4">
        <h1 className="mb-4 text-2xl font-bold">Settings</h1>
        <SettingsForm settings={settings} backups={backups} mayChange={!doorShut() || me?.role === "owner"} />
        <ThisDevice />
        <ImportJob />
        {doorShut() && me?.role === "owner" && (
          <>
            <People people={await listPeople(database)} />
            <Tokens tokens={await listTokens(database)} />
          </>
        )}
      </main>
    </>
  );
}
