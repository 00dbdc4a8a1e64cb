import { ownerNames } from "@/server/owners";
import { db } from "@/server/db";
import { listModels } from "@/server/models";
import { getSettings } from "@/server/settings";
import { Strip, technician } from "../../strip";
import { NewJob } from "./new-job";

export const metadata = { title: "New job · Scutum" };

export default async function NewJobPage({ searchParams }: { searchParams: Promise<{ model?: string }> }) {
  const { model } = await searchParams;
  const sql = await db();
  const settings = await getSettings(sql);
  return (
    <>
      <Strip settings={settings} />
      <main className="mx-auto max-w-3xl px-4 py-4">
        <h1 className="mb-4 text-2xl font-bold">New job</h1>
        <NewJob model={model} models={await listModels(sql)} owners={await ownerNames(sql)} who={await technician(settings)} />
      </main>
    </>
  );
}
