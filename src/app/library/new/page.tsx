import { notFound } from "next/navigation";
import { markAll } from "@/core/circuit/edit-line";
import { complementOf } from "@/core/circuit/nearest";
import { readCircuit } from "@/core/circuit/read";
import { db } from "@/server/db";
import { UserError } from "@/server/errors";
import { getModel, libraryModels } from "@/server/models";
import { getSettings } from "@/server/settings";
import { Strip } from "../../strip";
import { ModelClient } from "../model-client";

export const metadata = { title: "New model · Scutum" };

/** Empty, or started from the nearest model: then nothing in it has been seen yet, and every part is assumed. */
export default async function NewModelPage({ searchParams }: { searchParams: Promise<{ from?: string }> }) {
  const { from } = await searchParams;
  if (from !== undefined && !/^\d{1,9}$/.test(from)) notFound();
  const sql = await db();
  const model =
    from === undefined
      ? undefined
      : await getModel(sql, Number(from)).catch((error: unknown) => {
          if (error instanceof UserError && error.status === 404) notFound();
          throw error;
        });
  const models = await libraryModels(sql);
  const others = models.map(({ netlist: _, ...head }) => head);
  const near = models.map(({ netlist, ...head }) => ({ ...head, tubes: complementOf(readCircuit(netlist).circuit) }));
  const settings = await getSettings(sql);
  return (
    <>
      <Strip settings={settings} />
      <main>
        <ModelClient
          begunFrom={model && { id: model.id, maker: model.maker, name: model.name, version: model.version }}
          netlist={model ? markAll(model.netlist, "assumed") : ""}
          versions={[]}
          others={others}
          near={near}
          mains={{ volts: settings.mainsVolts, hertz: settings.mainsVolts < 150 ? 60 : 50 }}
          school={settings.symbols}
        />
      </main>
    </>
  );
}
