import { complementOf } from "@/core/circuit/nearest";
import { readCircuit } from "@/core/circuit/read";
import { db } from "@/server/db";
import { libraryModels } from "@/server/models";
import { getSettings } from "@/server/settings";
import type { LibraryRow } from "@/ui/library/library-list";
import { Strip } from "../strip";
import { LibraryClient } from "./library-client";

export const metadata = { title: "Amp library · Scutum" };

export default async function LibraryPage() {
  const sql = await db();
  const rows = (await libraryModels(sql)).map(({ netlist, ...head }): LibraryRow => {
    const { circuit } = readCircuit(netlist);
    const { revision = "", from, to, watts = "" } = circuit.facts;
    return {
      ...head,
      revision,
      years: from ? `${from}${to ? `–${to}` : ""}` : "",
      watts,
      tubes: complementOf(circuit),
      points: circuit.points.length,
      parts: circuit.elements.length,
      assumed: circuit.elements.filter((e) => e.notes.prov === "assumed").length,
    };
  });
  return (
    <>
      <Strip settings={await getSettings(sql)} />
      <main>
        <LibraryClient rows={rows} />
      </main>
    </>
  );
}
