import { notFound } from "next/navigation";
import { markAll } from "@/core/circuit/edit-line";
import { complementOf } from "@/core/circuit/nearest";
import { readCircuit } from "@/core/circuit/read";
import { db } from "@/server/db";
import { circuitInUse } from "@/core/job/circuit-in-use";
import { foldJob } from "@/core/tape/fold";
import type { Sql } from "@/server/database";
import { UserError } from "@/server/errors";
import { wholeJob } from "@/server/shop";
import { getModel, libraryModels } from "@/server/models";
import { getSettings } from "@/server/settings";
import { Strip, technician } from "../../strip";
import { ModelClient } from "../model-client";

export const metadata = { title: "New model · Scutum" };

/**
 * Empty, or started from the nearest model: then nothing in it has been seen yet, and every part is assumed. With `for` a job that has no
 * circuit, and `tubes` that were read off it: it is given what is stored here.
 */
export default async function NewModelPage({
  searchParams,
}: {
  searchParams: Promise<{ from?: string; job?: string; for?: string; tubes?: string }>;
}) {
  const { from, job, for: forJob, tubes } = await searchParams;
  for (const id of [from, job, forJob]) if (id !== undefined && !/^\d{1,9}$/.test(id)) notFound();
  const sql = await db();
  const model =
    from === undefined
      ? undefined
      : await getModel(sql, Number(from)).catch((error: unknown) => {
          if (error instanceof UserError && error.status === 404) notFound();
          throw error;
        });
  const amp = job === undefined ? undefined : await ampOfJob(sql, Number(job));
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
          netlist={amp ?? (model ? markAll(model.netlist, "assumed") : "")}
          draftName={job !== undefined ? `job-${job}` : forJob !== undefined ? `for-${forJob}` : "new"}
          begunWith={job === undefined ? undefined : `the amp of job ${job}, with what was changed in it`}
          versions={[]}
          others={others}
          near={near}
          mains={{ volts: settings.mainsVolts, hertz: settings.mainsVolts < 150 ? 60 : 50 }}
          school={settings.symbols}
          tubes={tubes?.slice(0, 200)}
          forJob={forJob === undefined ? undefined : { id: Number(forJob), who: await technician(settings) }}
        />
      </main>
    </>
  );
}

/** The circuit of a job's amp as it stands: its model with the experiments that were kept. */
async function ampOfJob(sql: Sql, id: number): Promise<string> {
  const { events, model } = await wholeJob(sql, id).catch((error: unknown) => {
    if (error instanceof UserError && error.status === 404) notFound();
    throw error;
  });
  if (!model) notFound();
  return circuitInUse(foldJob(events), model.netlist).netlist;
}
