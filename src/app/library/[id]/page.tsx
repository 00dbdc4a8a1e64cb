import { notFound } from "next/navigation";
import { db } from "@/server/db";
import { UserError } from "@/server/errors";
import { memoryOfModel } from "@/server/history";
import { getModel, listModels, modelVersions } from "@/server/models";
import { getSettings } from "@/server/settings";
import { Strip } from "../../strip";
import { ModelClient } from "../model-client";

export const metadata = { title: "Amp model · Scutum" };

export default async function OneModelPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!/^\d{1,9}$/.test(id)) notFound();
  const sql = await db();
  const model = await getModel(sql, Number(id)).catch((error: unknown) => {
    if (error instanceof UserError && error.status === 404) notFound();
    throw error;
  });
  const versions = await modelVersions(sql, model.maker, model.name);
  const others = (await listModels(sql)).filter((m) => !versions.some((v) => v.id === m.id));
  const { netlist, ...head } = model;
  const settings = await getSettings(sql);
  return (
    <>
      <Strip settings={settings} />
      <main>
        <ModelClient
          key={model.id}
          memory={await memoryOfModel(sql, model)}
          head={head}
          netlist={netlist}
          versions={versions}
          others={others}
          school={settings.symbols}
        />
      </main>
    </>
  );
}
