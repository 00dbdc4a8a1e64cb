import { db } from "@/server/db";
import { getSettings } from "@/server/settings";
import { Strip } from "../strip";
import { ImportJob } from "./import-job";
import { SettingsForm } from "./settings-form";

export const metadata = { title: "Settings · Scutum" };

export default async function SettingsPage() {
  const settings = await getSettings(await db());
  return (
    <>
      <Strip settings={settings} />
      <main className="mx-auto max-w-3xl px-4 py-4">
        <h1 className="mb-4 text-2xl font-bold">Settings</h1>
        <SettingsForm settings={settings} />
        <ImportJob />
      </main>
    </>
  );
}
