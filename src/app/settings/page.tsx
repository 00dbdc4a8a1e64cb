import { backupState } from "@/server/daily-backup";
import { db } from "@/server/db";
import { getSettings } from "@/server/settings";
import { Strip } from "../strip";
import { ImportJob } from "./import-job";
import { SettingsForm } from "./settings-form";

export const metadata = { title: "Settings · Scutum" };

export default async function SettingsPage() {
  const database = await db();
  const [settings, backups] = [await getSettings(database), await backupState(database)];
  return (
    <>
      <Strip settings={settings} />
      <main className="mx-auto max-w-3xl px-4 py-4">
        <h1 className="mb-4 text-2xl font-bold">Settings</h1>
        <SettingsForm settings={settings} backups={backups} />
        <ImportJob />
      </main>
    </>
  );
}
